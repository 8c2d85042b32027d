"""`dowsing NAME` and `dowsing WORDS`: a card for a known name, an answer to what was pasted,
otherwise a search.
"""

from __future__ import annotations

import argparse

from dowsing.cli.commands import card, find
from dowsing.index.nearest_names import nearest_names
from dowsing.model.errors import Failure
from dowsing.model.names import is_typed
from dowsing.render.line_marks import FAINT
from dowsing.render.typed import typed
from dowsing.search.lookup import is_plain_word
from dowsing.session.making_cards import subcommand_card
from dowsing.session.naming import named, open_found
from dowsing.session.pasting import defined_by, sign_of
from dowsing.session.session import Session
from dowsing.session.slips import begun_name, meant_name
from dowsing.session.subcommands import finder_of
from dowsing.tasks.remembered import ListKind, Remembered, remember
from dowsing.terminal.screen import message

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.entry import Entry
    from dowsing.search.pasted import Pasted
    from dowsing.tasks.answers import Task

DESCRIPTION = (
    "A card for a known name; what a message, a sign of the shell, a path or a whole line means; "
    "otherwise a search for the words."
)
OTHERS_BEHIND_WORDS = True
_COMPARING = frozenset(("vs", "versus", "difference"))
FEWEST_SAID, MOST_SAID = 3, 60  # words of what may be a request
MOST_NEAR = 3  # names that are spelled like one that is not here
MOST_SHOWN = 5  # entries to look at


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the front door."""
    parser.add_argument("words", nargs="*", metavar="NAME or WORDS")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer: the card where the words are a name."""
    given = [word for word in options.words if word.strip()]
    if not given:
        raise Failure("say a name or some words, for example: dowsing tar", status=2)
    words = given[0].split() if len(given) == 1 else given
    if not _COMPARING.isdisjoint(words) or not all(
        word.isalpha() and word.islower() for word in words
    ):
        sign = sign_of(session, words)
        if sign is not None and (status := _pasted(session, sign)) is not None:
            return status
    found = named(session, words)
    if found.entry is not None:
        status = card.show(session, found)
        if not session.json and len(words) == 1 and is_plain_word(session.store, words[0]):
            session.screen.show(
                [f"{FAINT}“{words[0]}” is a word, too: {session.program} find {typed(words[0])}"]
            )
        return status
    return _no_name(session, words, " ".join(given))


def _no_name(session: Session, words: list[str], text: str) -> int:
    """Answer words that no page is named by; `text` is how they were given, with its lines."""
    from dowsing.search.pasted import has_sign_of_a_line, pasted_text
    from dowsing.session.typed_line import is_typed_line

    has_sign = has_sign_of_a_line(words)
    if has_sign and is_typed_line(session, text, has_sign):
        return _line(session, text)
    found = defined_by(session, words) or pasted_text(text)
    if found is not None and (status := _pasted(session, found)) is not None:
        return status
    meant = begun_name(session, words)
    part = subcommand_card(session, words) if not meant else None
    if part is not None:
        return card.show_card(session, part)
    if not meant and not has_sign and is_typed_line(session, text, has_sign):
        return _line(session, text)
    status = _not_here(session, words)
    if status is not None:
        return status
    status = _slip(session, words, meant)
    if status is not None:
        return status
    if len(words) == 1 and not session.json:
        return _one_word(session, words[0])
    return _words(session, words, text)


def _slip(session: Session, words: list[str], begun: list[str]) -> int | None:
    """The card of what a name with a slip must mean, or of what was `begun`; None if there is
    none.
    """
    meant = begun or meant_name(session, words)
    if not meant:
        return None
    message(f"there is no {' '.join(words)[:80]} here; taken as {' '.join(meant)}")
    found = named(session, meant)
    if found.entry is not None:
        return card.show(session, found)
    part = subcommand_card(session, meant)
    return card.show_card(session, part) if part is not None else None


def _words(session: Session, words: list[str], text: str) -> int:
    """Words to look for. A message that only names a program is looked for in its page, which
    stands first where no passage has the words.
    """
    from dowsing.search.message_passage import message_passage, program_of_message

    program = program_of_message(text)
    found = named(session, [program]) if program else None
    if session.json or found is None or found.entry is None or not is_typed(found.entry.section):
        task, hits = _sure_task(session, text), find.searched(session, words)
        if task is not None:
            hits = find.with_first(session, hits, task.answers[0].command)
        return find.tell(session, words, hits, task=task)
    document = open_found(session, found)
    passage = message_passage(document, text)
    if passage is None:
        hits = find.with_first(session, find.searched(session, words), program)
        return find.tell(session, words, hits)
    from dowsing.render.pasted_lines import passage_lines

    width = session.screen.width
    session.screen.show(passage_lines(text, document, passage, width, session.program))
    return 0


