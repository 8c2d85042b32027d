"""Types of files as find takes them: `f`, `d,l` (POSIX.1-2017, find, with GNU's lists)."""

from __future__ import annotations

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading, listed

_TYPES = {
    "f": "files",
    "d": "folders",
    "l": "links",
    "b": "block devices",
    "c": "character devices",
    "p": "named pipes",
    "s": "sockets",
    "D": "doors",
}


def read(value: str, dialect: str = "") -> Reading:
    """What is looked for."""
    letters = value.split(",")
    if not all(letter in _TYPES for letter in letters):
        return NOTHING
    cutter = Cutter(value)
    for letter in letters:
        cutter.cut(cutter.at + 1, _TYPES[letter])
        cutter.cut(min(cutter.at + 1, len(value)))
    return cutter.finish(listed([_TYPES[letter] for letter in letters]))
