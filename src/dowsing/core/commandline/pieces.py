"""The pieces of a command line, as answers carry them."""

from __future__ import annotations

from dowsing.core.record import Record


class Piece(Record):
    """A part of a line.

    `start` and `end` are the place of the word that it is cut from, in characters; `word` is that word where `text` is
    only a part of it (a letter of a cluster, `--name` of `--name=value`), else "". `span` is the exact place where it
    can be told. `role`: command, subcommand, option, value, operand, operator, redirection, assignment, substitution,
    keyword or comment. `flags` are all spellings of an option, `value` its value without the shell's quotes; `page` is
    the text that tells of it. `problem` says what is wrong, `nearest` what may be meant. `depth` counts the commands
    and substitutions around it; `of` is the option that a value belongs to; `what` tells more of what it is; `kind` is
    the kind of a value; `inside`: pieces within it follow.
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
    summary: str = ""


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
