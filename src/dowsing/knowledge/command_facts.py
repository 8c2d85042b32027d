"""Facts: what we know of a command beside or against its pages (knowledge/commands/*.toml, whose
format CONTRIBUTING.md shows on one page).

A command's table, `[cp]`, `["git commit"]`, has

    forms      how it is written, in the notation of a synopsis; they take the place of the page's
    operands   the placeholders of the forms: "ROLE KIND …", or a table with `role`, `value` and
               `language`; `*` for any operand
    options    a table for each, by its spellings: `-A|-C` for several options, `-a,--all` for an
               option of two spellings that no page has
        value     "KIND …", "none" where it takes none
        language  the small language that its value is written in
        dialect   how regular expressions are read with it
        default   what it has anyway; "" for an option that is the default itself
        needs     it does nothing, or may not be there, without one of these: "-f|-g"
        adds      what it adds to the sentence, "" for one that need not be told; what begins with
                  "and " is done beside the act, what begins with "(", "that " or "whose "
                  says more of the words before it
        writes    its value is a file that is replaced
        looks     with it nothing is done: what would be done is shown
        says      what it does, in our words, where no page says it or several do
    one_of     groups of options one of which must be there, "-c|-x|-t"
    apart      groups of options of which only one may be there
    dialect    how regular expressions are read without an option
    keyed      operands are KEY=VALUE, and each KEY is an option of the table
    pages      other pages that list its options
    open       no page lists all of its options
    words      options are words behind a single dash: letters do not stand together
    plus       an option is turned off by a plus sign in the place of its dash
    shells     the shells whose builtin it is about; of any other it says nothing
    used       options, by one of their spellings, and subcommands that are used most, these first
    acts       what it does, a row for each condition, the first that holds counts
        when      options, operands and what else must be there
                  (commandline/meaning/conditions.py)
        says      what it does, as a clause, with places for what stands in the line
                  (commandline/meaning/binding.py); in its place, where more may be made of it,
        prints      what it prints
        whether     what it looks whether that is so
        effect    what that destroys, overwrites, changes, stops, sends or runs
                  (knowledge/effects.py); a row without `says` tells an effect beside that of the
                  act that holds
        harmless  nothing is lost, though the words may sound so

and the keys of knowledge/conventions.py and knowledge/effects.py.

After the kind of a value (a name of model.value_kinds, or the words there are, `a|b|c`) may follow
`list` (several, with commas), `open` (there are other words), `optional` (it may be left out, else
it stands in the same word), `loose` (it may be left out, else it is the next word), `again`,
`as=PLACEHOLDER` and `units=LETTERS` (the units that a size may have).
"""

from __future__ import annotations

from enum import StrEnum

from dowsing.knowledge.effects import EffectFact, EffectKind, effect_fact
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


class Frame(StrEnum):
    """How a clause begins of which more may be made than its words: what is printed may be written
    to a file, what is looked for may be a condition.
    """

    PRINTS = "prints "
    WHETHER = "looks whether "


class Act(Record):
    """What a command does when all of `when` holds: the clause `says`, behind its `frame` if it has
    one, "" for a row that tells its effect alone; and the effect, None without one.
    """

    when: str
    says: str
    effect: EffectFact | None = None
    harmless: bool = False
    frame: Frame | None = None

    @property
    def clause(self) -> str:
        """All words of the clause."""
        return (self.frame or "") + self.says


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
    adds: dict[str, str] = {}  # noqa: RUF012
    acts: list[Act] = []  # noqa: RUF012
    looks: list[str] = []  # noqa: RUF012

    @property
    def sentences(self) -> CommandFacts:
        """What makes sentences of it alone."""
        return CommandFacts(
            languages=self.languages,
            dialects=self.dialects,
            adds=self.adds,
            acts=self.acts,
            looks=self.looks,
        )

    @property
    def clauses(self) -> list[Act]:
        """The acts that have words for a sentence."""
        return [act for act in self.acts if act.says]

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


#: A place in the words of acts and options: how its value is told, its name, what is told instead.
PLACE = r"\{([=!~]?)([^{}|]*)(?:\|([^{}]*))?\}"


_BESIDE = "and "
_CLOSE = ("(", "that ", "whose ")


def is_action(adds: str) -> bool:
    """Whether what an option adds is done beside the act, as `find … -print` does."""
    return adds.startswith(_BESIDE)


