"""`dowsing NAME` and `dowsing WORDS`: a card for a known name, an answer to what was pasted,
otherwise a search.
"""

from __future__ import annotations

import argparse
import re

from dowsing.cli.commands import card, find
from dowsing.model.errors import Failure
from dowsing.render.line_marks import FAINT
from dowsing.render.typed import typed
from dowsing.search.lookup import is_plain_word, look_up
from dowsing.session.session import Session
from dowsing.terminal.screen import message

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.entry import Entry
    from dowsing.search.pasted import Pasted

DESCRIPTION = (
    "A card for a known name; what a message, a sign of the shell, a path or a whole line means; "
    "otherwise a search for the words."
)
MOST_SHOWN = 5  # entries to look at


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the front door."""
    parser.add_argument("words", nargs="*", metavar="NAME or WORDS")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer: the card where the words are a name."""
    words = [word for word in options.words if word.strip()]
    if not words:
        raise Failure("say a name or some words, for example: dowsing tar", status=2)
    if not all(word.isalpha() and word.islower() for word in words):
        from dowsing.search.pasted import pasted_sign

        sign = pasted_sign(words)
        if sign is not None and (status := _pasted(session, sign)) is not None:
            return status
    found = look_up(session.store, words, session.settings, nearest=False)
    if found.entry is not None:
        status = card.show(session, found)
        if not session.json and len(words) == 1 and is_plain_word(session.store, words[0]):
            session.screen.show(
                [f"{FAINT}“{words[0]}” is a word, too: {session.program} find {typed(words[0])}"]
            )
        return status
    return _no_name(session, words)


def _no_name(session: Session, words: list[str]) -> int:
    """Answer words that no page is named by."""
    from dowsing.search.pasted import pasted_sign, pasted_text

    found = pasted_sign(words) or pasted_text(words, lambda word: _is_command(session, word))
    if found is not None and (status := _pasted(session, found)) is not None:
        return status
    near = _near_subcommand(session, words)
    if near:
        message(f"{words[0]} has no {words[1][:60]}; taken as {near}")
        return card.show(session, look_up(session.store, near.split(), session.settings))
    if len(words) == 1 and not session.json:
        absent = _known_elsewhere(session, words[0])
        if absent is not None:
            return _show(session, absent, _entries(session, absent.see))
        message(f"nothing here is called {words[0][:80]}; searching for the word")
    return find.answer(session, words, 20)


def _is_command(session: Session, word: str) -> bool:
    from dowsing.commandline.command_finder import CommandFinder

    return CommandFinder(session.store, session.settings, suggest=False).is_here(word)


def _near_subcommand(session: Session, words: list[str]) -> str:
    """The subcommand that a misspelled one is nearest to, `git commit` for `git comit`."""
    if len(words) not in (2, 3) or not all(word[:1].isalpha() for word in words[:2]):
        return ""
    from dowsing.index.nearest_names import nearest_names
    from dowsing.model.nearness import distance

    whole = "-".join(words[:2])
    begin = f"{words[0]}-"
    for label in nearest_names(session.store, whole):
        name = label.partition("(")[0]
        if name.startswith(begin) and distance(name, whole) <= 1 + (len(words[1]) > 4):
            return f"{words[0]} {name.removeprefix(begin)}"
    return ""


#: What places in the texts of our facts stand for, where there is no line.
_PLACES = {"SOURCE": "files", "FILE": "files", "PATH": "files", "*": "files", "in": "files"}
_PLACES |= {"DEST": "another place", "TARGET": "a target"}
_PLACE = re.compile(r"\[[^\]]*\]|\{[=!]?([^{}|]*)(?:\|([^{}]*))?\}")


def _known_elsewhere(session: Session, name: str) -> Pasted | None:
    """What is known of a command that is not here, without its page, with those that do the same;
    None if nothing is.
    """
    from dowsing.index.convention_rows import conventions_of, doing_the_same
    from dowsing.search.pasted import Pasted, PastedKind

    does = conventions_of(session.store).facts(name).does
    if not does:
        return None
    says = does.get("") or list(does.values())[-1]

    def place(match: re.Match[str]) -> str:
        named = match[1] or ""
        is_optional = match[0][0] == "["
        return "" if is_optional else _PLACES.get(named) or match[2] or "something"

    plain = _PLACE.sub(place, says)
    return Pasted(PastedKind.ABSENT, name, plain, see=doing_the_same(session.store, says))


# --- what was pasted
# -------------------------------------------------------------------------------------------


def _pasted(session: Session, found: Pasted) -> int | None:
    """Answer what was pasted; None if there is nothing to say of it."""
    from dowsing.search.pasted import PastedKind

    if found.kind is PastedKind.LINE:
        return _line(session, found.text)
    if found.kind is PastedKind.NAME:
        named = look_up(session.store, found.see, session.settings, nearest=False)
        return card.show(session, named) if named.entry is not None else None
    entries = _entries(session, found.see)
    if found.kind is PastedKind.PATH:
        return _path(session, found, entries)
    if found.kind is PastedKind.DIFFERENCE and len(entries) < 2:
        return None
    return _show(session, found, entries)


def _entries(session: Session, names: list[str]) -> list[Entry]:
    """The entries of names that are here, the best first."""
    found = [
        look_up(session.store, name.split(), session.settings, nearest=False) for name in names
    ]
    entries = [one.entry for one in found if one.entry is not None]
    return list({entry.label: entry for entry in entries}.values())[:MOST_SHOWN]


def _show(session: Session, found: Pasted, entries: list[Entry]) -> int:
    from dowsing.model.record import dump
    from dowsing.render.pasted_lines import pasted_lines, says_of_pasted

    if session.json:
        row = dump(found) | {"says": says_of_pasted(found), "see": [one.label for one in entries]}
        session.print_json({"pasted": row})
        return 0
    session.screen.show(pasted_lines(found, entries, session.screen.width, session.program))
    return 0


def _path(session: Session, found: Pasted, entries: list[Entry]) -> int | None:
    """What a path is: the program's card, else what kind of file, its package and its page."""
    from dowsing.session.paths import path_words

    says = path_words(session, found.text)
    if not says and not entries:
        return None
    return _show(session, found.changed(says=says or "nothing is there"), entries)


def _line(session: Session, line: str) -> int:
    """A whole line: the sentence, its mistakes and effects."""
    from dowsing.commandline.command_finder import CommandFinder
    from dowsing.commandline.line import unpick

    taken = unpick(line, CommandFinder(session.store, session.settings, ask=True))
    if session.json:
        from dowsing.render.line_json import unpicked_json

        session.print_json(unpicked_json(taken))
    else:
        from dowsing.render.piece_text import brief_lines

        session.screen.show(brief_lines(taken, session.screen.width, session.program))
    return 1 if taken.mistaken else 0
