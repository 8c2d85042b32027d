"""Signs of shells, well-known variables and files with what they are: signs.toml, whose head tells
the format.
"""

from __future__ import annotations

import os
from enum import StrEnum
from functools import cache

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

_FILE = os.path.join(os.path.dirname(os.path.abspath(__file__)), "signs.toml")


class SignKind(StrEnum):
    """The tables of the file."""

    SIGN = "sign"
    VARIABLE = "variable"
    FILE = "file"


class SignFact(Record):
    """What is known of one. `see`: the pages about it, the best first; `shells`: those that have a
    sign, [] for all.
    """

    says: str
    see: list[str] = []  # noqa: RUF012 - a record is immutable
    shells: list[str] = []  # noqa: RUF012


def sign_fact(kind: SignKind, text: str) -> SignFact | None:
    """What is known of a sign, a variable or a file as it is written; None if nothing is."""
    row = _tables()[kind].get(text)
    return None if row is None else SignFact(row["says"], row.get("see", []), row.get("shells", []))


@cache
def _tables() -> dict[str, dict[str, Any]]:
    import tomllib

    with open(_FILE, "rb") as file:
        return tomllib.load(file)
