"""Whether words are a command line, and no sentence that begins with a command's name: `tar xzf
a.tgz` and `git push origin main` are, `find large files` and `kill a process` are not.
"""

from __future__ import annotations

import os
import re

from dowsing.index.convention_rows import conventions_of
from dowsing.model.roles import Role
from dowsing.search.lookup import is_plain_word
from dowsing.session.subcommands import finder_of, told_subcommands

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.render.pieces import Piece
    from dowsing.session.session import Session

#: Words that sentences have, and hardly any line. The first word of a line may be one (`at`).
_OF_SENTENCES = frozenset(
    """
        a an the of to in on for with my by from into as how what which who where that this than is
        are and or all not if when without between
    """.split()
)
#: Words that begin what only a shell runs, and the word that such a line has, too.
_COMPOUND = {"for": "do", "while": "do", "until": "do", "if": "then", "case": "in", "select": "do"}
_ASSIGNMENT = re.compile(r"[A-Za-z_]\w*=\S*")
_FORMED = re.compile(r"[^A-Za-z'\-]")  # a digit, a dot, a slash: no word of a language
_FIGURES = re.compile(r"\d+")
#: Kinds of values that are names of files, and "" for those of which nothing is known.
_OF_FILES = ("path", "file", "")
#: Kinds of values that figures alone may stand for.
_TAKES_FIGURES = frozenset(("number", "size", "duration", "mode", "port", "signal", "date", "user"))


def is_typed_line(session: Session, text: str, is_sign: bool) -> bool:
    """Whether a text is a command line. `is_sign`: it has a flag or a sign of the shell."""
    words = text.split()
    while words and _ASSIGNMENT.fullmatch(words[0]):
        words = words[1:]
    if not words:
        return False
    if words[0] in _COMPOUND:
        return _COMPOUND[words[0]] in words and any(sign in text for sign in ";$")
    if len(text.split()) < 2 or not _is_known(session, words[0]):
        return False
    if is_sign:
        return True
    return _OF_SENTENCES.isdisjoint(words[1:]) and _reads_as_one(session, text, words)


def _is_known(session: Session, name: str) -> bool:
    """Whether a command is here, or one that we know of."""
    if finder_of(session).is_here(name):
        return True
    return bool(conventions_of(session.store).facts(name).clauses)


def _reads_as_one(session: Session, text: str, words: list[str]) -> bool:
    """Whether what the command knows, or what has a form, is more than what may be plain words."""
    if not _may_be_one(session, words):
        return False
    from dowsing.commandline.line import unpick
    from dowsing.render.pieces import pieces_of

    taken = unpick(text, finder_of(session))
    if taken.mistaken:
        return False
    pieces = pieces_of(taken)
    known = sum(_tells(session, piece) for piece in pieces)
    of_files = ("path", "file") if any(one.role == Role.SUBCOMMAND for one in pieces) else _OF_FILES
    return known > sum(_doubts(session, piece, of_files) for piece in pieces)


def _may_be_one(session: Session, words: list[str]) -> bool:
    """What costs little is looked at first: a word with a form, a letter cluster that is no word, a
    subcommand, a command that runs another.
    """
    if any(_FORMED.search(word) for word in words[1:]):
        return True
    if words[1] in told_subcommands(session, words[0]):
        return True
    if _is_known(session, words[1]) or _is_known(session, " ".join(words[:2])):
        return True
    return not is_plain_word(session.store, words[1])


def _tells(session: Session, piece: Piece) -> int:
    """Whether a piece is one that only a line has."""
    if piece.role in (Role.SUBCOMMAND, Role.ASSIGNMENT):
        return 1
    if piece.role == Role.OPTION:
        return int(not _is_word_of_letters(session, piece))
    if piece.role == Role.COMMAND:
        return int(piece.start > 0)
    if piece.role not in (Role.OPERAND, Role.VALUE) or not _FORMED.search(piece.text):
        return 0
    return int(not _FIGURES.fullmatch(piece.text) or _may_be_figures(piece))


def _doubts(session: Session, piece: Piece, of_files: tuple[str, ...]) -> int:
    """Whether a piece may well be a word of a sentence: the name of a file that is not there, a
    figure where none belongs, letters without a dash that are a word. `of_files`: the kinds of
    values that may be such a name.
    """
    if piece.role == Role.OPTION:
        return int(_is_word_of_letters(session, piece))
    if piece.role != Role.OPERAND or os.path.exists(piece.text):
        return 0
    if _FIGURES.fullmatch(piece.text):
        return int(not _may_be_figures(piece))
    return int(piece.kind in of_files and not _FORMED.search(piece.text))


def _may_be_figures(piece: Piece) -> bool:
    return piece.kind in _TAKES_FIGURES or piece.what.upper() in ("PID", "SECTION")


def _is_word_of_letters(session: Session, piece: Piece) -> bool:
    """Whether options without a dash stand in a word that is one of a language."""
    word = piece.word or piece.text
    return word.isalpha() and is_plain_word(session.store, word)
