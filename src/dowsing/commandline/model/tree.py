"""A line as a tree: what its commands are given, each word with what it is to its command.

LineReader makes it; judgement, effects, rewriting, the sentence, the table, the fields of a form
and what may come next look at nothing else.
"""

from __future__ import annotations

import os

from dowsing.commandline.grammar.sayings import Manner
from dowsing.commandline.grammar.shell_words import Mark, SimpleCommand
from dowsing.knowledge.command_classes import CommandClass, members_of
from dowsing.model.record import Record
from dowsing.model.roles import Role
from dowsing.model.told import told
from dowsing.model.value_kinds import ValueKind
from dowsing.model.values import OperandRole

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator, Sequence

    from dowsing.commandline.grammar.problems import Problem
    from dowsing.commandline.grammar.shell_words import Inner, Word
    from dowsing.commandline.model.command import Command, Spelling
    from dowsing.model.told import Told


class Slot(Record):
    """A place for an operand in a form. `name`: the placeholder; `choices`: the words there are, []
    if any will do; `closed`: there are no others; `repeats`: it may be given again; `units`: the
    letters that may follow a number, "" for the usual ones.
    """

    name: str
    kind: ValueKind = ValueKind.TEXT
    role: OperandRole | None = None
    required: bool = True
    repeats: bool = False
    choices: list[str] = []  # noqa: RUF012 - a record is immutable
    closed: bool = False
    units: str = ""


class Use:
    """A word of a line: what it is to its command, and what is told of it.

    `page`: the text that tells of it; `says`: what that text says, `meaning`: what is known without
    it; `manner`: how it came to be what it is, if not by its spelling; `problem`: what is wrong
    with it; `kind`: that of a value; `lines`: those of the shell that it is.
    """

    def __init__(  # noqa: PLR0913 - all of it by keyword
        self,
        word: Word,
        role: Role,
        *,
        page: str | None = None,
        says: str = "",
        meaning: Told | None = None,
        manner: Told | None = None,
        problem: Problem | None = None,
        kind: str = "",
    ) -> None:
        self.word, self.role = word, role
        self.page, self.says = page, says
        self.meaning, self.manner, self.problem = meaning, manner, problem
        self.kind = kind
        self.lines: list[Line] = []

    def is_manner(self, manner: Manner) -> bool:
        """Whether it came to be what it is in that way."""
        return self.manner is not None and self.manner.code is manner


class WordUse(Use):
    """A word that is neither an option of a table nor an operand: the command's name, a subcommand,
    an operator of the command's own, an assignment, a value, `--`, an option that no table has.

    `flag`: of such an option its spelling, `place`: that of its letter in the word, in characters;
    `attached`: the value in its word; `value`: the one that stands apart; `closer`: what ends the
    command that is its value; `flags`: all spellings of an operator; `nearest`: of a name that
    nothing knows those that are spelled like it.
    """

    flag: str = ""
    place: int | None = None
    attached: str | None = None
    value: WordUse | None = None
    closer: WordUse | None = None
    flags: list[str] | None = None
    nearest: Sequence[str] = ()


class OptionUse(Use):
    """An option as a line gives it: the spelling that was typed (`flag`), what is known of it, its
    word, its value without the shell's quotes, and the words of a value that stands apart.

    `place`: that of its letter in the word, where others stand in the same one, in characters;
    `carries`: the value is a command up to the `closer`, `-exec`.
    """

    carries: bool = False
    closer: WordUse | None = None

    def __init__(
        self,
        flag: str,
        spelling: Spelling,
        word: Word,
        value: str | None,
        *,
        place: int | None = None,
        manner: Told | None = None,
    ) -> None:
        option = spelling.option
        super().__init__(
            word, Role.OPTION, page=spelling.page, says=option.text or "", manner=manner
        )
        self.flag, self.spelling, self.value = flag, spelling, value
        self.place = place
        self.values: list[WordUse] = []

    @property
    def value_words(self) -> list[Word]:
        """The words of a value that stands apart."""
        return [one.word for one in self.values]

    @property
    def raw_value(self) -> str | None:
        """Its value as it stands in the line, quotes included; None if it has none, or if that
        cannot be told apart from the rest of its word.
        """
        if self.value is None or self.values:
            return " ".join(word.text for word in self.value_words) or None
        if self.is_manner(Manner.SAME_AS):  # `-5`, a number alone
            return self.value
        head = self.word.value.removesuffix(self.value)
        return self.word.text[len(head) :] if self.word.text.startswith(head) else None


class OperandUse(Use):
    """An operand as a line gives it. `slot`: its place in the form that fits best, None if none has
    one; `what`: the name of that place, or of what stands for it.
    """

    def __init__(
        self,
        word: Word,
        manner: Manner | None = None,
        *,
        meaning: Told | None = None,
        what: str = "",
        kind: str = "",
    ) -> None:
        super().__init__(
            word,
            Role.OPERAND,
            meaning=meaning,
            manner=told(manner) if manner is not None else None,
            kind=kind,
        )
        self.slot: Slot | None = None
        self.what = what


