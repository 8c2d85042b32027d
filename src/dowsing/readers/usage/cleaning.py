"""Printed output to bare lines: terminal sequences, overstriking and tabs taken away."""

from __future__ import annotations

import re

from dowsing.model.markup import clean

#: ECMA-48 control sequences, operating system commands and other strings, and two-character
#: escapes.
_SEQUENCES = re.compile(
    r"\x1b\[[0-?]*[ -/]*[@-~]|\x9b[0-?]*[ -/]*[@-~]|\x1b[\]PX^_][^\x07\x1b\x9c]*(?:\x07|\x1b\\"
    r"|\x9c)?|\x1b[ -/]+[0-~]|\x1b[0-~]?"
)
_OVERSTRUCK = re.compile(r"[^\n]\x08")
_TAB_AFTER_TEXT = re.compile(r"(?<=\S) ?\t")

WIDEST_LINE = 2000


def clean_lines(output: str) -> list[str]:
    """The lines of `output` as they would look: no control characters, tabs as blanks, no blanks at
    the end.

    A tab that ends a column leaves at least two blanks, so that the column is still seen as one.
    """
    text = _SEQUENCES.sub("", output.replace("\r\n", "\n"))
    while "\x08" in text:
        fewer = _OVERSTRUCK.sub("", text)
        text = fewer if fewer != text else text.replace("\x08", "")
    lines = []
    for line in text.split("\n"):
        line = line.rstrip("\r").rpartition("\r")[2][
            :WIDEST_LINE
        ]  # what was written last on the line stays
        line = _TAB_AFTER_TEXT.sub("  \t", line).expandtabs(8)
        lines.append(clean(line).rstrip())
    while lines and not lines[-1]:
        lines.pop()
    while lines and not lines[0]:
        lines.pop(0)
    return lines


def indentation(line: str) -> int:
    """How many blanks the line begins with."""
    return len(line) - len(line.lstrip(" "))
