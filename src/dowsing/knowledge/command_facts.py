"""Facts: what we know of a command beside or against its pages (knowledge/commands/tools/*.toml).

A file has a table for each command, `[cp]`, `["git commit"]`, with

    forms      how it is written, in the notation of a synopsis; they take the place of the page's
    operands   the placeholders of the forms: "ROLE KIND …"
    options    "KIND …" by a spelling, "none" where it takes no value; `-A|-C` for several options,
               `-a,--all` for an option of two spellings that no page has
    only_with  options that do nothing, or may not be there, without another: `-d|-s = "-f"`
    needs      groups of options one of which must be there, "-c|-x|-t"
    apart      groups of options of which only one may be there
    keyed      operands are KEY=VALUE, and each KEY is an option of the table
    pages      other pages that list its options
    open       no page lists all of its options
    texts      what an option does, in our words, where no page says it or several do
    words      options are words behind a single dash: letters do not stand together
    plus       an option is turned off by a plus sign in the place of its dash
    shells     the shells whose builtin it is about; of any other it says nothing
    usual      options, by one of their spellings, and subcommands that are used most, these first
               (they come from usual.toml)
    defaults   what an option has anyway: `-n = "10"`; "" for an option that is the default itself
    languages  the small language that a value is written in, by a spelling of its option
               (`-e|--expression` for several) or by the placeholder of its operand; `*` for any
    dialects   options that choose how regular expressions are read: `-E = "extended"`; "" for what
               holds without one
    does, adds how the command is put into a sentence: see render/clauses.py

After the kind of a value (a name of model.value_kinds, or the words there are, `a|b|c`) may follow
`list` (several, with commas), `open` (there are other words), `optional` (it may be left out, else
it stands in the same word), `loose` (it may be left out, else it is the next word), `again`,
`as=PLACEHOLDER` and `units=LETTERS` (the units that a size may have).

The keys `languages`, `dialects`, `does` and `adds` stand in files of their own, in
commands/sentences.
"""

from __future__ import annotations

from functools import cache

from dowsing.model.record import Record
from dowsing.model.value_kinds import ValueKind
from dowsing.model.values import OperandRole, Value

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any


class OperandFact(Record):
    """What a placeholder of the forms stands for."""

    role: OperandRole
    value: Value


class OptionFact(Record):
    """What is known of an option under these spellings; `value` is None if it takes none."""

    flags: list[str]
    value: Value | None


class Dependence(Record):
    """Options (`flags`) that need one of `others` beside them."""

    flags: list[str]
    others: list[str]


class CommandFacts(Record):
    """The facts of one command: see the head of this module."""

    forms: list[str] = []  # noqa: RUF012 - a record is immutable
    operands: dict[str, OperandFact] = {}  # noqa: RUF012
    options: list[OptionFact] = []  # noqa: RUF012
    only_with: list[Dependence] = []  # noqa: RUF012
    needs: list[list[str]] = []  # noqa: RUF012
    apart: list[list[str]] = []  # noqa: RUF012
    keyed: bool = False
    pages: list[str] = []  # noqa: RUF012
    open: bool = False
    texts: dict[str, str] = {}  # noqa: RUF012
    words: bool = False
    plus: bool = False
    shells: list[str] = []  # noqa: RUF012
    usual: list[str] = []  # noqa: RUF012
    defaults: dict[str, str] = {}  # noqa: RUF012
    languages: dict[str, str] = {}  # noqa: RUF012
    dialects: dict[str, str] = {}  # noqa: RUF012
    does: dict[str, str] = {}  # noqa: RUF012
    adds: dict[str, str] = {}  # noqa: RUF012

    @property
    def sentences(self) -> CommandFacts:
        """What makes sentences of it alone."""
        return CommandFacts(
            languages=self.languages, dialects=self.dialects, does=self.does, adds=self.adds
        )

    @property
    def flags(self) -> set[str]:
        """All spellings of options that are named."""
        named = {flag for one in self.options for flag in one.flags}
        named |= {flag for group in (*self.needs, *self.apart) for flag in group}
        named |= {flag for one in self.only_with for flag in (*one.flags, *one.others)}
        return named | set(self.texts)


