"""How commands take their words, where their forms do not tell it, and what they change: what the
trade knows.

Both are data files, conventions.toml and effects.toml; a look-up gets them from the index, which is
quicker.
"""

from __future__ import annotations

from dowsing.knowledge.command_facts import NO_FACTS, CommandFacts, facts_of, read_tool_files
from dowsing.knowledge.effects import read_effects

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable
    from typing import Any


class Carrier:
    """How a command carries another: see conventions.toml."""

    __slots__ = (
        "after",
        "assignments",
        "before",
        "joined",
        "needs",
        "never",
        "string",
        "strings",
        "valued",
    )

    def __init__(self, row: dict[str, Any]) -> None:
        self.before: int = row.get("before", 0)
        self.joined: bool = row.get("joined", False)
        self.assignments: bool = row.get("assignments", False)
        self.strings: list[str] = row.get("strings", [])
        self.string: bool = row.get("string", False)
        self.never: bool = row.get("never", False)
        self.valued: list[str] = row.get("valued", [])
        self.after: str = row.get("after", "")
        self.needs: bool = row.get("needs", False)


class Conventions:
    """All of them. `effects` are the rows of effects.toml; `facts` gives those of a command by its
    words as JSON, None if there are none.
    """

    def __init__(
        self,
        rows: dict[str, Any],
        effects: dict[str, Any],
        facts: Callable[[str], str | None],
    ) -> None:
        self.effects = effects
        self._facts = facts
        self.carriers = {name: Carrier(row) for name, row in rows["carries"].items()}
        self.scripts = frozenset(rows["scripts"]["names"])
        self.code: dict[str, list[str]] = rows["scripts"]["code"]
        self.ends: dict[str, list[str]] = rows["scripts"]["ends"]
        self.bundles = frozenset(rows["bundles"]["names"])
        self.expressions: dict[str, list[str]] = rows["expressions"]
        self.shortened = frozenset(rows["shortened"]["names"])
        self.numbers: dict[str, str] = rows["numbers"]
        self.number_letters: dict[str, str] = rows["number_letters"]
        self.untagged: dict[str, list[str]] = rows["untagged"]
        self.dashed: dict[str, str] = rows.get("dashed", {})
        self.plus_words: dict[str, str] = rows["plus_words"]
        self.lone_dash: dict[str, str] = rows["lone_dash"]
        self.exact = frozenset(rows["exact"]["names"])
        self.operators: dict[str, list[str]] = rows["operators"]

    def facts(self, words: str) -> CommandFacts:
        """The facts of a command by its words, `git commit`; none if there are none."""
        kept = self._facts(words)
        if kept is None:
            return NO_FACTS
        import json

        return facts_of(json.loads(kept))


def facts_by_words() -> dict[str, str]:
    """The facts of all commands, each as JSON."""
    import json

    return {words: json.dumps(row) for words, row in read_tool_files().items()}


def read_files() -> dict[str, Any]:
    """The data files of conventions and effects that come with the program, by their names."""
    import os
    import tomllib

    found: dict[str, Any] = {}
    path = os.path.join(os.path.dirname(__file__), "commands", "conventions.toml")
    with open(path, "rb") as file:
        found["conventions"] = tomllib.load(file)
    return found | {"effects": read_effects()}
