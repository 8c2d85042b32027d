"""How commands take their words, where their forms do not tell it, and what they change: what the
trade knows.

Both are data files, conventions.toml and effects.toml; a look-up gets them from the index, which is
quicker.
"""

from __future__ import annotations

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
    """All of them. `effects` are the rows of effects.toml."""

    def __init__(self, rows: dict[str, Any], effects: dict[str, Any]) -> None:
        self.effects = effects
        self.carriers = {name: Carrier(row) for name, row in rows["carries"].items()}
        self.scripts = frozenset(rows["scripts"]["names"])
        self.code: dict[str, list[str]] = rows["scripts"]["code"]
        self.ends: dict[str, list[str]] = rows["scripts"]["ends"]
        self.bundles = frozenset(rows["bundles"]["names"])
        self.expressions: dict[str, list[str]] = rows["expressions"]
        self.shortened = frozenset(rows["shortened"]["names"])
        self.numbers: dict[str, str] = rows["numbers"]
        self.untagged: dict[str, list[str]] = rows["untagged"]
        self.dashed: dict[str, str] = rows.get("dashed", {})
        self.operators: dict[str, list[str]] = rows["operators"]


def read_files() -> dict[str, Any]:
    """The data files that come with the program, by their names."""
    import os
    import tomllib

    found = {}
    for name in ("conventions", "effects"):
        with open(
            os.path.join(os.path.dirname(__file__), "commands", f"{name}.toml"), "rb"
        ) as file:
            found[name] = tomllib.load(file)
    return found
