"""Scripts of sed (POSIX.1-2017, sed, with the additions of GNU)."""

from __future__ import annotations

import re

_COMMANDS = {
    "d": "deletes the line",
    "p": "prints the line",
    "q": "stops",
    "Q": "stops without printing",
    "=": "prints the line's number",
    "n": "goes on to the next line",
    "N": "adds the next line",
    "D": "deletes up to the first new line",
    "P": "prints up to the first new line",
    "h": "keeps the line aside",
    "H": "adds the line to what is kept aside",
    "g": "takes back what was kept aside",
    "G": "adds what was kept aside",
    "x": "exchanges it with what is kept aside",
    "l": "prints the line with its odd characters shown",
}
_ADDRESS = re.compile(
    r"(\d+~\d+|\d+|\$|/(?:\\.|[^/\\])*/I?)(?:,(\+?\d+|~\d+|\$|/(?:\\.|[^/\\])*/I?))?(!?)\s*"
)
_FLAGS = {
    "g": "every time in the line",
    "p": "prints changed lines",
    "i": "in any case",
    "I": "in any case",
    "e": "runs the result",
    "m": "with lines in it",
}


def parts(value: str) -> list[tuple[str, str]]:
    """Each address, command and argument of a script of one line."""
    found: list[tuple[str, str]] = []
    rest = value.strip()
    while rest:
        address = _ADDRESS.match(rest)
        if address:
            found.append((address[0].strip(), _address(address)))
            rest = rest[address.end() :]
        letter = rest[:1]
        if letter in ("s", "y"):
            taken = _substitution(rest, found)
            if not taken:
                return []
            rest = rest[taken:]
        elif letter in ("a", "i", "c") and len(rest) > 1:
            does = {
                "a": "adds a line after it",
                "i": "adds a line before it",
                "c": "puts this in the line's place",
            }[letter]
            return [*found, (rest, does)]
        elif letter in _COMMANDS:
            found.append((letter, _COMMANDS[letter]))
            rest = rest[1:]
        elif letter in ("{", "}", ";"):
            rest = rest[1:]
        else:
            return []
        rest = rest.lstrip(" ;")
    return found


def _address(match: re.Match[str]) -> str:
    first, last, negated = match[1], match[2], match[3]
    says = _place(first) + (f" to {_place(last)}" if last else "")
    return ("on all lines but " if negated else "on ") + says


def _place(address: str) -> str:
    if address == "$":
        return "the last line"
    if address.startswith("/"):
        return (
            f"lines that match {address}"
            if address.endswith("/")
            else f"lines that match {address[:-1]}, in any case"
        )
    if "~" in address:
        first, step = address.split("~")
        return (
            f"every {step}th line from {first}"
            if first
            else f"the next line that is a multiple of {step}"
        )
    return f"{address[1:]} lines further" if address.startswith("+") else f"line {address}"


def _substitution(text: str, found: list[tuple[str, str]]) -> int:
    mark = re.escape(text[1:2])
    match = re.match(
        rf"([sy]){mark}((?:\\.|[^\\{mark}])*){mark}((?:\\.|[^\\{mark}])*){mark}([gpiIem0-9]*)",
        text,
        re.DOTALL,
    )
    if not mark or not match:
        return 0
    if match[1] == "y":
        found.append((match[0], f"puts {match[3]} in the place of {match[2]}, letter by letter"))
    else:
        new = match[3] or "nothing"
        found.append(
            (text[: match.start(4)], f"puts {new} in the place of what matches {match[2]}")
        )
        for flag in match[4]:
            found.append((flag, _FLAGS.get(flag, f"only the {flag}th time")))
    return match.end()
