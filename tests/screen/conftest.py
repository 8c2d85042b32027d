"""The program in a real terminal: a window of tmux whose keys are sent and whose screen is read."""

from __future__ import annotations

import os
import shlex
import shutil
import subprocess
import sys
import time
import uuid
from collections.abc import Callable, Iterator

import pytest
from conftest import Program

BIN = os.path.dirname(sys.executable)
PATIENCE = 30.0  # seconds


class Window:
    """A window of tmux in which a command runs."""

    def __init__(
        self, program: Program, command: str, size: tuple[int, int], more: dict[str, str]
    ) -> None:
        self.socket = f"dowsing-{uuid.uuid4().hex[:12]}"
        self.program = program
        program.seed("--demo" in command)
        self.answer = program.folder / "answer"
        environment = program.environment(
            **{"PATH": f"{BIN}:{os.environ['PATH']}", "ESCDELAY": "25", **more}
        )
        environment.pop("COLUMNS", None)
        settings = [f"{name}={value}" for name, value in environment.items()]
        width, height = size
        self._tmux(
            "-f",
            "/dev/null",
            "new-session",
            "-d",
            "-x",
            str(width),
            "-y",
            str(height),
            "-c",
            str(program.folder),
            "bash",
            "-c",
            'exec env -i TMUX="$TMUX" "$@"',
            "env",
            *settings,
            f"TERM={more.get('TERM', 'tmux-256color')}",
            "bash",
            "--norc",
            "-c",
            command,
        )

    def _tmux(self, *arguments: str) -> str:
        done = subprocess.run(
            ["tmux", "-u", "-L", self.socket, *arguments],
            capture_output=True,
            text=True,
            check=False,
            timeout=20,
        )
        return done.stdout

    def keys(self, *keys: str) -> None:
        """Send keys by their names in tmux, or text; some time apart, as people type."""
        for key in keys:
            self._tmux("send-keys", key)
            time.sleep(0.03)

    def at_once(self, *keys: str) -> None:
        """Send keys by their names all at once, as a slow machine gets them."""
        self._tmux("send-keys", *keys)

    def text(self, text: str) -> None:
        """Send text as it is."""
        self._tmux("send-keys", "-l", "--", text)

    def paste(self, data: bytes) -> None:
        """Paste bytes as a terminal does."""
        path = self.program.folder / "pasted"
        path.write_bytes(data)
        self._tmux("load-buffer", str(path))
        self._tmux("paste-buffer", "-p")

    def resize(self, width: int, height: int) -> None:
        """Make the window another size."""
        self._tmux("resize-window", "-x", str(width), "-y", str(height))

    @property
    def screen(self) -> str:
        """What is on the screen."""
        return "\n".join(line.rstrip() for line in self._tmux("capture-pane", "-p").split("\n"))

    def wait(self, *texts: str, without: str = "") -> str:
        """Wait until all texts are on the screen, and one is not; the screen."""
        until = time.monotonic() + PATIENCE
        while True:
            screen = self.screen
            if all(text in screen for text in texts) and (not without or without not in screen):
                return screen
            assert time.monotonic() < until, (
                f"{texts} did not come (without {without!r}):\n{screen}"
            )
            time.sleep(0.05)

    def result(self) -> str:
        """What the command wrote to the file `answer`, once it is there."""
        until = time.monotonic() + PATIENCE
        while not self.answer.exists() or not self.answer.read_text().endswith("\n"):
            assert time.monotonic() < until, f"no answer came:\n{self.screen}"
            time.sleep(0.05)
        return self.answer.read_text()

    def close(self) -> None:
        self._tmux("kill-server")


Open = Callable[..., Window]


@pytest.fixture
def window(program: Program) -> Iterator[Open]:
    """A function that opens a window in which `dowsing --demo ARGUMENTS…` runs; its stdout and exit
    status go to a file.
    """
    if shutil.which("tmux") is None:
        pytest.skip("there is no tmux")
    opened: list[Window] = []
    program.run("--demo", "index")

    def open_window(
        *arguments: str, size: tuple[int, int] = (110, 30), command: str = "", **more: str
    ) -> Window:
        call = (
            command
            or f'dowsing --demo {shlex.join(arguments)} >{program.folder}/partly; echo "$? $(cat '
            f'{program.folder}/partly)" >{program.folder}/answer; sleep 60'
        )
        opened.append(Window(program, call, size, more))
        return opened[-1]

    yield open_window
    for one in opened:
        one.close()
