"""The pieces of a command line, as answers carry them."""

from __future__ import annotations

from dowsing.model.record import Record


class Piece(Record):
    """A part of a line.

    `start` and `end` are the place of the word that it is cut from, in characters; `word` is that word where `text` is
    only a part of it (a letter of a cluster, `--name` of `--name=value`), else "". `span` is the exact place where it
    can be told. `role`: command, subcommand, option, value, operand, operator, redirection, assignment, substitution,
    keyword or comment. `flags` are all spellings of an option, `value` its value without the shell's quotes; `page` is
    the text that tells of it. `problem` says what is wrong, `nearest` what may be meant. `depth` counts the commands
    and substitutions around it; `of` is the option that a value belongs to; `what` tells more of what it is; `kind` is
    the kind of a value; `inside`: pieces within it follow; `plain` is a word without the shell's quotes; `parts` are
    the parts of a value that is a small language of its own, each with what it means. `group` is the title of the
    section that has the option; `default`, `repeatable`, `optional` (its value) and `bare` are the option's.
    """

    text: str
    start: int
    end: int
    role: str
    flags: list[str] | None = None
    value: str | None = None
    page: str | None = None
    says: str | None = None
    problem: str | None = None
    nearest: list[str] = []  # noqa: RUF012 - a record is immutable
    word: str = ""
    span: list[int] = []  # noqa: RUF012
    depth: int = 0
    of: str | None = None
    what: str = ""
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


class Unpicked(Record):
    """A line and its pieces in order of appearance; `problem` is what the shell cannot read, as place and reason."""

    line: str
    pieces: list[Piece]
    says: str = ""
    changes: list[str] = []  # noqa: RUF012
    problem: dict[str, object] | None = None

    @property
    def mistaken(self) -> bool:
        """Whether there is a mistake in the line."""
        return self.problem is not None or any(piece.problem for piece in self.pieces)


#: The fields of a piece that an answer carries.
_CARRIED = (
    "text start end role flags value page says problem nearest word span depth of what kind inside builtin parts"
).split()


def carried(pieces: list[Piece]) -> list[dict[str, object]]:
    """The pieces as plain values, ready for JSON."""
    return [{name: getattr(piece, name) for name in _CARRIED} for piece in pieces]


def answer(found: Unpicked) -> dict[str, object]:
    """A line taken apart as plain values, ready for JSON."""
    told = {"says": found.says, "pieces": carried(found.pieces), "changes": found.changes, "problem": found.problem}
    return {"line": found.line, **told}
