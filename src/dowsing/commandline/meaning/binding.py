"""Binds the words of an act to a line: which options, operands and commands go into the places of
its text. What no place takes is told beside it.

A text has `{X}` for the value of the option or operand X, `{X|text}` with what is said where there
is none; `{=X}` is it as it stands, `{~X}` that with blanks between several words, `{!X}` the
contrary. `{1}`, `{2-}`, `{-1}`, `{*}` are operands, `{in}` those that it reads, `{names}` those
without an equals sign and `{settings}` those with one, `{inner}` and `{line}` what it runs,
`{adds}` what its tests add, told in this place. What stands in brackets is left out where something
in it is missing.
"""

from __future__ import annotations

import re

from dowsing.commandline.languages.held import read_held
from dowsing.commandline.languages.value_language import (
    LanguageValue,
    language_of_operand,
    language_of_option,
)
from dowsing.commandline.meaning.conditions import inputs, is_fed, operands, use_of
from dowsing.commandline.model.tree import OptionUse, WordUse
from dowsing.knowledge.command_facts import PLACE, is_action
from dowsing.model.record import Record
from dowsing.model.roles import Role
from dowsing.model.values import OperandRole

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.command import Command
    from dowsing.commandline.model.tree import CommandNode, OperandUse

_OPTIONAL = re.compile(r"\[([^\[\]]*)\]")
_PLACE = re.compile(PLACE)
_NOT = frozenset(("!", "-not"))
#: Languages of programs, of which what cannot be put into words is not told.
PROGRAMS = ("sed", "awk", "jq", "perl")
LONGEST = 60  # characters of a value that stands in a sentence
LONGEST_PROGRAM = 4 * LONGEST  # of what a program does
LONGEST_SAID = 2 * LONGEST  # of what another value means
#: Ways of telling a value that leave it as it is.
AS_IT_STANDS = ("=", "~")
_ITS_INPUT = "its input"


class Bound(Record):
    """What goes into a place of a text, or stands between places."""


class Text(Bound):
    """Words of the text itself."""

    text: str


class Values(Bound):
    """The values of options. `how`: `=` and `~` as they stand, `!` the contrary, "" in words."""

    how: str
    uses: list[OptionUse]


class Operands(Bound):
    """Operands; `how` as for values."""

    how: str
    uses: list[OperandUse]


class OneWord(Bound):
    """One of the two words of a value."""

    word: Word


class Carried(Bound):
    """What the commands do that it carries or, `is_line`, the lines in its values."""

    is_line: bool


class Source(Bound):
    """What it reads in the place of its input."""


class Them(Bound):
    """What the command before it gave out, one by one."""


class WhatComesIn(Bound):
    """Its input, which another command feeds."""


class Tested(Record):
    """A test of an expression. `said`: None for one that is told as it stands."""

    use: OptionUse
    said: list[Bound] | None
    negated: bool


class Expression(Bound):
    """What the tests of an expression ask for, in order, with the operators between them."""

    tests: list[str | Tested]


class MissingError(Exception):
    """Something that a text needs is not there."""


class Given(Record):
    """What a command is given from outside. `piped`: by the command before it in a pipe;
    `has_source`: by a file or text in the place of its input; `carries`: something is known of what
    it runs.
    """

    piped: bool = False
    has_source: bool = False
    carries: bool = False


