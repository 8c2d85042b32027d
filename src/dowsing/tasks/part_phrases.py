"""Phrases in a sentence: which named parts of a recipe's line are called for, and by which
words.
"""

from __future__ import annotations

import re
from functools import cache

from dowsing.knowledge.stems import stem
from dowsing.model.record import Record

_WORD = re.compile(r"[^\W_]+")
_FILLING = frozenset("the a an is are be of it its that this those these any all".split())
_NO = frozenset("not no without never dont".split())
GAP = 2  # words that may stand between two words of a phrase


class Token(Record):
    """A word of a sentence: as it is, its stem, and where it stands (characters)."""

    text: str
    stem: str
    start: int
    end: int


def tokens_of(text: str) -> list[Token]:
    """The words of a text."""
    return [
        Token(m[0].casefold(), stem(m[0].casefold()), m.start(), m.end())
        for m in _WORD.finditer(text)
    ]


@cache
def _stems_of(phrase: str) -> tuple[str, ...]:
    words = [match[0].casefold() for match in _WORD.finditer(phrase)]
    telling = [word for word in words if word not in _FILLING]
    return tuple(stem(word) for word in telling or words)


def find_phrase(tokens: list[Token], phrase: str) -> list[Token]:
    """The words of the sentence that say the phrase, in order and near each other; [] if it is not
    said or denied.
    """
    wanted = _stems_of(phrase)
    if not wanted:
        return []
    for first, token in enumerate(tokens):
        if token.stem != wanted[0]:
            continue
        found, at = [token], first
        for one in wanted[1:]:
            near = range(at + 1, min(at + 2 + GAP, len(tokens)))
            place = next((n for n in near if tokens[n].stem == one), None)
            if place is None:
                break
            found.append(tokens[place])
            at = place
        else:
            before = {one.text for one in tokens[max(0, first - 2) : first]}
            if not before & _NO or set(wanted) & _NO:
                return found
    return []


def parts_called_for(tokens: list[Token], parts: dict[str, list[str]]) -> dict[str, list[Token]]:
    """The parts that a sentence calls for, with the words that say so (of the longest phrase)."""
    found: dict[str, list[Token]] = {}
    for name, phrases in parts.items():
        said = max((find_phrase(tokens, phrase) for phrase in phrases), key=len, default=[])
        if said:
            found[name] = said
    return found
