"""Lists of places as cut takes them: `1,3-5,7-` (POSIX.1-2017, cut)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading, listed

_RANGE = re.compile(r"(\d*)(-?)(\d*)")


def read(value: str, dialect: str = "") -> Reading:
    """Each range, and all of them in a row."""
    said = []
    cutter = Cutter(value)
    for text in value.split(","):
        match = _RANGE.fullmatch(text)
        if not match or not (match[1] or match[3]):
            return NOTHING
        said.append(_words(*match.groups()))
        cutter.cut(cutter.at + len(text), said[-1])
        cutter.cut(cutter.at + 1)
    reading = cutter.finish(listed(said))
    return reading if len(said) > 1 or "-" in value else Reading([], said[0])


def _words(first: str, dash: str, last: str) -> str:
    if not dash:
        return first
    if not first:
        return f"1 to {last}"
    return f"{first} to {last}" if last else f"{first} to the last"
