"""A line as a tree: what its commands are given, each word with what it is to its command.

LineReader makes it; judgement, effects, and what may come next look at nothing else. The pieces
that answers carry are made in the same pass.
"""

from __future__ import annotations

from dowsing.model.record import Record
from dowsing.model.value_kinds import ValueKind
from dowsing.model.values import OperandRole

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.command import Command, Spelling
    from dowsing.commandline.shell_words import Mark, Word


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
    language: str = ""
    units: str = ""


class OptionUse:
    """An option as a line gives it: the spelling that was typed (`flag`), what is known of it, its
    word, its value without the shell's quotes, and the words of a value that stands apart.
    """

    __slots__ = ("flag", "spelling", "value", "value_words", "word")

    def __init__(self, flag: str, spelling: Spelling, word: Word, value: str | None) -> None:
        self.flag, self.spelling, self.word, self.value = flag, spelling, word, value
        self.value_words: list[Word] = []


class OperandUse:
    """An operand as a line gives it. `slot`: its place in the form that fits best, None if none has
    one; `piece`: the number of its piece.
    """

    __slots__ = ("piece", "slot", "word")

    def __init__(self, word: Word, piece: int) -> None:
        self.word, self.piece = word, piece
        self.slot: Slot | None = None


class CommandNode:
    """A command of a line. While its words are read it is also the state of the reading, for those
    who ask what may come next.
    """

    def __init__(self, name: Word, known: Command) -> None:
        self.name = name
        self.known = known  # the program or, once that was read, its subcommand
        self.root = known  # the program
        #: Options and operands in the order of the line; `used` and `operands` are those of a kind.
        self.uses: list[OptionUse | OperandUse] = []
        self.used: list[OptionUse] = []
        self.operands: list[OperandUse] = []
        self.lacking: list[Slot] = []  # operands that the form that fits best demands beside these
        self.surplus: list[OperandUse] = []  # operands for which no form has a place
        self.unknown: list[str] = []  # words spelled as options that no table has
        self.wanting: Spelling | None = None  # an option whose value has not come yet
        self.ended = False  # after `--`
        self.inner: CommandNode | None = None  # the command that it carries and that is not closed
        self.carried: list[CommandNode] = []  # all commands that it carries
        self.carrier: CommandNode | None = None  # the command that carries it
        self.wants_inner = False  # a command that this one carries may begin with the next word
        self.needs_inner = False  # and must
        self.is_carrier_alone = False  # it does nothing without a command, and there is none
        self.is_lost = False  # its subcommand is a mistake: nothing can be said of the rest
        self.ends_early = False  # it runs a script or program of its own: the rest belongs to that

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


def every_command(nodes: list[CommandNode]) -> list[CommandNode]:
    """The commands with those that they carry, the outer before the inner."""
    found: list[CommandNode] = []
    for node in nodes:
        found.append(node)
        found += every_command(node.carried)
    return found
