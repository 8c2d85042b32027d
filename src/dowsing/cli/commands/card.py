"""`card`: what a name is, in one screen."""

from __future__ import annotations

import argparse

from dowsing.model.record import dump
from dowsing.render.cards import card_lines
from dowsing.search.lookup import Lookup
from dowsing.session.making_cards import card_of
from dowsing.session.naming import find_entry
from dowsing.session.session import Session
from dowsing.session.user_data import note_read, notes_on
from dowsing.tasks.remembered import ListKind, Remembered, remember

DESCRIPTION = "What a name is, its form, the options most used, examples, and where to go on."


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "name", nargs="*", metavar="NAME", help="tar, 'printf(3)', printf.3, git commit"
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    return show(session, find_entry(session, options.name))


def show(session: Session, found: Lookup) -> int:
    """Print the card of what was found."""
    assert found.entry is not None
    card = card_of(session, found)
    notes = notes_on(session, [found.entry.label])
    if card.examples:
        listed = [one.line for one in card.examples], [one.task for one in card.examples]
        remember(session.settings.data, Remembered(ListKind.EXAMPLES, card.typed, [], *listed))
    if session.json:
        session.print_json({**dump(card), "notes": dump(notes)})
        return 0
    lines = card_lines(card, session.screen.width, session.program)
    if notes:
        from dowsing.render.kept_lists import note_lines

        lines = [*note_lines(notes, session.screen.width), "", *lines]
    session.screen.show(lines)
    note_read(session, found.entry.label)
    return 0