_WORDS = {"list", "open", "optional", "loose", "again"}
#: What is known of a command without facts.
NO_FACTS = CommandFacts()


def facts_of(row: dict[str, Any]) -> CommandFacts:
    """The facts of a table of the files. Raises ValueError for what is not of the format."""
    unknown = set(row) - set(CommandFacts._fields)
    if unknown:
        raise ValueError(f"unknown key of a command's facts: {', '.join(sorted(unknown))}")
    operands = {}
    for name, text in row.get("operands", {}).items():
        role, _, rest = text.partition(" ")
        operands[name] = OperandFact(OperandRole(role), value_of(rest or "text"))
    return CommandFacts(
        row.get("forms", []),
        operands,
        [
            OptionFact(spellings.split(","), None if text == "none" else value_of(text))
            for key, text in row.get("options", {}).items()
            for spellings in key.split("|")
        ],
        [
            Dependence(key.split("|"), others.split("|"))
            for key, others in row.get("only_with", {}).items()
        ],
        [group.split("|") for group in row.get("needs", [])],
        [group.split("|") for group in row.get("apart", [])],
        row.get("keyed", False),
        row.get("pages", []),
        row.get("open", False),
        row.get("texts", {}),
        row.get("words", False),
        row.get("plus", False),
        row.get("shells", []),
        row.get("usual", []),
        _apart(row.get("defaults", {})),
        _apart(row.get("languages", {})),
        _apart(row.get("dialects", {})),
        row.get("does", {}),
        _apart(row.get("adds", {})),
    )


def _apart(table: dict[str, str]) -> dict[str, str]:
    """A table with keys for several, `a|b`, taken apart."""
    return {name: text for key, text in table.items() for name in key.split("|")}


def value_of(text: str) -> Value:
    """The value that a text of the notation describes. Raises ValueError for what is none."""
    first, *rest = text.split(" ")
    named = dict(word.split("=", 1) for word in rest if "=" in word)
    words = {word for word in rest if "=" not in word}
    unknown = (words - _WORDS) | (set(named) - {"as", "units"})
    if unknown:
        raise ValueError(f"unknown word of a value: {', '.join(sorted(unknown))}")
    choices = first.split("|") if "|" in first else []
    return Value(
        ValueKind.CHOICE if choices else ValueKind(first),
        choices,
        bool(choices) and "open" not in words,
        "," if "list" in words else "",
        "optional" in words,
        named.get("as", ""),
        "again" in words,
        named.get("units", ""),
        "loose" in words,
    )


def read_tool_files() -> dict[str, dict[str, Any]]:
    """The tables of all files, by the words of their command."""
    import os
    import tomllib

    folder = os.path.join(os.path.dirname(__file__), "commands", "tools")
    found: dict[str, dict[str, Any]] = {}
    for place in (folder, os.path.join(os.path.dirname(folder), "sentences")):
        for name in sorted(os.listdir(place)):
            if name.endswith(".toml"):
                with open(os.path.join(place, name), "rb") as file:
                    for words, row in tomllib.load(file).items():
                        found[words] = {**found.get(words, {}), **row}
    for words, usual in usual_of_commands().items():
        found[words] = {**found.get(words, {}), "usual": usual}
    return found


@cache
def usual_of_commands() -> dict[str, list[str]]:
    """What is used most of each command, by its words: options and subcommands, these first."""
    import os
    import tomllib

    path = os.path.join(os.path.dirname(__file__), "commands", "usual.toml")
    with open(path, "rb") as file:
        return {words: usual.split(" ") for words, usual in tomllib.load(file).items()}
