"""Keys of sort: `2`, `2,2nr`, `3.2,3.5` (POSIX.1-2017, sort, with the letters of GNU)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import (
    NOTHING,
    Cutter,
    LanguageFault,
    Part,
    Reading,
    fault,
    ordinal,
)

_KEY = re.compile(r"(\d+)(?:\.(\d+))?([bdfgiMhnRrV]*)(?:,(\d+)(?:\.(\d+))?([bdfgiMhnRrV]*))?")
_ORDERS = {
    "n": "as numbers",
    "g": "as numbers with decimals and exponents",
    "h": "as sizes such as 2K and 1G",
    "M": "as months",
    "V": "as versions",
    "R": "in random order",
    "d": "by letters, digits and blanks only",
    "f": "in any case",
    "i": "by printable characters only",
    "b": "without blanks before it",
}


def read(value: str, dialect: str = "") -> Reading:
    """From which field to which, and in what order."""
    match = _KEY.fullmatch(value)
    if not value:
        return NOTHING
    if not match:
        return Reading([], "", fault(0, len(value), LanguageFault.NO_SORT_KEY))
    field, char, orders, last, last_char, last_orders = match.groups()
    place = _place(field, char, last, last_char)
    order = order_words("".join(dict.fromkeys(orders + (last_orders or ""))))
    says = ", ".join([f"by {place}", *order])
    cutter = Cutter(value)
    cutter.cut(match.start(3), f"from {_point(field, char)}")
    cutter.cut(match.end(3), ", ".join(order_words(orders)))
    if last:
        cutter.cut(
            match.start(6),
            f"to the end of {_point(last, None)}"
            if not last_char
            else f"to {_point(last, last_char)}",
        )
        cutter.cut(match.end(6), ", ".join(order_words(last_orders or "")))
    simple = Part(value, says)
    return Reading([simple] if len(cutter.parts) < 3 else cutter.finish().parts, says)


def order_words(letters: str) -> list[str]:
    """What letters say of the order: `as numbers`, `largest first`."""
    said = [_ORDERS[letter] for letter in letters if letter in _ORDERS]
    if "r" in letters:
        said.append("largest first" if set("ngh") & set(letters) else "last first")
    return said


def _point(field: str, char: str | None) -> str:
    where = f"the {ordinal(field)} field"
    return f"character {char} of {where}" if char else where


def _place(field: str, char: str | None, last: str | None, last_char: str | None) -> str:
    if last is None:
        return f"{_point(field, char)} to the end of the line"
    if last == field and not char and not last_char:
        return f"the {ordinal(field)} field"
    if last == field and char and last_char:
        return f"characters {char} to {last_char} of the {ordinal(field)} field"
    return f"{_point(field, char)} to {_point(last, last_char)}"
