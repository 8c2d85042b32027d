"""Regular expressions: basic and extended ones (POSIX.1-2017, XBD 9), and those that Perl's add."""

from __future__ import annotations

import re

_ESCAPES = {
    "d": "a digit",
    "D": "no digit",
    "s": "a blank",
    "S": "no blank",
    "w": "a letter, digit or _",
    "W": "no letter, digit or _",
    "b": "the edge of a word",
    "B": "not at the edge of a word",
    "<": "the beginning of a word",
    ">": "the end of a word",
    "t": "a tab",
    "n": "a new line",
    "`": "the very beginning",
    "'": "the very end",
}
_CLASSES = {
    "alpha": "a letter",
    "digit": "a digit",
    "alnum": "a letter or digit",
    "upper": "a capital",
    "lower": "a small letter",
    "space": "a blank",
    "blank": "a space or tab",
    "punct": "a punctuation mark",
    "xdigit": "a hexadecimal digit",
    "print": "a printable character",
    "graph": "a visible character",
    "cntrl": "a control character",
    "word": "a letter, digit or _",
}
_ANCHORS = {".": "any character", "$": "the end of the line"}
_GROUPS = {"|": "or", "(": "begins a group", ")": "ends a group"}
_LOOKS = {
    "(?:": "begins a group",
    "(?=": "if what follows is",
    "(?!": "if what follows is not",
}
_REPEATS = {"*": "any number of times", "+": "once or more", "?": "once or not at all"}
_TOKEN = re.compile(
    r"\\\{\d*,?\d*\\\}|\{\d*,?\d*\}|\\.|\[\^?\]?(?:\[:\w+:\]|\[[.=].[.=]\]|\\.|[^\]])*\]"
    r"|\(\?(?:[:=!]|<[=!])|[.*+?^$|()]|[^\\\[.*+?^$|(){}]+|."
)


def parts(value: str, dialect: str = "basic") -> list[tuple[str, str]]:
    """Each token with what it matches; [] for plain text."""
    found: list[tuple[str, str]] = []
    plain = True
    for match in _TOKEN.finditer(value):
        token = match[0]
        says = _says(token, dialect, not found)
        if says:
            plain = False
        if says in _REPEATED and found and len(found[-1][0]) > 1 and found[-1][1] == "":
            before = found.pop()[0]  # only the last character is repeated
            found += [(before[:-1], ""), (before[-1], "")]
        if not says and found and not found[-1][1]:
            found[-1] = (found[-1][0] + token, "")
        else:
            found.append((token, says))
    if plain:
        return []
    return [(text, says or "as it stands") for text, says in found]


_REPEATED = frozenset(_REPEATS.values())


def _says(token: str, dialect: str, first: bool) -> str:
    """What a token means; "" for what stands for itself."""
    basic = dialect == "basic"
    if token == "^":
        return "the beginning of the line" if first or not basic else ""
    if token == "*" and not first:
        return _REPEATS["*"]
    if token in _ANCHORS:
        return _ANCHORS[token]
    if basic:  # what is special there has a backslash before it
        special = token[1:] if len(token) > 1 and token[0] == "\\" else ""
    else:
        special = token
    return _special(special) or _bracketed(token) or _escaped(token, dialect)


def _special(token: str) -> str:
    """A repetition, an alternative or a group."""
    if token in ("+", "?"):
        return _REPEATS[token]
    if token in _GROUPS:
        return _GROUPS[token]
    count = re.fullmatch(r"\{(\d*)(,?)(\d*)\\?\}?", token)
    if count and token.startswith("{") and (count[1] or count[3]):
        return _counted(count[1], count[2], count[3])
    return ""


def _bracketed(token: str) -> str:
    """A group of Perl's, or a set of characters."""
    if token.startswith("(?"):
        before = "if what stands before is" + ("" if token.endswith("=") else " not")
        return _LOOKS.get(token, before)
    return _set(token) if token[0] == "[" and len(token) > 2 else ""


def _escaped(token: str, dialect: str) -> str:
    if token[0] != "\\" or len(token) != 2:
        return ""
    if token[1].isdigit():
        return f"the same as group {token[1]} matched"
    if token[1] in _ESCAPES and (dialect == "perl" or token[1] in "<>bBwWsS`'"):
        return _ESCAPES[token[1]]
    return f"the character {token[1]}" if not token[1].isalnum() else ""


def _counted(least: str, comma: str, most: str) -> str:
    if not comma:
        return f"{least} times"
    if not most:
        return f"{least} times or more"
    return f"{least or 0} to {most} times"


def _set(token: str) -> str:
    inner = token[1:-1]
    negated = inner.startswith("^")
    inner = inner[1:] if negated else inner
    names = [_CLASSES.get(name, name) for name in re.findall(r"\[:(\w+):\]", inner)]
    rest = re.sub(r"\[:\w+:\]", "", inner)
    listed = " or ".join([*names, *([f"one of {rest}"] if rest else [])])
    return (
        f"a character that is not {listed}" if negated else (listed if names else f"one of {rest}")
    )
