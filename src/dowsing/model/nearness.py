"""Which of the words that there are is written most like a given one: one measure for all who offer
nearest ones.

The measure is the optimal string alignment distance (insert, delete, change a letter, swap two
neighbours), as a share of the longer word, from 0 to 1 for the same.
"""

from __future__ import annotations

from itertools import pairwise

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Sequence

LEAST = 0.6  # how like a word must be to be offered
SLIP = 0.1  # how much liker a word is that only a slip of the fingers parts from what was typed
LONGEST = 80  # characters of a word that are compared


class Near(Record):
    """A word that is like the one that was looked for. `place`: its place among those that it was
    looked for in.
    """

    word: str
    likeness: float
    place: int


def nearest(word: str, choices: Sequence[str], count: int = 3, least: float = LEAST) -> list[Near]:
    """The choices that are written like `word`, the likeliest first."""
    import warnings

    with warnings.catch_warnings():
        warnings.simplefilter(
            "ignore"
        )  # a library that another one could be quicker with says so on stderr
        from rapidfuzz import distance, process

    scorer = distance.OSA.normalized_similarity
    found = process.extract(word[:LONGEST], choices, scorer=scorer, limit=count, score_cutoff=least)
    return [Near(choice, likeness, place) for choice, likeness, place in found]


def nearest_words(
    word: str, choices: Sequence[str], count: int = 3, least: float = LEAST
) -> list[str]:
    """The same, the words alone."""
    return [near.word for near in nearest(word, choices, count, least)]


def is_slip(typed: str, meant: str) -> bool:
    """Whether a word is another one with a slip of the fingers: two neighbours swapped, a letter
    doubled or one of two lost, or, in a longer word that begins alike, another letter or two.
    """
    if typed == meant or abs(len(typed) - len(meant)) > 2:
        return False
    steps = distance(typed, meant)
    if steps == 1 and (sorted(typed) == sorted(meant) or without_doubles(typed, meant)):
        return True
    alike = min(len(typed), len(meant)) > 4 and typed[0] == meant[0]
    return alike and steps <= 1 + (len(typed) > 8)


def without_doubles(one: str, other: str) -> bool:
    """Whether two words are the same without the second of two equal letters."""
    return _once(one) == _once(other)


def _once(word: str) -> str:
    """The word without the second of two equal letters."""
    return "".join(b for a, b in pairwise(" " + word) if a != b)


def distance(one: str, other: str) -> int:
    """How many letters have to be inserted, deleted, changed or swapped to make one word of
    another.
    """
    from rapidfuzz.distance import OSA

    return OSA.distance(one, other)
