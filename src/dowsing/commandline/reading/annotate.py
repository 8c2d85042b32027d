"""Adds to the pieces of a line what stands in them: the parts of values in small languages, and
what the shell does to words.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Manner, Meaning
from dowsing.commandline.languages import read_value
from dowsing.commandline.languages.reading import Part, Reading
from dowsing.commandline.languages.value_language import language_values
from dowsing.commandline.model.tree import OptionUse
from dowsing.model.roles import Role

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.languages.value_language import LanguageValue
    from dowsing.commandline.model.pieces import Piece
    from dowsing.commandline.model.tree import CommandNode

_WITH_WORDS = frozenset((Role.OPERAND, Role.VALUE, Role.ASSIGNMENT, Role.REDIRECTION, Role.OPTION))
_BY_MANNER = {
    Manner.CASE_PATTERN: "glob",
    Manner.ARITHMETIC: "arithmetic",
    Manner.FUNCTION_NAME: "",
}
#: What the shell puts something in the place of, kept from the readers of languages.
_EXPANSION = r"\$\{[^}]*\}|\$\([^()]*\)|`[^`]*`|\$[A-Za-z_]\w*|\$[0-9@*#?$!-]"
#: References to lines run before that nothing else is written like.
_HISTORY = r"!(?:[!$^*]|-?\d+)"
#: Of what the shell changes one has to be in the word.
_CHANGED = frozenset("$`*?[{~!")
_FIRST_HELD = 0xE100  # characters of private use stand for what is held back


def annotate(pieces: list[Piece], commands: list[CommandNode]) -> list[Piece]:
    """The pieces, with the parts of their values."""
    told: dict[int, list[Part]] = {}
    index = _by_place(pieces)
    for node in commands:
        for value in language_values(node):
            reading = read_held(value)
            if not reading.parts:
                continue
            piece = _piece_of(value, index)
            if piece is not None:
                told.setdefault(id(piece), reading.parts)
    return [_with_parts(piece, told.get(id(piece))) for piece in pieces]


def read_held(value: LanguageValue) -> Reading:
    """What a value says; what the shell puts in it is kept whole, whatever it may become."""
    text = value.value
    if not value.word.dynamic:
        return read_value(value.language, text)
    held: list[str] = []

    def hold(match: re.Match[str]) -> str:
        held.append(match[0])
        return chr(_FIRST_HELD + len(held) - 1)

    reading = read_value(value.language, re.sub(_EXPANSION, hold, text))

    def show(text: str) -> str:
        return re.sub(
            "[\ue100-\uf8ff]",
            lambda match: (
                held[ord(match[0]) - _FIRST_HELD]
                if ord(match[0]) - _FIRST_HELD < len(held)
                else match[0]
            ),
            text,
        )

    def shown(part: Part) -> Part:
        return Part(show(part.text), show(part.says), [shown(one) for one in part.inside])

    # what it becomes may well be what is missing
    return Reading([shown(part) for part in reading.parts], show(reading.says))


def _by_place(pieces: list[Piece]) -> dict[tuple[int, int], list[Piece]]:
    found: dict[tuple[int, int], list[Piece]] = {}
    for piece in pieces:
        found.setdefault((piece.start, piece.end), []).append(piece)
    return found


def _piece_of(value: LanguageValue, index: dict[tuple[int, int], list[Piece]]) -> Piece | None:
    """The piece that shows a value: that of its word, or of the option that has it attached."""
    word = value.word
    is_whole = word is not value.use.word or not isinstance(value.use, OptionUse)
    for piece in index.get((word.start, word.end), ()):
        if is_whole and piece.role in (Role.VALUE, Role.OPERAND) and piece.text == word.text:
            return piece
        if not is_whole and piece.role == Role.OPTION and piece.value == value.value:
            return piece
    return None


def _with_parts(piece: Piece, parts: list[Part] | None) -> Piece:
    """A piece with the parts of its value, and of what the shell does to its word."""
    rows = Reading(parts).rows if parts else []
    language = _shell_language(piece, bool(parts))
    if language:
        text = piece.word if piece.role == Role.OPTION else piece.text
        rows = [*read_value(language, text).rows, *rows]
    return piece.changed(parts=[list(row) for row in rows]) if rows else piece


def _shell_language(piece: Piece, has_language: bool) -> str:
    """How the shell reads the word of a piece before the command gets it, "" if there is nothing
    to say of that.
    """
    if piece.role not in _WITH_WORDS or (piece.role == Role.OPTION and not piece.word):
        return ""
    if piece.manner is not None and piece.manner.code in _BY_MANNER:
        return _BY_MANNER[piece.manner.code]
    if piece.role == Role.REDIRECTION and "(" in piece.text:
        return ""  # a substitution, whose commands follow
    text = piece.word if piece.role == Role.OPTION else piece.text
    if not _CHANGED & set(text):
        return ""
    is_earlier = text[:1] == "!" and re.fullmatch(_HISTORY, text)
    if piece.role == Role.OPERAND and is_earlier:
        return "history"
    is_name = piece.role in (Role.OPERAND, Role.VALUE) and not has_language
    is_test = piece.meaning is not None and piece.meaning.code is Meaning.TEST
    return "shell-word" if is_name and not is_test else "shell-data"
