"""How commands take their words, where their forms do not tell it: what the trade knows.

A command's table (knowledge/commands/*.toml) may have

    carries          it runs the command given to it. `before`: operands that come first; with
                     `closes` no options of its own come behind these; `joined`:
                     the rest is a line of the shell, its words put together; `assignments`:
                     NAME=VALUE may come first; `strings`: options whose value is a line; `string`:
                     its first operand is one; `valued`: options that take a value, for where
                     nothing documents the command; `after`: the inner command follows this word;
                     `never`: it has no inner command but in `strings`; `given`: it has none without
                     one of these options, `not_with`: none with one of these; `needs`: it does
                     nothing without one
    ends_at_operand  its options end at the first operand; what follows belongs to that
    ends_at          options after which everything belongs to the program that their value is
    program_in       options whose value is a program: there is no script then
    bundle           the first word may be options without a dash
    leading          options that stand before the operands, where others are tests behind them
    runs_after       words of an expression behind which a command stands
    shortened        subcommands may be shortened
    number           what `-NUM` stands for, where only the history of the command tells
    number_letters   letters that may stand behind such a number, as old scripts have them
    untagged         options that the text of their page tells of without a tag
    operators        words with a dash that stand between two tests
    lone_dash        what a lone dash stands for, where that is no standard input or output
    plus_word        what a word with a plus sign stands for, where it is no option or operand
    dashed           a pattern of operands that may begin with a dash
    exact            long options must be spelled in full

A look-up gets them from the index, which is quicker.
"""

from __future__ import annotations

from functools import cache

from dowsing.knowledge.command_facts import NO_FACTS, Act, CommandFacts, facts_of
from dowsing.knowledge.compiled import Part, part

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable
    from typing import Any

#: The keys of a command's table that conventions are made of.
BY_COMMAND = frozenset(
    "carries ends_at_operand ends_at program_in bundle leading runs_after shortened number"
    " number_letters"
    " untagged operators lone_dash plus_word dashed exact".split()
)


class Carrier:
    """How a command carries another: see conventions.toml."""

    __slots__ = (
        "after",
        "assignments",
        "before",
        "closes",
        "given",
        "joined",
        "needs",
        "never",
        "not_with",
        "string",
        "strings",
        "valued",
    )

    def __init__(self, row: dict[str, Any]) -> None:
        self.before: int = row.get("before", 0)
        self.closes: bool = row.get("closes", False)
        self.joined: bool = row.get("joined", False)
        self.assignments: bool = row.get("assignments", False)
        self.strings: list[str] = row.get("strings", [])
        self.string: bool = row.get("string", False)
        self.never: bool = row.get("never", False)
        self.valued: list[str] = row.get("valued", [])
        self.after: str = row.get("after", "")
        self.not_with: list[str] = row.get("not_with", [])
        self.given: list[str] = row.get("given", [])
        self.needs: bool = row.get("needs", False)


class Conventions:
    """All of them. `rows`: what `assembled` makes of the tables; `facts` gives the table of a
    command by its words as JSON, None if there is none.
    """

    def __init__(self, rows: dict[str, Any], facts: Callable[[str], str | None]) -> None:
        self._facts = facts
        self._read: dict[str, CommandFacts] = {}
        self._starred: list[str] = rows["starred"]
        self.carriers = {
            # a subcommand by the name of its page
            words.replace(" ", "-"): Carrier(row)
            for words, row in rows["carries"].items()
        }
        self.scripts = frozenset(words.replace(" ", "-") for words in rows["ends_at_operand"])
        self.code: dict[str, list[str]] = rows["program_in"]
        self.ends: dict[str, list[str]] = rows["ends_at"]
        self.bundles = frozenset(rows["bundle"])
        self.expressions: dict[str, list[str]] = rows["runs_after"]
        self.leading: dict[str, list[str]] = rows["leading"]
        self.shortened = frozenset(rows["shortened"])
        self.numbers: dict[str, str] = rows["number"]
        self.number_letters: dict[str, str] = rows["number_letters"]
        self.untagged: dict[str, list[str]] = rows["untagged"]
        self.dashed: dict[str, str] = rows["dashed"]
        self.plus_words: dict[str, str] = rows["plus_word"]
        self.lone_dash: dict[str, str] = rows["lone_dash"]
        self.exact = frozenset(rows["exact"])
        self.operators: dict[str, list[str]] = rows["operators"]

    def facts(self, words: str) -> CommandFacts:
        """The facts of a command by its words, `git commit`; none if there are none."""
        if words not in self._read:
            self._read[words] = self._facts_of(words)
        return self._read[words]

    def _facts_of(self, words: str) -> CommandFacts:
        kept = self._facts(words)
        if kept is None:
            return NO_FACTS
        import json

        return facts_of(json.loads(kept))

    def acts(self, words: str) -> list[Act]:
        """The acts of a command by its words, if one of them has an effect; those of a name that
        ends in `*` where none has.
        """
        found = _with_effects(self.facts(words))
        if not found and " " not in words:
            stars = [name for name in self._starred if words.startswith(name[:-1])]
            found = _with_effects(self.facts(max(stars, key=len))) if stars else []
        return found


def _with_effects(facts: CommandFacts) -> list[Act]:
    return facts.acts if any(act.effect is not None for act in facts.acts) else []


def assembled(rows: dict[str, dict[str, Any]]) -> dict[str, Any]:
    """The conventions in the tables of all commands, by their keys; `starred`: the names with acts
    that end in `*`.
    """
    found: dict[str, Any] = {
        key: {words: row[key] for words, row in rows.items() if key in row} for key in BY_COMMAND
    }
    found["starred"] = [words for words, row in rows.items() if words[-1] == "*" and "acts" in row]
    return found


def read_conventions() -> Any:
    """The conventions that come with the program, as `assembled` made them."""
    return part(Part.CONVENTIONS)


@cache
def usual_of_commands() -> dict[str, list[str]]:
    """What is used most of each command, by its words: options and subcommands, these first."""
    rows: dict[str, Any] = part(Part.FACTS)
    return {words: row["used"].split() for words, row in rows.items() if "used" in row}


def facts_by_words() -> dict[str, str]:
    """The tables of all commands that facts are made of, each as JSON."""
    import json

    rows: dict[str, Any] = part(Part.FACTS)
    return {words: json.dumps(row) for words, row in rows.items()}
