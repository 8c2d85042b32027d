"""The pieces of a command line, as answers carry them."""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Grade
from dowsing.knowledge.effects import EffectKind
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.problems import Problem
    from dowsing.commandline.model.tree import CommandNode, Line
    from dowsing.model.roles import Role
    from dowsing.model.told import Told


class Piece(Record):
    """A part of a line.

    `start` and `end` are the place of the word that it is cut from, in characters; `word` is that
    word where `text` is only a part of it (a letter of a cluster, `--name` of `--name=value`), else
    "". `span` is the exact place where it can be told. `role`: command, subcommand, option, value,
    operand, operator, redirection, assignment, substitution, keyword or comment. `flags` are all
    spellings of an option, `value` its value without the shell's quotes; `page` is the text that
    tells of it. `says` is what that text says, `meaning` what is known without it; `problem` is
    what is wrong, `nearest` what may be meant. `depth` counts the commands and substitutions around
    it; `of` is the option that a value belongs to; `what` is the name that a form has for an
    operand, or the variable in a redirection, `manner` how the word came to be what it is; `kind`
    is the kind of a value; `inside`: pieces within it follow; `plain` is a word without the shell's
    quotes; `parts` are the parts of a value that is a small language of its own, each with what it
    means. `group` is the title of the section that has the option; `default`, `repeatable`,
    `optional` (its value) and `bare` are the option's; `turns_off`: it is the contrary of what
    `says` tells.
    """

    text: str
    start: int
    end: int
    role: Role
    flags: list[str] | None = None
    value: str | None = None
    page: str | None = None
    says: str | None = None
    meaning: Told | None = None
    problem: Told | None = None
    nearest: list[str] = []  # noqa: RUF012 - a record is immutable
    word: str = ""
    span: list[int] = []  # noqa: RUF012
    depth: int = 0
    of: str | None = None
    what: str = ""
    manner: Told | None = None
    kind: str = ""
    inside: bool = False
    builtin: bool = False
    plain: str | None = None
    parts: list[list[str]] = []  # noqa: RUF012
    group: str = ""
    default: str | None = None
    repeatable: bool = False
    optional: bool = False
    bare: list[str] = []  # noqa: RUF012
    turns_off: bool = False
    grade: Grade = Grade.ERROR


class Effect(Record):
    """Something that a line does and that cannot be undone: the words that do it, what they do, a
    harmless look before.

    `does` is what a page or our table of effects says, or a saying of our own.
    """

    words: str
    does: str | Told
    look: str = ""
    kind: EffectKind = EffectKind.CHANGES


class Unpicked(Record):
    """A line and its pieces in order of appearance; `problem` is what the shell cannot read.

    `tree` is the line as a tree, `commands` all commands in it, the outer before the inner.
    `verbs`: the words that the summaries of commands here may begin with, for those who make a
    sentence of the line.
    """

    line: str
    pieces: list[Piece]
    changes: list[Effect] = []  # noqa: RUF012 - a record is immutable
    problem: Problem | None = None
    tree: Line | None = None
    commands: list[CommandNode] = []  # noqa: RUF012
    verbs: frozenset[str] = frozenset()

    @property
    def mistaken(self) -> bool:
        """Whether there surely is a mistake in the line."""
        if self.problem is not None and self.problem.grade is Grade.ERROR:
            return True
        return any(piece.problem and piece.grade is Grade.ERROR for piece in self.pieces)
