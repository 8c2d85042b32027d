"""`dowsing NAME` and `dowsing WORDS`: a card for a known name, otherwise a search."""

from __future__ import annotations

import argparse

from dowsing.cli.commands import card, find
from dowsing.model.errors import Failure
from dowsing.render.line_marks import FAINT
from dowsing.render.typed import typed
from dowsing.search.lookup import is_plain_word, look_up
from dowsing.session.session import Session
from dowsing.terminal.screen import message

DESCRIPTION = "A card for a known name, otherwise a search for the words."


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the front door."""
    parser.add_argument("words", nargs="*", metavar="NAME or WORDS")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer: the card where the words are a name."""
    words = [word for word in options.words if word.strip()]
    if not words:
        raise Failure("say a name or some words, for example: dowsing tar", status=2)
    found = look_up(session.store, words, session.settings, nearest=False)
    if found.entry is not None:
        status = card.show(session, found)
        if not session.json and len(words) == 1 and is_plain_word(session.store, words[0]):
            session.screen.show(
                [f"{FAINT}“{words[0]}” is a word, too: {session.program} find {typed(words[0])}"]
            )
        return status
    if len(words) == 1 and not session.json:
        message(f"no page is named {words[0][:80]}; searching for the word")
    return find.answer(session, words, 20)
