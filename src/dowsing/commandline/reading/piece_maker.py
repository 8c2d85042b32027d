"""Makes the pieces of a line out of its words."""

from __future__ import annotations

from dowsing.commandline.model.pieces import Piece

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.tree import Line
    from dowsing.commandline.reading.command_finder import CommandFinder
    from dowsing.model.roles import Role


class PieceMaker:
    """Makes pieces of words; `line_of` reads the lines of the shell that stand within a word."""

    def __init__(
        self, finder: CommandFinder, pieces: list[Piece], line_of: Callable[[Word, int], list[Line]]
    ) -> None:
        self.finder = finder
        self.pieces = pieces
        self.line_of = line_of

    def add(self, piece: Piece) -> int:
        """Take a piece up; its number."""
        self.pieces.append(piece)
        return len(self.pieces) - 1

    @staticmethod
    def piece(token: Word, role: Role, depth: int, /, **more: object) -> Piece:
        """The piece of a word, with these other fields."""
        if token.inner:
            more.setdefault("inside", True)
        if token.quoted:
            more.setdefault("plain", token.value)
        fields = {
            "text": token.text,
            "start": token.start,
            "end": token.end,
            "role": role,
            "depth": depth,
            **more,
        }
        if not token.placed:
            fields["span"] = []
        return Piece(**fields)  # type: ignore[arg-type]
