"""Measures the full-screen parts and the shell's keys on a terminal, as ratios to a floor measured
in the same run.

    python bench/screens.py [--runs N] [--demo]

F is the wall time of `python -c "import argparse, sqlite3"`, taken in turn with each measured
thing. A screen is ready when what it waits for the user with has been drawn; a key is answered when
its answer has reached the terminal. Shells that are not there are left out. --demo takes the demo
library in place of the machine's pages.
"""

from __future__ import annotations

import argparse
import fcntl
import os
import pty
import re
import select
import shutil
import statistics
import struct
import subprocess
import sys
import tempfile
import termios
import time

PROGRAM = os.path.join(os.path.dirname(sys.executable), "dowsing")
FLOOR = [sys.executable, "-c", "import argparse, sqlite3"]
SIZE = (30, 110)
LIMIT = 15.0  # seconds


class Terminal:
    """A command on a pseudo-terminal."""

    def __init__(self, command: list[str], environment: dict[str, str]) -> None:
        self.pid, self.end = pty.fork()
        if self.pid == 0:
            os.execvpe(command[0], command, {**environment, "TERM": "xterm-256color"})
        fcntl.ioctl(self.end, termios.TIOCSWINSZ, struct.pack("HHHH", *SIZE, 0, 0))
        self.seen = b""

    def wait(self, text: str, start: float | None = None) -> float:
        """Seconds until the text has come, from `start` or from now on. Raises TimeoutError."""
        start = time.perf_counter() if start is None else start
        want = text.encode()
        while want not in _bare(self.seen):
            ready = select.select([self.end], [], [], LIMIT)[0]
            if not ready:
                raise TimeoutError(f"{text!r} did not come; there was {_bare(self.seen)[-800:]!r}")
            self.seen += os.read(self.end, 65536)
        return time.perf_counter() - start

    def rest(self, seconds: float) -> None:
        """Take what comes for a while."""
        until = time.perf_counter() + seconds
        while (left := until - time.perf_counter()) > 0:
            if select.select([self.end], [], [], left)[0]:
                self.seen += os.read(self.end, 65536)

    def send(self, keys: str) -> float:
        """Send keys and forget what was seen; the time of sending."""
        self.seen = b""
        start = time.perf_counter()
        os.write(self.end, keys.encode())
        return start

    def close(self) -> None:
        os.close(self.end)
        try:
            os.kill(self.pid, 9)
        except ProcessLookupError:
            pass
        os.waitpid(self.pid, 0)


def _bare(data: bytes) -> bytes:
    """What was written, without control sequences and line ends."""
    return re.sub(rb"\x1b\[[0-9;?<>=]*[ -/]*[@-~]|\x1b[()][A-Z0-9]|\x1b[=>]|[\r\n]", b"", data)


def floor() -> float:
    start = time.perf_counter()
    subprocess.run(FLOOR, check=True)
    return time.perf_counter() - start


def screen_ready(arguments: list[str], text: str, environment: dict[str, str]) -> float:
    start = time.perf_counter()
    terminal = Terminal([PROGRAM, *arguments], environment)
    try:
        return terminal.wait(text, start)
    finally:
        terminal.close()


def keystrokes(environment: dict[str, str], demo: list[str], sentence: str) -> list[float]:
    """Seconds from each key of a sentence to the first change of the list's head or rows that it
    brings.
    """
    terminal = Terminal([PROGRAM, *demo, "browse"], environment)
    found = []
    try:
        terminal.wait("Type what you look for")
        terminal.rest(0.5)
        for key in sentence:
            start = terminal.send(key)
            last = start
            while select.select([terminal.end], [], [], 0.12)[0]:
                terminal.seen += os.read(terminal.end, 65536)
                if b"found" in _bare(terminal.seen) or len(terminal.seen) > 300:
                    last = time.perf_counter()
                    break
            if last > start:
                found.append(last - start)
            terminal.rest(0.35)
    finally:
        terminal.close()
    return found


def form_keys(environment: dict[str, str], demo: list[str], name: str) -> list[float]:
    """Seconds from each letter typed into a field of a form until the line is there with it."""
    terminal = Terminal([PROGRAM, *demo, "compose", name], environment)
    found = []
    try:
        terminal.wait("Enter take the line")
        terminal.rest(0.8)
        for key in "archive-of-the-beds":
            start = terminal.send(key)
            found.append(terminal.wait(key, start))
            terminal.rest(0.3)
    finally:
        terminal.close()
    return found