class Binder:
    """Binds the texts of one command. `told`: the options, operands and words that were taken, by
    their `id`; `names_source`: the text says what it reads; `takes_them`: it says that it takes
    what the command before it gave.
    """

    def __init__(self, node: CommandNode, given: Given) -> None:
        self.node, self.given = node, given
        self.told: set[int] = set()
        self.condition: set[str] = set()  # the options that the text is for
        self.names_source = self.takes_them = False

    def take_condition(self, condition: str) -> None:
        """A text for an option or operand with a certain value, `-x=l`, tells that value itself."""
        self.condition = {flag for one in condition.split() for flag in one.split("|")}
        for one in condition.split():
            name, equals, _ = one.partition("=")
            if not equals:
                continue
            if name[:1] != "-":
                self.told |= {id(use) for use in operands(self.node, name)}
            else:
                self.take(use_of(self.node, name))

    def take(self, use: OptionUse | None) -> None:
        """An option is told."""
        if use is not None:
            self.told |= {id(use), id(use.word)}

    # --- texts
    # ---------------------------------------------------------------------------------------

    def bind(self, text: str) -> list[Bound]:
        """A text with all its places bound. Raises MissingError if one cannot be."""
        for _, name, instead in _PLACE.findall(text):  # `{adds}` is what these leave
            for one in (name, instead):
                self.take(use_of(self.node, one) if one[:1] == "-" else None)
        found: list[Bound] = []
        at = 0
        for match in _OPTIONAL.finditer(text):
            found += self.places(text[at : match.start()])
            at = match.end()
            try:
                found += self.places(match[1])
            except MissingError:
                continue
        return found + self.places(text[at:])

    def places(self, text: str, use: OptionUse | None = None) -> list[Bound]:
        """The places that stand in no brackets. `use`: the option that the text is about."""
        found: list[Bound] = []
        at = 0
        for match in _PLACE.finditer(text):
            found += [Text(text[at : match.start()])] if match.start() > at else []
            how, name, instead = match.groups()
            is_own = use is not None and (not name or name.isdecimal())
            found.append(
                self.own(use, how, name) if use and is_own else self.place(how, name, instead)
            )
            at = match.end()
        return found + ([Text(text[at:])] if at < len(text) else [])

    def own(self, use: OptionUse, how: str, number: str) -> Bound:
        """The value of an option, or by its `number` one of its two. Raises MissingError."""
        if number:
            words = use.value_words[int(number) - 1 : int(number)]
            if words:
                return OneWord(words[0])
        elif use.value is not None:
            return self.values(how, [use])
        raise MissingError

    def place(self, how: str, name: str, instead: str | None) -> Bound:
        """What goes into a place. Raises MissingError."""
        found = self.named(name, how)
        if found is None and instead == _ITS_INPUT and self.given.piped:
            return WhatComesIn()
        if found is None and instead is not None:
            found = self.otherwise(instead.split("|"), how)
        if found is None:
            raise MissingError
        return found

    def otherwise(self, instead: list[str], how: str) -> Bound | None:
        """The first of several options that is there, or the text behind them."""
        for name in instead:
            is_name = name[:1] == "-" or name == "*"
            found = self.named(name, how) if is_name else Text(name)
            if found is not None:
                return found
        return None

    def named(self, name: str, how: str) -> Bound | None:
        """What a name stands for, None if there is nothing."""
        if name in ("inner", "line"):
            return Carried(name == "line") if self.given.carries else None
        if name == "in":
            return self.input()
        if name == "adds":
            return self.expression()
        if (name[0] == "-" and name != "-1") or self.node.use_of(name) is not None:
            return self.option(name, how)
        uses = operands(self.node, name)
        if not uses:
            return self.fed() if is_fed(self.node) and not self.node.operands else None
        return self.operands(how, uses)

    def operands(self, how: str, uses: list[OperandUse]) -> Bound:
        """Operands. Raises MissingError for a program that cannot be put into words."""
        self.told |= {id(use) for use in uses}
        if how not in AS_IT_STANDS and any(not self.can_be_said(use) for use in uses):
            raise MissingError
        return Operands(how, uses)

    def can_be_said(self, use: OperandUse) -> bool:
        """Whether an operand is no program, or one that can be put into words."""
        language = language_of_operand(self.node, use)
        if language and said_of(LanguageValue(language, use.word.value, use.word, use)):
            return True
        return use.slot is None or use.slot.role is not OperandRole.PROGRAM

    def input(self) -> Bound | None:
        """What it reads, None where that is its input."""
        uses = inputs(self.node)
        if not uses and not any(use.slot is not None for use in self.node.operands):
            uses = self.node.operands
        self.told |= {id(use) for use in uses}
        if uses:
            return Operands("=", uses)
        if is_fed(self.node):
            return self.fed()
        self.names_source = self.names_source or self.given.has_source
        return Source() if self.given.has_source else None

    def fed(self) -> Bound:
        """What the command that carries it puts in: from its source, or what came before."""
        if self.given.has_source:
            self.names_source = True
            return Source()
        self.takes_them = True
        return Them()

    # --- options
    # -------------------------------------------------------------------------------------

    def option(self, name: str, how: str) -> Bound | None:
        """The values of an option, None if it is not there or has none."""
        use = use_of(self.node, name)
        if use is None or use.value is None:
            return None
        option = use.spelling.option
        same = [one for one in self.node.used if one.spelling.option is option] or [use]
        self.told |= {id(one) for one in same} | {id(use.word)}
        return self.values(how, same)

    def values(self, how: str, uses: list[OptionUse]) -> Bound:
        """Values of options. Raises MissingError for a program that cannot be put into words."""
        if how not in AS_IT_STANDS:
            language = language_of_option(self.node, uses[0])
            if language.startswith(PROGRAMS):
                values = [joined_program(uses, language)] if len(uses) > 1 else []
                values = values or [option_value(use, language) for use in uses]
                if not all(said_of(value) for value in values):
                    raise MissingError
        return Values(how, uses)

    def option_said(self, use: OptionUse, text: str) -> list[Bound] | None:
        """What an option adds; [] for nothing, None where it is told as it stands."""
        if "{" in text and use.value is None:
            return []
        try:
            return self.places(text, use)
        except MissingError:
            return None

    def expression(self) -> Bound | None:
        """What the tests of an expression ask for, None if there is none."""
        found: list[str | Tested] = []
        negated = False
        for use in self.node.uses:
            if isinstance(use, WordUse) and use.role == Role.OPERATOR:
                negated = negated or use.word.value in _NOT
                found.append(use.word.value)
                continue
            text = adds(self.node.known, use) if isinstance(use, OptionUse) else None
            if not isinstance(use, OptionUse) or id(use) in self.told or not text:
                continue
            if use.flag in self.node.leading:
                continue
            if not is_action(text):
                said = self.option_said(use, text)
                found += [] if said == [] else [Tested(use, said, negated)]
                negated = False
                self.told.add(id(use))
        return Expression(found) if any(isinstance(one, Tested) for one in found) else None


