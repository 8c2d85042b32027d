"""`card`: what a name is, in one screen."""

from __future__ import annotations

import argparse

from dowsing.cli.commands.naming import find_entry, open_found, subject_of
from dowsing.cli.kept import note_read, notes_on
from dowsing.cli.output.cards import card_lines
from dowsing.cli.session import Session
from dowsing.core.document import Example
from dowsing.core.finding.lookup import Lookup
from dowsing.core.reading.card import Card, make_card
from dowsing.core.record import dump
from dowsing.core.sources import catalogue
from dowsing.core.tasks.examples import as_shown, few_recipes
from dowsing.core.tasks.remembered import Remembered, remember

FEW_RECIPES = 3
DESCRIPTION = "What a name is, its form, the options most used, examples, and where to go on."


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("name", nargs="*", metavar="NAME", help="tar, 'printf(3)', printf.3, git commit")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    return show(session, find_entry(session, options.name))


def card_of(session: Session, found: Lookup, width: int) -> list[str]:
    """The card of what was found as lines, without the remarks of the user."""
    return card_lines(_card(session, found), width, session.program)


def _card(session: Session, found: Lookup) -> Card:
    assert found.entry is not None
    document = open_found(session, found)
    others = catalogue.others(subject_of(session, found, ask=False), document.source)
    typed = found.entry.label if found.name.section else found.entry.name
    names = [found.entry.name, *(alias.partition("(")[0] for alias in found.entry.aliases)]
    recipes = [Example(one.task, as_shown(one)) for one in few_recipes(session.store, names, FEW_RECIPES)]
    return make_card(document, found.entry, typed, found.others, [document.source, *others], session.json, recipes)


def show(session: Session, found: Lookup) -> int:
    """Print the card of what was found."""
    assert found.entry is not None
    card = _card(session, found)
    notes = notes_on(session, [found.entry.label])
    if card.examples:
        listed = [one.line for one in card.examples], [one.task for one in card.examples]
        remember(session.settings.data, Remembered("examples", card.typed, [], *listed))
    if session.json:
        session.print_json({**dump(card), "notes": dump(notes)})
        return 0
    lines = card_lines(card, session.screen.width, session.program)
    if notes:
        from dowsing.cli.output.own import note_lines

        lines = [*note_lines(notes, session.screen.width), "", *lines]
    session.screen.show(lines)
    note_read(session, found.entry.label)
    return 0
