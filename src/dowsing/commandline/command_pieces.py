"""The pieces of a line by the commands that they belong to."""

from __future__ import annotations

from dowsing.commandline.pieces import Piece
from dowsing.model.roles import Role


def commands_of(pieces: list[Piece]) -> list[tuple[Piece, list[Piece]]]:
    """Each command with its own pieces, in order."""
    found: list[tuple[Piece, list[Piece]]] = []
    open_at: dict[int, list[Piece]] = {}
    for piece in pieces:
        if piece.role == Role.COMMAND:
            own: list[Piece] = []
            found.append((piece, own))
            open_at[piece.depth] = own
        elif (
            piece.role in (Role.OPERATOR, Role.KEYWORD) and piece.of is None and piece.page is None
        ):
            open_at.pop(piece.depth, None)
        elif piece.depth in open_at:
            open_at[piece.depth].append(piece)
    return found