def adds(known: Command, use: OptionUse) -> str | None:
    """The text of what an option adds by our facts, None if these do not tell. What a command says
    of its own options holds for no option that the page of its subcommand tells of, nor the
    reverse.
    """
    is_off = use.spelling.turned_off_by(use.flag)
    flags = [f"{use.flag}={use.value}", use.flag, *([] if is_off else use.spelling.option.flags)]
    owners = [known]
    while owners[-1].parent is not None:
        owners.append(owners[-1].parent)
    page = use.spelling.page
    pages = {owner.page for owner in owners}
    for owner in owners:
        is_of_other = page in pages - {owner.page} and _tells_of(owner, use.flag)
        for flag in flags:
            if flag in owner.facts.adds and not is_of_other:
                return owner.facts.adds[flag]
    return None


def _tells_of(known: Command, flag: str) -> bool:
    """Whether the page of a command tells of an option of its own of that name; what belongs to
    another command has its subcommands' as well.
    """
    if known.parent is None:
        return True
    spelling = known.spellings.get(flag)
    return spelling is not None and spelling.page == known.page


def option_value(use: OptionUse, language: str) -> LanguageValue:
    """The value of an option in its language."""
    word = use.value_words[0] if len(use.values) == 1 else use.word
    return LanguageValue(language, use.value or "", word, use)


def joined_program(uses: list[OptionUse], language: str) -> LanguageValue:
    """A program whose lines stand in several values."""
    text = "\n".join(use.value or "" for use in uses)
    word = next((use.word for use in uses if use.word.dynamic), uses[0].word)
    return LanguageValue(language, text, word, uses[0])


def said_of(value: LanguageValue) -> str:
    """What a value means as a whole, "" if that is not told or is too long for a sentence."""
    says = read_held(value).says
    is_program = value.language.partition("-")[0] in PROGRAMS
    return says if len(says) <= (LONGEST_PROGRAM if is_program else LONGEST_SAID) else ""
