"""Statements of a script that cannot be read as a whole: those that can be, one by one."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.shell_grammar import is_readable
from dowsing.commandline.scripts.fragments import Fragment

MOST_TRIED = 40  # ends that are tried for one statement
MOST_LINES = 400  # of one statement
MOST_PARSED = 3_000  # texts that are tried in all

#: Lines that a compound statement, a text in quotes or a here-document may end with.
_ENDS = re.compile(r"\s*(?:fi|done|esac|\}|\)|;;)|[^#]*['\"`)}]\s*(?:\||;|>.*|&&.*)?$|\w+$")
#: Lines with which something begins that goes on.
_GOES_ON = re.compile(
    r"\s*(?:if|for|while|until|case|select|function)\b|.*(?:\{|\(|<<-?\s*\S+|\\|&&|\|\|?|\bthen|\bdo)\s*$"
    r"|[^'\"]*(?:'[^']*|\"[^\"]*)$|.*<<"
)


class _Budget:
    """How many texts may still be tried."""

    def __init__(self, left: int) -> None:
        self.left = left

    def is_readable(self, text: str) -> bool:
        """Whether the grammar can read a text, as long as texts may be tried."""
        self.left -= 1
        return self.left > 0 and is_readable(text)


def readable(fragment: Fragment) -> tuple[list[Fragment], list[int]]:
    """The statements of a text that can be read, and the numbers of the lines that are left out.
    All of it is one where the grammar reads it as it stands.
    """
    budget = _Budget(MOST_PARSED)
    if budget.is_readable(fragment.text):
        return [fragment], []
    lines = fragment.text.split("\n")
    found: list[Fragment] = []
    left_out: list[int] = []
    at = 0
    while at < len(lines):
        if not lines[at].strip() or lines[at].lstrip().startswith("#"):
            at += 1
            continue
        end = _end_of_statement(lines, at, budget)
        if end:
            text = "\n".join(lines[at:end])
            found.append(fragment.changed(text=text, line=fragment.line + at))
        else:
            left_out.append(fragment.line + at)
        at = end or at + 1
    return found, left_out


def _end_of_statement(lines: list[str], start: int, budget: _Budget) -> int:
    """The line behind the statement that begins at `start`; 0 if none can be read."""
    if budget.is_readable(lines[start]) and "<<" not in lines[start]:
        return start + 1
    if not _GOES_ON.match(lines[start]):
        return 0
    tried = 0
    for end in range(start + 1, min(len(lines), start + MOST_LINES)):
        if not _ENDS.match(lines[end]) and lines[end - 1][-1:] != "\\":
            continue
        tried += 1
        if tried > MOST_TRIED:
            return 0
        if budget.is_readable("\n".join(lines[start : end + 1])):
            return end + 1
    return 0
