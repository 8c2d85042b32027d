"""Lines of marked text to a terminal or a pipe; the pager."""

from __future__ import annotations

import os
import re
import sys

from dowsing.model.errors import Unwritable
from dowsing.model.markup import (
    BOLD,
    BOLD_ITALIC,
    CODE,
    ITALIC,
    ROMAN,
    clean,
    clean_line,
    plain,
    printable_marked,
)
from dowsing.render.line_marks import FAINT, FOUND, HEADING

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import TextIO

_MARK = re.compile("[\x01-\x05]")

USUAL_WIDTH = 80  # columns, where nothing says how wide the screen is
WIDEST_TEXT = 100  # columns: longer lines are hard to read


def _styles() -> dict[str, str]:
    """What stands for each mark on the terminal."""
    from dowsing.terminal.palette import CODES, palette

    colours = palette()
    return {
        BOLD: "\x1b[1m",
        ITALIC: f"\x1b[3;{CODES[colours.placeholder]}m",
        BOLD_ITALIC: f"\x1b[1;3;{CODES[colours.placeholder]}m",
        CODE: f"\x1b[{CODES[colours.code]}m",
        ROMAN: "\x1b[0m",
        HEADING: f"\x1b[1;{CODES[colours.heading]}m",
    }


MOST_DIGITS = 6  # of a width


class Screen:
    """Where answers go: knows whether it is a terminal, whether to colour, and how wide it is."""

    def __init__(self, color: str = "auto", pager: str = "auto", width: int | None = None) -> None:
        self.is_terminal = _is_terminal(sys.stdout)
        self.color = color == "always" or (
            color == "auto"
            and self.is_terminal
            and not os.environ.get("NO_COLOR")
            and os.environ.get("TERM", "") not in ("dumb", "")
        )
        self.styles = _styles() if self.color else {}
        self.pager = pager
        self.width = terminal_width(width, self.is_terminal)

    @property
    def height(self) -> int | None:
        """The lines of the terminal, None if it is none."""
        try:
            return os.get_terminal_size(1).lines if self.is_terminal else None
        except OSError:
            return None

    def encode(self, line: str) -> str:
        """A line of marked text as it goes out: coloured, or bare. The gate: only marks mean
        anything in it.
        """
        if line.isprintable():
            return line
        bare = plain(line)
        if (
            not bare.isprintable()
        ):  # so it is with few lines: what was cleaned where it came in passes
            line = printable_marked(line)
            bare = plain(line)
        if not self.color:
            return bare
        head = line[:1]
        if head == HEADING:
            return f"{self.styles[HEADING]}{bare}\x1b[0m"
        if head == FAINT:
            return f"\x1b[2m{bare}\x1b[0m"
        line = _MARK.sub(lambda match: self.styles[match[0]], line)
        line = line.replace(FAINT, "\x1b[2m")  # to the next style
        if FOUND in line:
            parts = line.split(FOUND)
            line = "".join(
                f"\x1b[7m{part}\x1b[27m" if n % 2 else part for n, part in enumerate(parts)
            )
        return line.replace("\xa0", " ")

    def show(self, lines: list[str], paged: bool = False) -> None:
        """Print lines; through the pager if `paged` and they do not fit on the terminal."""
        text = "\n".join([self.encode(line) for line in lines]) + "\n"
        if paged and self._pages(text) and self._through_pager(text):
            return
        _emit(text)

    def _pages(self, text: str) -> bool:
        if self.pager == "never" or not (self.is_terminal or self.pager == "always"):
            return False
        if self.pager == "always":
            return True
        try:
            height = os.get_terminal_size(1).lines
        except OSError:
            return False
        return text.count("\n") >= height

    def _through_pager(self, text: str) -> bool:
        """Whether a pager took the text."""
        import subprocess

        command = pager_command()
        if not command:
            return False
        environment = {**os.environ, "LESS": os.environ.get("LESS", "RFX"), "LESSCHARSET": "utf-8"}
        try:
            run = subprocess.Popen(command, stdin=subprocess.PIPE, env=environment)
        except OSError:
            return False
        try:
            assert run.stdin is not None
            run.stdin.write(text.encode("utf-8", "replace"))
            run.stdin.close()
        except BrokenPipeError:
            pass
        while True:
            try:
                run.wait()
                return True
            except KeyboardInterrupt:  # the pager's own business
                continue


