"""The reader beside: it shows what is asked for in the other pane, and the next thing in its place,
until it is left.

What is to be shown stands in a small file of the cache, one for each terminal that asks.
"""

from __future__ import annotations

import contextlib
import json
import os
import subprocess
import tempfile
import time

from dowsing.model.replacing import replace_text
from dowsing.terminal.screen import USUAL_WIDTH, pager_command, usual_pager

LOOK_AGAIN = 0.15  # seconds


class Wanted:
    """What the reader of a terminal is to show: the `arguments` of a call, and the reader's own
    process, 0 while there is none.
    """

    def __init__(self, arguments: list[str], process: int = 0) -> None:
        self.arguments = arguments
        self.process = process


def place_for(cache: str) -> str:
    """The file for the terminal that this is asked in."""
    return os.path.join(cache, "beside", f"{os.getsid(0)}.json")


def read_wanted(place: str) -> Wanted | None:
    """What stands in the file, None if that makes no sense."""
    try:
        with open(place, encoding="utf-8") as file:
            row = json.load(file)
        arguments = [str(one) for one in row["arguments"]]
        return Wanted(arguments, int(row["process"]))
    except (OSError, ValueError, KeyError, TypeError):
        return None


def write_wanted(place: str, wanted: Wanted) -> None:
    """Put it into the file. Raises OSError."""
    os.makedirs(os.path.dirname(place), mode=0o700, exist_ok=True)
    row = {"arguments": wanted.arguments, "process": wanted.process}
    replace_text(place, json.dumps(row) + "\n")


def hand_over(place: str, arguments: list[str]) -> bool:
    """Let the reader that is open show this; whether there is one."""
    wanted = read_wanted(place)
    if wanted is None or not wanted.process or not _runs(wanted.process):
        return False
    try:
        write_wanted(place, Wanted(arguments, wanted.process))
    except OSError:
        return False
    return True


def _runs(process: int) -> bool:
    try:
        os.kill(process, 0)
    except (OSError, OverflowError):
        return False
    return True


def follow(place: str, program: list[str]) -> int:
    """Show what the file asks for, anew whenever it changes, until the pager is left. `program`:
    how this program is called again.
    """
    wanted = read_wanted(place)
    if wanted is None:
        return 1
    terminal = _attributes()
    write_wanted(place, Wanted(wanted.arguments, os.getpid()))
    try:
        while True:
            state = _stamp(place)
            wanted = read_wanted(place)
            if wanted is None or not _shown(wanted.arguments, program, place, state):
                return 0
            _restore(terminal)
    finally:
        with contextlib.suppress(OSError):
            os.unlink(place)


def _shown(arguments: list[str], program: list[str], place: str, state: int) -> bool:
    """Show one thing; whether something else is wanted now, and not the end."""
    with tempfile.TemporaryFile() as text:
        call = [*program, "--pager", "never", "--color", "always", "--width", str(_columns())]
        subprocess.run([*call, *arguments], stdout=text, stderr=text, check=False)
        text.seek(0)
        command = pager_command() or usual_pager() or ["more"]
        environment = {**os.environ, "LESS": "R", "LESSCHARSET": "utf-8"}
        pager = subprocess.Popen(command, stdin=text, env=environment)
        while pager.poll() is None:
            time.sleep(LOOK_AGAIN)
            if _stamp(place) != state:
                pager.terminate()
                pager.wait()
                return True
    return False


def _columns() -> int:
    try:
        return os.get_terminal_size(1).columns
    except OSError:
        return USUAL_WIDTH


def _stamp(place: str) -> int:
    try:
        return os.stat(place).st_mtime_ns
    except OSError:
        return 0


def _attributes() -> list:  # type: ignore[type-arg]
    import termios

    try:
        return termios.tcgetattr(0)
    except termios.error:
        return []


def _restore(attributes: list) -> None:  # type: ignore[type-arg]
    """The terminal as it was before a pager that was ended."""
    import termios

    if attributes:
        with contextlib.suppress(termios.error):
            termios.tcsetattr(0, termios.TCSANOW, attributes)
