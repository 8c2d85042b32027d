"""Ends the program at any moment while it makes or takes up an index, and looks whether the next
look-up is right.

    python bench/kills.py [--seed N] [--tries N] [--seconds N]

Each try begins one of: a look-up that finds new pages, so that they are taken up in the background;
`index --rebuild`; the first look-up of all; two of these at once. A moment later one of KILL, TERM,
HUP and INT ends every process of it, and look-ups follow: of words of an old page, and of the page
that came last, by its name. At the end nothing may be left in the cache folder but the index with
its locks, and all pages must be found. `--seconds`: then eight users at once look up, keep lines,
add pages and build, while something is killed once a second.

Prints one line for each part; the exit status is 1 if anything went wrong.
"""

from __future__ import annotations

import argparse
import os
import random
import re
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from pathlib import Path

HERE = Path(__file__).parent
sys.path.insert(0, str(HERE.parent / "tests"))

from conftest import Program  # noqa: E402

OLD_PAGES = 400
SIGNALS = [signal.SIGKILL, signal.SIGKILL, signal.SIGTERM, signal.SIGHUP, signal.SIGINT]
DOWSING = os.path.join(os.path.dirname(sys.executable), "dowsing")
WAIT = 120  # seconds for what is done in the background to end
MOST_SHOWN = 5


def page(name: str, says: str) -> str:
    """The source of a page."""
    options = "".join(f".TP\n\\-{letter}\nword {letter} of {name}\n" for letter in "abcdef")
    return (
        f".TH R 1\n.SH NAME\n{name} \\- {says}\n.SH DESCRIPTION\n{'word ' * 300}\n"
        f".SH OPTIONS\n{options}"
    )


class Library:
    """A manual folder that grows, and the program on it."""

    def __init__(self, folder: Path, chance: random.Random) -> None:
        (folder / "man" / "man1").mkdir(parents=True)
        self.program = Program(folder)
        self.program.background = True
        self.chance = chance
        self.came = 0
        self.wrong: list[str] = []
        for n in range(OLD_PAGES):
            self.program.page(f"rill{n}.1", page(f"rill{n}", f"waters bed number {n}"))

    def add_pages(self, count: int) -> None:
        """Pages come, as when a package is installed."""
        for _ in range(count):
            self.came += 1
            name = f"brook{self.came}"
            self.program.page(f"{name}.1", page(name, f"feeds pond number {self.came}"))

    def begin(self, *arguments: str) -> subprocess.Popen[bytes]:
        """Start the program."""
        return subprocess.Popen(
            [DOWSING, *arguments],
            cwd=self.program.folder,
            env=self.program.environment(),
            stdin=subprocess.DEVNULL,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            start_new_session=True,
        )

    def processes(self) -> list[int]:
        """The processes that are at work on this library, but for our own."""
        mark = f"DOWSING_CACHE={self.program.cache}".encode()
        found = []
        for name in filter(str.isdecimal, os.listdir("/proc")):
            try:
                if mark in Path(f"/proc/{name}/environ").read_bytes().split(b"\0"):
                    found.append(int(name))
            except OSError:
                continue
        return found

    def end_all(self) -> None:
        """End them all."""
        sent = self.chance.choice(SIGNALS)
        for process in self.processes():
            try:
                os.kill(process, sent)
            except OSError:
                continue

    def look(self, what: str) -> None:
        """Look up: an old page by words, and the newest by its name."""
        n = self.chance.randrange(OLD_PAGES)
        self.expect(what, f"1 rill{n}(1)", "find", "waters", "bed", "number", str(n))
        if self.came:
            self.expect(
                what, f"brook{self.came}(1) feeds pond number {self.came}", f"brook{self.came}"
            )

    def expect(self, what: str, begins: str, *arguments: str) -> None:
        """Look up, and note an answer that does not begin so, or trouble that is told."""
        done = self.program.run(*arguments)
        trouble = re.search("damaged|Traceback|fault of|cannot|though it was", done.stderr)
        if done.returncode or trouble or not " ".join(done.stdout.split()).startswith(begins):
            self.wrong.append(f"{what}: {' '.join(arguments)}: {done.returncode} {done.stderr}")

    def settle(self) -> None:
        """Wait until nobody is at work any more."""
        until = time.monotonic() + WAIT
        while self.processes() and time.monotonic() < until:
            time.sleep(0.05)

    def look_at_the_end(self, what: str) -> None:
        """All pages are found by their words, and nothing is left beside the index."""
        for _ in range(3):
            self.settle()
            self.program.run("find", "rill1")
        self.settle()
        found = self.program.run("find", "brook*", "--count").stdout.split()[:1]
        if found != [str(self.came)]:
            self.wrong.append(f"{what}: {found} of {self.came} pages are there")
        names = sorted(path.name for path in self.program.cache.iterdir())
        index = next((name for name in names if name.endswith(".sqlite")), "none")
        left = set(names) - {index, f"{index}.lock", f"{index}.upkeep"}
        if left:
            self.wrong.append(f"{what}: left {sorted(left)}")