def key_answer(
    shell: str, key: str, line: str, text: str, environment: dict[str, str], snippet: str
) -> float:
    """Seconds from the key in a shell's line to its answer below it."""
    commands = {
        "bash": ["bash", "--norc", "-i"],
        "zsh": ["zsh", "-f", "-i"],
        "fish": ["fish", "--no-config", "-i"],
    }
    terminal = Terminal(commands[shell], environment)
    try:
        terminal.rest(0.8)
        terminal.send(f"source {snippet}; echo rea''dy\r")
        terminal.wait("ready")
        terminal.rest(0.4)
        terminal.send(line)
        terminal.rest(0.4)
        start = terminal.send(key)
        return terminal.wait(text, start)
    finally:
        terminal.close()


def startup(shell: str, snippet: str, environment: dict[str, str]) -> float:
    """Seconds that sourcing the snippet adds to the start of an interactive shell."""
    commands = {
        "bash": ["bash", "--norc", "-i"],
        "zsh": ["zsh", "-f", "-i"],
        "fish": ["fish", "--no-config", "-i"],
    }
    times: dict[bool, list[float]] = {True: [], False: []}
    for _ in range(15):
        for with_it in (True, False):
            call = [*commands[shell], "-c", f"source {snippet}" if with_it else ":"]
            start = time.perf_counter()
            subprocess.run(
                call, env=environment, capture_output=True, stdin=subprocess.DEVNULL, check=False
            )
            times[with_it].append(time.perf_counter() - start)
    return statistics.median(times[True]) - statistics.median(times[False])


def told(name: str, ratios: list[float], target: float | None = None) -> None:
    middle = statistics.median(ratios)
    goal = f"  target {target:g}  {'met' if middle <= target else 'MISSED'}" if target else ""
    print(f"{name:<34} {middle:6.2f} F  ({min(ratios):.2f} to {max(ratios):.2f}){goal}", flush=True)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--runs", type=int, default=9)
    parser.add_argument("--demo", action="store_true")
    parser.add_argument("--screens", action="store_true", help="without the shells")
    options = parser.parse_args()
    demo = ["--demo"] if options.demo else []
    name, words = ("vent", "open the roof") if options.demo else ("tar", "copy files over ssh")
    with tempfile.TemporaryDirectory() as folder:
        environment = {**os.environ, "DOWSING_DATA": folder, "PS1": "$ "}
        environment["PATH"] = os.path.dirname(PROGRAM) + os.pathsep + environment["PATH"]
        environment.pop("TMUX", None)
        subprocess.run([PROGRAM, *demo, "index"], env=environment, capture_output=True, check=True)
        floors = [floor() for _ in range(options.runs)]
        print(f"F = {statistics.median(floors) * 1000:.1f} ms")
        for title, arguments, text, target in (
            ("browse ready", ["browse"], "Type what you look for", 8.0),
            (f"compose {name} ready", ["compose", name], "Enter take the line", 9.0),
        ):
            ratios = [
                screen_ready([*demo, *arguments], text, environment) / floor()
                for _ in range(options.runs)
            ]
            told(title, ratios, target)
        times = keystrokes(environment, demo, words)
        print(
            f"{'browse, a key to its results':<34} {statistics.median(times) * 1000:6.1f} ms "
            f"(up to {max(times) * 1000:.1f}, {len(times)} keys)  target 100 ms  "
            f"{'met' if max(times) <= 0.1 else 'MISSED'}"
        )
        times = form_keys(environment, demo, name)
        print(
            f"{'compose, a key to the line':<34} {statistics.median(times) * 1000:6.1f} ms "
            f"(up to {max(times) * 1000:.1f}, {len(times)} keys)  target 50 ms  "
            f"{'met' if statistics.median(times) <= 0.05 else 'MISSED'}"
        )
        for shell in () if options.screens else ("bash", "zsh", "fish"):
            if not shutil.which(shell):
                continue
            snippet = os.path.join(folder, f"snippet.{shell}")
            with open(snippet, "w", encoding="utf-8") as file:
                subprocess.run([PROGRAM, "shell", shell], stdout=file, check=True, env=environment)
            for key, line, text, what in (
                ("\x1bi", f"{name} -", "more", "next"),
                ("\x1bj", f"{name} -v", f"From {name}(1)", "unpick"),
                ("\x1bm", f"{name} -v", "SYNOPSIS", "read"),
                ("\x1bk", f"{name} -v", "Enter take the line", "compose"),
            ):
                ratios = [
                    key_answer(shell, key, line, text, environment, snippet) / floor()
                    for _ in range(options.runs)
                ]
                told(
                    f"{shell}: key to answer of {what}", ratios, 3.0 if what != "compose" else None
                )
            print(
                f"{shell + ': the snippet at its start':<34} "
                f"{startup(shell, snippet, environment) * 1000:6.1f} ms  target 5 ms"
            )


if __name__ == "__main__":
    main()
