"""Reading the page of the word at a place of a line."""

from __future__ import annotations

from dowsing.cli.commands import read
from dowsing.cli.listed import as_given
from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.model.errors import Failure
from dowsing.model.roles import Role
from dowsing.render.pieces import Piece, pieces_of
from dowsing.session.session import Session


def read_at(session: Session, line: str, at: int | None) -> int:
    """Read the page that tells of the word at a place, counted in characters. Raises Failure."""
    place = len(line) if at is None else max(0, min(at, len(line)))
    found = unpick(line, CommandFinder(session.store, session.settings))
    page = page_at(pieces_of(found), place)
    if not page:
        words = line[:place].split()
        raise Failure(
            f"nothing here documents “{words[-1][:40]}”"
            if words
            else "there is no word at the cursor"
        )
    return read.run(session, as_given(read, page.removesuffix("(builtin)")))


def page_at(pieces: list[Piece], place: int) -> str:
    """The page of the piece at a place: its own, else that of the command it belongs to; "" if
    there is none.
    """
    best = ""
    for piece in pieces:
        if piece.start > place:
            break
        if piece.role in (Role.COMMAND, Role.SUBCOMMAND):
            best = piece.page or best
        elif piece.page and piece.start <= place <= piece.end:
            best = piece.page
    return best
