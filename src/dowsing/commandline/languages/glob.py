"""Patterns of file names (POSIX.1-2017, XCU 2.13, with bash's `**` and its extended patterns)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import Cutter, Reading

_TOKEN = re.compile(
    r"\*\*/?|[@?*+!]\([^()]*\)|\*|\?|\[[!^]?\]?(?:\[:\w+:\]|[^\]])*\]|\\.|[^*?\[\\@+!]+|.",
    re.DOTALL,
)
_EXTENDED = {
    "@": "one of",
    "?": "one of, or nothing:",
    "*": "any number of",
    "+": "one or more of",
    "!": "anything but",
}


def read(value: str, dialect: str = "") -> Reading:
    """Each sign with what it stands for."""
    cutter = Cutter(value)
    for match in _TOKEN.finditer(value):
        cutter.cut(match.end(), _says(match[0]))
    if not any(part.says for part in cutter.parts):
        return Reading()
    if all(part.text == "*" for part in cutter.parts if part.says):
        return Reading([], value)  # everybody knows what that is
    return cutter.finish(value)


def _says(token: str) -> str:
    if token in ("**", "**/"):
        return "folders, however deep"
    if len(token) > 2 and token[0] in _EXTENDED and token[1] == "(":
        return f"{_EXTENDED[token[0]]} {token[2:-1].replace('|', ' or ')}"
    if token == "*":
        return "anything"
    if token == "?":
        return "one character"
    if token[0] == "[" and len(token) > 2:
        from dowsing.commandline.languages.regex import set_words

        return set_words(token)
    if token[0] == "\\" and len(token) == 2:
        return f"the character {token[1]}"
    return ""


#: Text with nothing special but a star before or behind it.
_SIMPLE = re.compile(r"(\*?)([^*?\[\]\\(){}]+)(\*?)")


def is_simple(value: str) -> bool:
    """Whether a few words say all of a pattern."""
    return value == "*" or _SIMPLE.fullmatch(value) is not None


def phrase(value: str) -> str:
    """What names that fit are like: `ending in .gz`."""
    simple = _SIMPLE.fullmatch(value)
    if not simple:
        return "of any name" if value == "*" else f"like {value}"
    before, text, after = simple.groups()
    if before and after:
        return f"with {text} in the name"
    if before:
        return f"ending in {text}"
    return f"beginning with {text}" if after else f"called {text}"
