"""Lists of places as cut takes them: `1,3-5,7-` (POSIX.1-2017, cut)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading, listed

_RANGE = re.compile(r"(\d*)(-?)(\d*)")


def read(value: str, dialect: str = "") -> Reading:
    """Each range, and all of them in a row. `dialect`: what is counted, `field`."""
    said = []
    cutter = Cutter(value)
    for text in value.split(","):
        match = _RANGE.fullmatch(text)
        if not match or not (match[1] or match[3]):
            return NOTHING
        said.append(_words(*match.groups()))
        cutter.cut(cutter.at + len(text), said[-1])
        cutter.cut(cutter.at + 1)
    is_one = len(said) == 1 and "-" not in value
    counted = f"{dialect}{'' if is_one else 's'} " if dialect else ""
    reading = cutter.finish(counted + listed(said))
    return Reading([], reading.says) if is_one else reading


def _words(first: str, dash: str, last: str) -> str:
    if not dash:
        return first
    if not first:
        return f"1 to {last}"
    return f"{first} to {last}" if last else f"{first} to the last"
