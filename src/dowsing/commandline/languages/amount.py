"""Numbers with a sign: as find's tests take them, `+n` for more than and `-n` for less, and as head
and tail take them (POSIX.1-2017, find and tail; GNU's head).
"""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Part, Reading, counted

_UNITS = {
    "c": "byte",
    "w": "word of two bytes",
    "b": "block of 512 bytes",
    "k": "KiB",
    "M": "MiB",
    "G": "GiB",
    "": "",
}
_FAIRLY = {"+": "more than ", "-": "less than ", "": ""}


def read(value: str, dialect: str = "") -> Reading:
    """The comparison in words: of days or minutes ago, of a size, or of a count."""
    if dialect.startswith(("head", "tail")):
        return _end(value, *dialect.split("-"))
    match = re.fullmatch(r"([-+]?)(\d+)([cwbkMG]?)", value)
    if not match:
        return NOTHING
    sign, number, letter = match.groups()
    if dialect in ("days", "minutes"):
        says = f"{_FAIRLY[sign]}{counted(number, dialect[:-1])} ago"
    elif dialect == "size":
        says = _size(sign, number, letter or "b")
    else:
        unit = _UNITS[letter]
        bare = counted(number, unit) if unit and unit[-1] != "B" else f"{number} {unit}".strip()
        says = f"{_FAIRLY[sign]}{bare}"
    return Reading([Part(value, says)], says)


def _end(value: str, which: str, unit: str) -> Reading:
    """How many lines or bytes of the beginning or the end: `the first 5 lines`."""
    match = re.fullmatch(r"([-+]?)(\d+)([A-Za-z]*)", value)
    if not match:
        return NOTHING
    sign, number, letters = match.groups()
    amount = f"{number} {letters}iB" if letters else counted(number, unit[:-1])
    if letters and letters not in "KMGTPE":
        return NOTHING
    if sign == "+" and which == "tail":
        before = counted(str(int(number) - 1), unit[:-1]).removeprefix("1 ")
        says = f"all but the first {before}" if int(number) > 1 else f"all {unit}"
    elif sign == "-" and which == "head":
        says = f"all but the last {amount}"
    else:
        place = "first" if which == "head" else "last"
        says = f"the {place} {amount}" if number != "1" or letters else f"the {place} {unit[:-1]}"
    return Reading([Part(value, says)], says)


def _size(sign: str, number: str, letter: str) -> str:
    unit = _UNITS[letter]
    amount = f"{number} {unit}" if unit[-1] == "B" else counted(number, unit)
    if number == "0":
        return "larger than nothing" if sign == "+" else "empty"
    if sign:
        return f"{'larger' if sign == '+' else 'smaller'} than {amount}"
    return f"{amount} large" if letter in "cw" else f"{amount} large, rounded up"
