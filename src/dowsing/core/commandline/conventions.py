"""How commands take their words, where their forms do not tell it: read from conventions.toml."""

from __future__ import annotations

import os
import tomllib
from functools import cache

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any


class Carrier:
    """How a command carries another: see conventions.toml."""

    __slots__ = ("after", "assignments", "before", "joined", "never", "string", "strings", "valued")

    def __init__(self, row: dict[str, Any]) -> None:
        self.before: int = row.get("before", 0)
        self.joined: bool = row.get("joined", False)
        self.assignments: bool = row.get("assignments", False)
        self.strings: list[str] = row.get("strings", [])
        self.string: bool = row.get("string", False)
        self.never: bool = row.get("never", False)
        self.valued: list[str] = row.get("valued", [])
        self.after: str = row.get("after", "")


class Conventions:
    """All of them."""

    def __init__(self, rows: dict[str, Any]) -> None:
        self.carriers = {name: Carrier(row) for name, row in rows["carries"].items()}
        self.scripts = frozenset(rows["scripts"]["names"])
        self.ends: dict[str, list[str]] = rows["scripts"]["ends"]
        self.bundles = frozenset(rows["bundles"]["names"])
        self.expressions: dict[str, list[str]] = rows["expressions"]
        self.shortened = frozenset(rows["shortened"]["names"])
        self.numbers: dict[str, str] = rows["numbers"]
        self.untagged: dict[str, list[str]] = rows["untagged"]


@cache
def conventions() -> Conventions:
    """The conventions that come with the program."""
    with open(os.path.join(os.path.dirname(__file__), "conventions.toml"), "rb") as file:
        return Conventions(tomllib.load(file))