def without_joint(adds: str) -> str:
    """What an option adds without the word that joins it to the act."""
    return adds.removeprefix(_BESIDE)


def is_close(adds: str) -> bool:
    """Whether what an option adds says more of the words before it, so that no comma parts it."""
    return adds.startswith(_CLOSE)


#: The keys of a command's table that facts are made of.
KEYS = frozenset(
    "forms operands options one_of apart dialect keyed pages open words plus shells used"
    " acts".split()
)
_OF_OPTION = frozenset("value language dialect default needs adds says writes looks".split())
_REPLACES = "replaces {a file} if there is one"
_OF_OPERAND = frozenset(("role", "value", "language"))
_FRAMES = {"prints": Frame.PRINTS, "whether": Frame.WHETHER}
_OF_ACT = frozenset(("when", "says", "effect", "harmless", *_FRAMES))


def facts_of(row: dict[str, Any]) -> CommandFacts:
    """The facts of a table of the files. Raises ValueError for what is not of the format."""
    refuse_unknown(row, KEYS, "a command")
    options = row.get("options", {})
    operands = row.get("operands", {})
    for table in options.values():
        refuse_unknown(table, _OF_OPTION, "an option")
    dialects = _of_options(options, "dialect")
    if "dialect" in row:
        dialects[""] = row["dialect"]
    languages = _of_options(options, "language")
    for name, described in operands.items():
        if isinstance(described, dict) and "language" in described:
            languages[name] = described["language"]
    return CommandFacts(
        row.get("forms", []),
        _operands(operands),
        [
            OptionFact(spellings.split(","), _value_or_none(table["value"]))
            for key, table in options.items()
            if "value" in table
            for spellings in key.split("|")
        ],
        [
            Dependence(_spellings(key), table["needs"].split("|"))
            for key, table in options.items()
            if "needs" in table
        ],
        [group.split("|") for group in row.get("one_of", [])],
        [group.split("|") for group in row.get("apart", [])],
        row.get("keyed", False),
        row.get("pages", []),
        row.get("open", False),
        _of_options(options, "says"),
        row.get("words", False),
        row.get("plus", False),
        row.get("shells", []),
        row.get("used", "").split(),
        _of_options(options, "default"),
        languages,
        dialects,
        _of_options(options, "adds"),
        [*(_act(act) for act in row.get("acts", [])), *_writing(options)],
        list(_of_options(options, "looks")),
    )


def refuse_unknown(row: dict[str, Any], known: frozenset[str], what: str) -> None:
    """Raises ValueError if a table has keys that the format does not."""
    unknown = sorted(set(row) - known)
    if unknown:
        raise ValueError(f"unknown key of {what}: {', '.join(unknown)}")


def _of_options(options: dict[str, dict[str, Any]], name: str) -> dict[str, Any]:
    """What the tables of options say under that name, by each spelling."""
    return {
        flag: table[name]
        for key, table in options.items()
        if name in table
        for flag in _spellings(key)
    }


def _spellings(key: str) -> list[str]:
    """All spellings of the options that a key stands for."""
    return [flag for spellings in key.split("|") for flag in spellings.split(",")]


def _operands(described: dict[str, Any]) -> dict[str, OperandFact]:
    found = {}
    for name, one in described.items():
        if isinstance(one, str):
            role, _, kind = one.partition(" ")
        else:
            refuse_unknown(one, _OF_OPERAND, "an operand")
            role, kind = one.get("role", ""), one.get("value", "")
        if role:
            found[name] = OperandFact(OperandRole(role), value_of(kind or "text"))
    return found


def _act(row: dict[str, Any]) -> Act:
    refuse_unknown(row, _OF_ACT, "an act")
    effect = row.get("effect")
    framed = next((key for key in _FRAMES if key in row), "")
    return Act(
        row.get("when", ""),
        row.get(framed or "says", ""),
        effect_fact(effect) if effect else None,
        row.get("harmless", False),
        _FRAMES[framed] if framed else None,
    )


def _writing(options: dict[str, dict[str, Any]]) -> list[Act]:
    """What the options do whose value is a file that is replaced."""
    return [
        Act("", "", EffectFact(EffectKind.OVERWRITES, _REPLACES, when=[flag], value=flag, least=0))
        for flag in _of_options(options, "writes")
    ]


def _value_or_none(text: str) -> Value | None:
    return None if text == "none" else value_of(text)


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
