"""Sizes: a number with a unit (`10M`, `1.5G`, `512kB`), a sign before it where it is a change."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Part, Reading

_PERCENT = re.compile(r"(\d+)%(FREE|VG|PVS|ORIGIN)?")


def read(value: str, dialect: str = "") -> Reading:
    """The size in words."""
    percent = _PERCENT.fullmatch(value.lstrip("+-"))
    match = re.fullmatch(r"([-+<>/%]?)(\d+(?:\.\d+)?)([bkKMGTPEZY]?)(i?[Bb]?)", value)
    if dialect == "bytes" and value.isdecimal():
        says = f"{value} bytes"
        return Reading([Part(value, says)], says)
    if percent or not match or not (match[3] or match[4]):
        return NOTHING
    sign, number, letter, rest = match.groups()
    if letter == "b":
        return NOTHING  # blocks here, bytes there
    says = f"{number} {_unit(letter.upper(), rest)}"
    signs = {"+": f"{says} more", "-": f"{says} less", "<": f"at most {says}"}
    says = signs.get(sign, says)
    return Reading([Part(value, says)], says)


def _unit(letter: str, rest: str) -> str:
    if not letter:
        return "bytes"
    if rest in ("B", "b"):
        return f"{letter.lower() if letter == 'K' else letter}B, powers of 1000"
    return f"{letter}iB"