def pager_command() -> list[str]:
    """The pager that the user chose, else a usual one; [] for `cat` and where none is there."""
    import shlex
    import shutil

    try:
        command = shlex.split(os.environ.get("DOWSING_PAGER") or os.environ.get("PAGER") or "")
    except ValueError:
        message(
            f"PAGER is not a command line: {clean_line(os.environ.get('PAGER', ''))}; printing "
            "instead"
        )
        return []
    if command == ["cat"]:
        return []
    if not command or not shutil.which(command[0]):
        if command:
            message(f"the pager {clean_line(command[0])} is not there; printing instead")
        return usual_pager()
    return command


def usual_pager() -> list[str]:
    """A pager that is there, [] if none is."""
    import shutil

    return next(([name] for name in ("less", "more") if shutil.which(name)), [])


def _is_terminal(stream) -> bool:  # type: ignore[no-untyped-def]
    try:
        return bool(stream.isatty())
    except (AttributeError, ValueError):
        return False


def write(text: str) -> None:
    """Write bare text to stdout: no control character but tab and newline reaches it."""
    _emit(clean(text))


def _emit(text: str) -> None:
    """Write to stdout whatever its encoding can hold. A closed pipe ends the program quietly.

    Raises Unwritable if stdout is closed or cannot be written to.
    """
    stream = sys.stdout
    if stream is None:
        raise Unwritable("standard output is closed")
    try:
        _write_to(stream, text)
    except BrokenPipeError:
        quiet_exit()
    except OSError as error:
        _drop_output()
        raise Unwritable((error.strerror or "failed").lower()) from None


def _write_to(stream: TextIO, text: str) -> None:
    try:
        stream.write(text)
    except UnicodeEncodeError:
        encoding = stream.encoding or "ascii"
        stream.write(text.encode(encoding, "replace").decode(encoding))
    stream.flush()


def _drop_output() -> None:
    """Have nothing try to write what is left over once more, as the end of the program would."""
    try:
        os.dup2(os.open(os.devnull, os.O_WRONLY), 1)
    except OSError:
        pass


def quiet_exit() -> None:
    """Leave without a word: nobody reads on."""
    devnull = os.open(os.devnull, os.O_WRONLY)
    os.dup2(devnull, 1)
    os._exit(0)


def message(text: str) -> None:
    """One line to stderr; in the place of the shell's line where a key in that has called."""
    in_line = os.environ.get("DOWSING_FROM_SHELL") and _is_terminal(sys.stderr)
    try:
        sys.stderr.write(("\r\x1b[K" if in_line else "") + f"dowsing: {clean_line(text)}\n")
        sys.stderr.flush()
    except (OSError, ValueError, AttributeError):  # closed, or of an encoding that cannot hold it
        pass


def _is_short(digits: str) -> bool:
    return len(digits.lstrip("0")) <= MOST_DIGITS


def terminal_width(asked: int | None, is_terminal: bool) -> int:
    """The width to lay out for: asked for, COLUMNS, the terminal's, or 80."""
    if asked:
        return asked
    columns = os.environ.get("COLUMNS", "")
    if columns.isdecimal() and columns.strip("0"):
        # one of thousands of digits is no number for Python
        return min(int(columns[-MOST_DIGITS:]), WIDEST_TEXT) if _is_short(columns) else WIDEST_TEXT
    if is_terminal:
        for stream in (1, 2, 0):
            try:
                return min(os.get_terminal_size(stream).columns or USUAL_WIDTH, WIDEST_TEXT)
            except OSError:
                continue
    return USUAL_WIDTH