def killed(library: Library, tries: int) -> int:
    """The program ended at random moments; how many moments."""
    chance = library.chance

    def taking_up() -> None:
        library.add_pages(60)
        library.begin("find", "rill1").wait()

    def rebuilding() -> None:
        library.begin("index", "--rebuild")

    def first() -> None:
        shutil.rmtree(library.program.cache, ignore_errors=True)
        library.begin("find", "rill1")

    def two() -> None:
        for one in chance.sample([taking_up, rebuilding, taking_up], 2):
            one()

    ways: list[Callable[[], None]] = [taking_up, rebuilding, first, two]
    library.program.run("index")
    for n in range(tries):
        way = ways[n % len(ways)]
        way()
        time.sleep(chance.random() * 1.6)
        library.end_all()
        library.look(f"{way.__name__} {n}")
        if library.came > 900:  # the time goes into kills, not into pages
            for path in (library.program.man / "man1").glob("brook*.1"):
                path.unlink()
            library.came = 0
            library.settle()
            library.program.run("index")
    library.look_at_the_end("at the end")
    return tries


def used_by_many(library: Library, seconds: float) -> int:
    """Eight users at once, and a kill a second; how many calls were made."""
    until = time.monotonic() + seconds
    kept: set[str] = set()
    calls = [0] * 8

    def user(number: int) -> None:
        own = random.Random(number)
        while time.monotonic() < until:
            calls[number] += 1
            way = own.randrange(10)
            if number == 0 and way < 3:
                library.add_pages(5)
            elif number == 1 and way == 0:
                library.program.run("index", "--rebuild")
            elif way < 2:
                line = f"rill{number} --bed {calls[number]}"
                if library.program.run("save", line).returncode == 0:
                    kept.add(line)
            else:
                n = own.randrange(OLD_PAGES)
                done = library.program.run("find", "waters", "bed", "number", str(n))
                # it was the one that was killed
                ended = done.returncode < 0 or "nterrupt" in done.stderr
                if not ended and done.stdout.split()[:2] != ["1", f"rill{n}(1)"]:
                    library.wrong.append(f"find {n}: {done.returncode} {done.stderr}")

    users = [threading.Thread(target=user, args=(number,)) for number in range(8)]
    for one in users:
        one.start()
    while time.monotonic() < until:
        time.sleep(1)
        found = library.processes()
        if found:
            try:
                os.kill(library.chance.choice(found), library.chance.choice(SIGNALS))
            except OSError:
                continue
    for one in users:
        one.join()
    text = (library.program.folder / "data" / "saved.toml").read_text()
    lost = [line for line in kept if text.count(f'line = "{line}"\n') != 1]
    if lost:
        library.wrong.append(f"lost: {lost}")
    library.look_at_the_end("after all")
    return sum(calls)


def main() -> int:
    """Run the parts."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--tries", type=int, default=200)
    parser.add_argument("--seconds", type=float, default=0)
    asked = parser.parse_args()
    wrong = 0
    with tempfile.TemporaryDirectory() as folder:
        library = Library(Path(folder), random.Random(asked.seed))
        parts = [(f"{killed(library, asked.tries)} kills", list(library.wrong))]
        library.wrong.clear()
        if asked.seconds:
            library.add_pages(1)
            calls = used_by_many(library, asked.seconds)
            parts.append((f"{calls} calls of eight users, a kill a second", library.wrong))
        for what, found in parts:
            print(f"{what}: {len(found)} wrong", flush=True)
            for one in found[:MOST_SHOWN]:
                print(f"   {one[:300]!r}")
            wrong += len(found)
        library.settle()
    return 1 if wrong else 0


if __name__ == "__main__":
    raise SystemExit(main())
