"""`card`: what a name is, in one screen."""

from __future__ import annotations

import argparse

from dowsing.model.record import dump
from dowsing.render.cards import brief_lines, card_lines
from dowsing.session.making_cards import card_of, subcommand_card
from dowsing.session.naming import find_entry, named
from dowsing.session.session import Session
from dowsing.session.user_data import note_read, notes_on
from dowsing.tasks.remembered import ListKind, Remembered, remember
from dowsing.terminal.screen import message

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.search.card import Card
    from dowsing.search.lookup import Lookup

DESCRIPTION = "What a name is, its form, the options most used, examples, and where to go on."


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "name",
        nargs="*",
        metavar="NAME",
        help="tar, 'printf(3)', printf.3, git commit; several names give a line each",
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    if len(options.name) > 1 and named(session, options.name).entry is None:
        part = subcommand_card(session, options.name)
        if part is not None:
            return show_card(session, part)
        names = _several(session, options.name)
        if names:
            return _show_each(session, names)
    return show(session, find_entry(session, options.name))


def _several(session: Session, words: list[str]) -> list[str]:
    """The names, where two of the words are one."""
    known = sum(named(session, [word]).entry is not None for word in words)
    return words if known > 1 else []


def _show_each(session: Session, names: list[str]) -> int:
    """Print a line for each name; those that are not there are told."""
    found = [named(session, [name]) for name in names]
    entries = [one.entry for one in found if one.entry is not None]
    for name, one in zip(names, found, strict=True):
        if one.entry is None:
            message(f"there is no page named {name[:80]}")
    if session.json:
        session.print_json([dump(entry) for entry in entries])
    else:
        session.screen.show(brief_lines(entries, session.screen.width))
    return 0 if len(entries) == len(names) else 1


def show(session: Session, found: Lookup) -> int:
    """Print the card of what was found."""
    assert found.entry is not None
    status = show_card(session, card_of(session, found))
    note_read(session, found.entry.label)
    return status


def show_card(session: Session, card: Card) -> int:
    """Print a card."""
    notes = notes_on(session, [card.entry.label])
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
    return 0
