"""Formats of printf (POSIX.1-2017, XBD 5)."""

from __future__ import annotations

import re

_TOKEN = re.compile(
    r"%([-+ 0#']*)(\*|\d+)?(?:\.(\*|\d+))?([a-zA-Z%])|\\(?:[abefnrtv\\\"']|x[0-9a-fA-F]{1,2}"
    r"|0?[0-7]{1,3}|c)|[^%\\]+|."
)
_KINDS = {
    "s": "text",
    "d": "a whole number",
    "i": "a whole number",
    "u": "a number without sign",
    "f": "a number with decimals",
    "e": "a number with exponent",
    "g": "a number",
    "x": "a number in hexadecimal",
    "X": "a number in hexadecimal",
    "o": "a number in octal",
    "c": "one character",
    "b": "text with its escapes carried out",
    "q": "text quoted for the shell",
    "a": "a number in hexadecimal",
    "%": "a percent sign",
}
_ESCAPES = {
    "n": "a new line",
    "t": "a tab",
    "r": "back to the beginning of the line",
    "a": "a bell",
    "\\": "a backslash",
    "e": "escape",
}


def parts(value: str) -> list[tuple[str, str]]:
    """Each conversion and escape, and the text between."""
    found = []
    for match in _TOKEN.finditer(value):
        token = match[0]
        if match[4]:
            found.append((token, _conversion(match[1], match[2], match[3], match[4])))
        elif token[0] == "\\" and len(token) > 1:
            found.append((token, _ESCAPES.get(token[1], f"the character of code {token[1:]}")))
        elif token.strip():
            found.append((token, "as it stands"))
    return found if any(says != "as it stands" for _, says in found) else []


def _conversion(flags: str, width: str | None, precision: str | None, letter: str) -> str:
    says = _KINDS.get(letter, "the next argument")
    if letter == "%":
        return says
    if precision and letter in "feg":
        says += f", {precision} after the point"
    elif precision and letter == "s":
        says += f", at most {precision} characters"
    if width:
        side = (
            "on the left"
            if "-" in flags
            else ("filled with zeros" if "0" in flags else "on the right")
        )
        says += f", {width} wide, {side}"
    return says