def _one_word(session: Session, word: str) -> int:
    """A word that is no name: what it finds, or that nothing has it, with the nearest names.
    Raises Failure.
    """
    found = find.searched(session, [word])
    if not found.total or found.is_guessed:
        near = nearest_names(session.store, word, MOST_NEAR)
        how = f"look for what it does: {session.program} find WORDS"
        raise Failure(
            f"nothing here is called {word[:80]}; {how}{'; nearest names' if near else ''}",
            nearest=near,
        )
    message(f"nothing here is called {word[:80]}; searching for the word")
    return find.tell(session, [word], found)


def _sure_task(session: Session, text: str) -> Task | None:
    """The line for what is said, where it is a request and the line is sure."""
    if session.json or not FEWEST_SAID <= len(text.split()) <= MOST_SAID:
        return None
    from dowsing.session.user_data import own_for
    from dowsing.tasks.answers import SURE, lines_for

    found = lines_for(text, [], finder_of(session), 1, own_for(session, text))
    return found if found.answers and found.likely >= SURE else None


def _not_here(session: Session, words: list[str]) -> int | None:
    """A command that is known and not here; None if the words are none."""
    if len(words) != 1:
        return None
    from dowsing.session.absent import absent_sheet

    sheet = absent_sheet(session, words[0])
    if sheet is None:
        return None
    from dowsing.model.record import dump
    from dowsing.render.absent_lines import absent_lines

    if session.json:
        session.print_json({"absent": dump(sheet)})
        return 0
    listed = [one.line for one in sheet.examples], [one.task for one in sheet.examples]
    if sheet.examples:
        remember(session.settings.data, Remembered(ListKind.EXAMPLES, sheet.name, [], *listed))
    same = _entries(session, sheet.same)
    session.screen.show(absent_lines(sheet, same, session.screen.width, session.program))
    return 0


# --- what was pasted
# -------------------------------------------------------------------------------------------


def _pasted(session: Session, found: Pasted) -> int | None:
    """Answer what was pasted; None if there is nothing to say of it."""
    from dowsing.search.pasted import PastedKind

    if found.kind is PastedKind.NAME:
        asked = named(session, found.see)
        return card.show(session, asked) if asked.entry is not None else None
    entries = _entries(session, found.see)
    if found.kind is PastedKind.PATH:
        return _path(session, found, entries)
    if found.kind is PastedKind.DIFFERENCE:
        return _difference(session, found, entries)
    return _show(session, found, entries)


def _entries(session: Session, names: list[str]) -> list[Entry]:
    """The entries of names that are here, the best first."""
    found = [named(session, name.split()) for name in names]
    entries = [one.entry for one in found if one.entry is not None]
    return list({entry.label: entry for entry in entries}.values())[:MOST_SHOWN]


def _show(session: Session, found: Pasted, entries: list[Entry]) -> int:
    from dowsing.model.record import dump
    from dowsing.render.pasted_lines import pasted_lines, says_of_pasted

    if session.json:
        row = dump(found) | {"says": says_of_pasted(found), "see": [one.label for one in entries]}
        where = [
            {"page": one.entry.label, "tag": one.tag, "says": one.says} for one in found.defined
        ]
        session.print_json({"pasted": {**row, "defined": where}})
        return 0
    session.screen.show(pasted_lines(found, entries, session.screen.width, session.program))
    return 0


def _difference(session: Session, found: Pasted, entries: list[Entry]) -> int | None:
    """Two names beside each other; None if one of them is not here."""
    from dowsing.render.contrast_lines import contrast_lines
    from dowsing.session.contrast import contrast

    if len(entries) < 2:
        return None
    sides = contrast(session, found.see)
    if session.json:
        from dowsing.model.record import dump

        see = [one.label for one in entries]
        told = {**dump(found), "see": see}
        session.print_json({"pasted": told, "sides": [dump(side) for side in sides]})
        return 0
    session.screen.show(contrast_lines(sides, session.screen.width, session.program))
    return 0


def _path(session: Session, found: Pasted, entries: list[Entry]) -> int | None:
    """What a path is: the program's card, else what kind of file, its package and its page."""
    from dowsing.session.paths import path_words

    kind = path_words(session, found.text)
    says = "; ".join(filter(None, (found.says, kind)))
    if not says and not entries and not found.defined:
        near = nearest_names(session.store, found.see[0], MOST_NEAR) if found.see else []
        says, entries = "nothing is there, and no page here tells of it", _entries(session, near)
    return _show(session, found.changed(says=says or "nothing is there"), entries)


def _line(session: Session, line: str) -> int:
    """A whole line: the sentence, its mistakes and effects."""
    from dowsing.commandline.line import unpick
    from dowsing.commandline.reading.command_finder import CommandFinder

    taken = unpick(line, CommandFinder(session.store, session.settings, ask=True))
    if session.json:
        from dowsing.render.line_json import unpicked_json

        session.print_json(unpicked_json(taken))
    else:
        from dowsing.render.piece_text import brief_lines

        session.screen.show(brief_lines(taken, session.screen.width, session.program))
    return 1 if taken.mistaken else 0