class CommandNode:
    """A command of a line. While its words are read it is also the state of the reading, for those
    who ask what may come next.
    """

    def __init__(self, head: WordUse, known: Command) -> None:
        self.head = head  # its name, with what is told of it
        self.known = known  # the program or, once that was read, its subcommand
        self.root = known  # the program
        self.alias = ""  # the line that its name stands for
        #: All its words but values and commands that it carries, in the order of the line; `used`
        #: and `operands` are those of a kind.
        self.uses: list[OptionUse | OperandUse | WordUse] = []
        self.written: list[Word] = []  # as they stand, its name first; [] for one that is carried
        self.used: list[OptionUse] = []
        self.operands: list[OperandUse] = []
        self.lacking: list[Slot] = []  # operands that the form that fits best demands beside these
        self.surplus: list[OperandUse] = []  # operands for which no form has a place
        self.unknown: list[str] = []  # words spelled as options that no table has
        self.wanting: Spelling | None = None  # an option whose value has not come yet
        self.ended = False  # after `--`
        self.inner: CommandNode | None = None  # the command that it carries and that is not closed
        self.carried: list[CommandNode] = []  # all commands that it carries
        #: One that it carries and whose name is only known when it runs.
        self.carried_unknown: SimpleCommand | None = None
        self.carrier: CommandNode | None = None  # the command that carries it
        self.closer: Word | None = None  # what ends it among the words of that one
        self.wants_inner = False  # a command that this one carries may begin with the next word
        self.needs_inner = False  # and must
        self.is_carrier_alone = False  # it does nothing without a command, and there is none
        self.is_fed = False  # its input comes from a pipe or a file
        self.is_lost = False  # its subcommand is a mistake: nothing can be said of the rest
        self.leading: frozenset[str] = frozenset()  # options that stand before its operands
        self.ends_early = False  # it runs a script or program of its own: the rest belongs to that

    @property
    def name(self) -> Word:
        """The word that names it."""
        return self.head.word

    def is_of(self, which: CommandClass) -> bool:
        """Whether its program is of that class."""
        return os.path.basename(self.root.name) in members_of(which)

    @property
    def flags(self) -> set[str]:
        """All spellings of the options that are there."""
        return {flag for one in self.used for flag in (one.flag, *one.spelling.option.flags)}

    def use_of(self, *flags: str) -> OptionUse | None:
        """The last use of an option that has one of these spellings."""
        for one in reversed(self.used):
            if one.flag in flags or any(flag in flags for flag in one.spelling.option.flags):
                return one
        return None


class Pipeline:
    """Commands between which only pipes stand."""

    def __init__(self) -> None:
        self.commands: list[CommandNode] = []
        self.redirections: list[Mark] = []


class Line:
    """A line, or one that stands within a word: its commands and what stands between them, in
    order. A command whose name is only known when it runs is left as its words. `substitutions`:
    those in its words, each with its line; `problem`: what the shell cannot read of a line that
    stands within a word.
    """

    def __init__(self) -> None:
        self.problem: Problem | None = None
        self.parts: list[CommandNode | SimpleCommand | Mark] = []
        self.substitutions: list[tuple[Inner, Line]] = []

    @property
    def pipelines(self) -> list[Pipeline]:
        """Its commands by the pipes between them."""
        found = [Pipeline()]
        is_joined = True  # the next command belongs to the last pipeline
        for part in self.parts:
            if isinstance(part, (CommandNode, SimpleCommand)):
                if not is_joined:  # a line has ended
                    found.append(Pipeline())
                if isinstance(part, CommandNode):
                    found[-1].commands.append(part)
                is_joined = False
            elif part.role == Role.REDIRECTION:
                found[-1].redirections.append(part)
            elif part.role in (Role.OPERATOR, Role.KEYWORD):
                if part.text not in ("|", "|&", "!"):
                    found.append(Pipeline())
                is_joined = True
        return found


def every_command(nodes: list[CommandNode]) -> list[CommandNode]:
    """The commands with those that they carry, the outer before the inner."""
    found: list[CommandNode] = []
    for node in nodes:
        found.append(node)
        found += every_command(node.carried)
    return found


def problems_of(commands: list[CommandNode], lines: list[Line]) -> list[Problem]:
    """What the reading of their words found wrong, in the order of the line."""
    found = [line.problem for line in lines]
    found += [use.problem for use in _uses_of(commands)]
    return sorted((one for one in found if one is not None), key=lambda one: one.start)


def words_told(commands: list[CommandNode]) -> list[Use]:
    """The names of commands and all their words, values too, in the order of the line."""
    return sorted(_uses_of(commands), key=lambda use: use.word.start)


def _uses_of(commands: list[CommandNode]) -> Iterator[Use]:
    for node in commands:
        yield node.head
        for use in node.uses:
            yield use
            if isinstance(use, OptionUse) and not use.carries:
                yield from use.values
            elif isinstance(use, WordUse) and use.value is not None:
                yield use.value


def start_of(part: CommandNode | SimpleCommand | Mark) -> int:
    """Where a part of a line begins."""
    if isinstance(part, CommandNode):
        return part.name.start
    return part.words[0].start if isinstance(part, SimpleCommand) else part.start
