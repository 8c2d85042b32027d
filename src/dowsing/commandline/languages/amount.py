"""Numbers as find's tests take them: `+n` for more than, `-n` for less, with a unit (POSIX.1-2017,
find).
"""

from __future__ import annotations

import re

_UNITS = {
    "c": "bytes",
    "w": "words of two bytes",
    "b": "blocks of 512 bytes",
    "k": "KiB",
    "M": "MiB",
    "G": "GiB",
    "": "",
}


def parts(value: str) -> list[tuple[str, str]]:
    """The comparison in words."""
    match = re.fullmatch(r"([-+])(\d+)([cwbkMG]?)", value)
    if not match:
        return []
    unit = _UNITS[match[3]]
    return [
        (
            value,
            f"{'more' if match[1] == '+' else 'less'} than {match[2]}{' ' + unit if unit else ''}",
        )
    ]
