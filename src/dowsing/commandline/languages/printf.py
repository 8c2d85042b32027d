"""Formats of printf (POSIX.1-2017, XBD 5)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_TOKEN = re.compile(
    r"%([-+ 0#']*)(\*|\d+)?(?:\.(\*|\d*))?(?:\(([^)]*)\)T|([a-zA-Z%]))|\\(?:[abefnrtv\\\"']"
    r"|x[0-9a-fA-F]{1,2}|0?[0-7]{1,3}|c)|[^%\\]+|.",
    re.DOTALL,
)
_KINDS = {
    "s": "text",
    "d": "a whole number",
    "i": "a whole number",
    "u": "a number without sign",
    "f": "a number with decimals",
    "F": "a number with decimals",
    "e": "a number with exponent",
    "E": "a number with exponent",
    "g": "a number",
    "G": "a number",
    "x": "a number in hexadecimal",
    "X": "a number in hexadecimal",
    "o": "a number in octal",
    "c": "one character",
    "b": "text with its escapes carried out",
    "q": "text quoted for the shell",
    "a": "a number in hexadecimal",
    "%": "a percent sign",
}
ESCAPES = {
    "n": "a new line",
    "t": "a tab",
    "r": "back to the beginning of the line",
    "a": "a bell",
    "b": "back by one character",
    "f": "a new page",
    "v": "a vertical tab",
    "0": "a null character",
    "\\": "a backslash",
    '"': "a quote",
    "'": "a quote",
    "e": "escape",
    "c": "ends the output here",
}


def read(value: str, dialect: str = "") -> Reading:
    """Each conversion and escape, and the text between."""
    cutter = Cutter(value)
    told_any = False
    for match in _TOKEN.finditer(value):
        token = match[0]
        if match[5]:
            says = _conversion(match[1], match[2], match[3], match[5])
        elif match[4] is not None and token[0] == "%":
            says = f"the date and time, written as {match[4] or '%X'}"
        elif token[0] == "\\" and len(token) > 1:
            says = escape_words(token)
        else:
            cutter.cut(match.end(), "as it stands" if token.strip() else "")
            continue
        told_any = True
        cutter.cut(match.end(), says)
    return cutter.finish() if told_any else NOTHING


def escape_words(token: str) -> str:
    """What a backslash with what follows it becomes."""
    return ESCAPES.get(token[1:]) or f"the character of code {token[1:]}"


def _conversion(flags: str, width: str | None, precision: str | None, letter: str) -> str:
    says = _KINDS.get(letter, "the next argument")
    if letter == "%":
        return says
    if precision == "*":
        says += ", as exact as an argument says"
    elif precision is not None and letter in "feFE":
        says += f", {precision or 0} digits after the point"
    elif precision is not None and letter == "s":
        says += f", at most {precision or 0} characters"
    if width == "*":
        says += ", as wide as an argument says"
    elif width:
        says += f", {width} wide, {_side(flags)}"
    if "+" in flags:
        says += ", with its sign"
    return says


def _side(flags: str) -> str:
    if "-" in flags:
        return "on the left"
    return "filled with zeros" if "0" in flags else "on the right"
