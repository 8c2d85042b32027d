"""References to lines run before, as bash takes them at a prompt: `!!`, `!$`, `!-2`, `^old^new`."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Part, Reading, ordinal

_PLAIN = {
    "!!": "the line run before",
    "!$": "the last word of the line run before",
    "!^": "the first word behind the command of the line run before",
    "!*": "all words behind the command of the line run before",
    "!#": "this line so far",
}


def read(value: str, dialect: str = "") -> Reading:
    """The line, or the word, that is put there."""
    says = _PLAIN.get(value) or _other(value)
    return Reading([Part(value, says)], says) if says else NOTHING


def _other(value: str) -> str:
    back = re.fullmatch(r"!-(\d+)", value)
    if back:
        return f"the line run {ordinal(back[1])} from last" if back[1] != "1" else _PLAIN["!!"]
    number = re.fullmatch(r"!(\d+)", value)
    if number:
        return f"line {number[1]} of the history"
    holding = re.fullmatch(r"!\?([^?]+)\??", value)
    if holding:
        return f"the last line that had {holding[1]} in it"
    begun = re.fullmatch(r"!([A-Za-z][\w./-]*)", value)
    if begun:
        return f"the last line that began with {begun[1]}"
    changed = re.fullmatch(r"\^([^^]+)\^([^^]*)\^?", value)
    if changed:
        return f"the line run before, with {changed[2] or 'nothing'} in the place of {changed[1]}"
    return ""
