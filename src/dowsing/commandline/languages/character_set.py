"""Sets of characters as tr takes them: `a-z`, `[:digit:]`, `\\n` (POSIX.1-2017, tr)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.printf import escape_words
from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading, listed

_TOKEN = re.compile(
    r"\[:(\w+):\]|\[=(.)=\]|\[(.)\*(\d*)\]|(\\[0-7]{1,3}|\\?.)-(\\?.)|\\(?:[0-7]{1,3}|.)|.",
    re.DOTALL,
)
_CLASSES = {
    "alpha": "letters",
    "digit": "digits",
    "alnum": "letters and digits",
    "upper": "capitals",
    "lower": "small letters",
    "space": "blanks of all kinds",
    "blank": "spaces and tabs",
    "punct": "punctuation marks",
    "xdigit": "hexadecimal digits",
    "print": "printable characters",
    "graph": "visible characters",
    "cntrl": "control characters",
}
_RANGES = {("a", "z"): "small letters", ("A", "Z"): "capitals", ("0", "9"): "digits"}
_PLURAL = {
    "\\n": "new lines",
    "\\t": "tabs",
    "\\r": "carriage returns",
    "\\0": "null characters",
    " ": "spaces",
}


def read(value: str, dialect: str = "") -> Reading:
    """Each class, range and character."""
    cutter = Cutter(value)
    said: list[str] = []
    plain = ""
    for match in _TOKEN.finditer(value):
        says = _says(match)
        if says:
            said += [plain] * bool(plain) + [says]
            plain = ""
        else:
            plain += match[0]
        cutter.cut(match.end(), says)
    said += [plain] * bool(plain)
    if not any(part.says for part in cutter.parts):
        return NOTHING
    return cutter.finish(listed(list(dict.fromkeys(said))))


def _says(match: re.Match[str]) -> str:
    token = match[0]
    if match[1]:
        return _CLASSES.get(match[1], match[1])
    if match[2]:
        return f"characters like {match[2]}"
    if match[3]:
        return f"{match[3]}, " + (f"{match[4]} times" if match[4] else "as often as is needed")
    if match[5]:
        return _RANGES.get((match[5], match[6]), f"{match[5]} to {match[6]}")
    if token in _PLURAL:
        return _PLURAL[token]
    return escape_words(token) if token[0] == "\\" and len(token) > 1 else ""
