"""How likely the best recipe for a sentence is right: log odds from a few parts, each times what it
is worth. The numbers are in confidence.toml, which bench/fit_evidence.py writes.
"""

from __future__ import annotations

import math
import os

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.recipe_ranking import Ranked

FILE = os.path.join(os.path.dirname(os.path.abspath(__file__)), "confidence.toml")
MOST_STRANGE = 3.0  # words that count
LOUDEST = 30.0  # log odds that count
LONGEST = 2.5  # tens of words that count
MOST_CLAUSES = 6  # that count
MOST_LEFT = 5  # words that count
FAR = 3.0  # so far behind the best, nothing comes into question any more


class Confidence(Record):
    """The parts. `base`: without anything; `score`: of the best; `gap`: how far the next one of
    another command is behind; `said`: how much of its nearest wording is said; `known`: how much of
    the sentence is said in wordings of the recipe, words that were guessed to be values left out;
    `strange`: how many of its words no wording has; `speaks`: what the words say for the recipe, in
    tens of log odds; `long`: how many words of the sentence tell something, in tens; `left`: how
    many of these the line has nothing of; `parts`: how much was added to the recipe; `near`: how
    much of that was not said in so many words; `open`: places without a value; `clauses`: in how
    many clauses the sentence says what is wanted.
    """

    base: float = 1.0
    score: float = 0.0
    gap: float = 0.0
    said: float = 0.0
    known: float = 0.0
    strange: float = 0.0
    speaks: float = 0.0
    long: float = 0.0
    left: float = 0.0
    parts: float = 0.0
    near: float = 0.0
    open: float = 0.0
    clauses: float = 0.0


def confidence_parts(found: list[Ranked]) -> Confidence:
    """The parts for a ranking, the best first."""
    best = found[0]
    other = next((o for o in found if o.filled.recipe.command != best.filled.recipe.command), None)
    gap = FAR if other is None else min(FAR, best.score - other.score)
    return Confidence(
        1.0,
        best.score,
        gap,
        best.evidence.said,
        best.known,
        min(best.strange, MOST_STRANGE),
        min(best.speaks or 0.0, LOUDEST) / 10,
        min(best.telling / 10, LONGEST),
        min(len(best.left) + len(best.missed) + len(best.lost), MOST_LEFT),
        best.evidence.added,
        best.evidence.near,
        best.evidence.open,
        min(best.clauses, MOST_CLAUSES),
    )


def likelihood(found: list[Ranked], weights: Confidence) -> float:
    """The probability that the best recipe is right. One that the model does not know, such as a
    line of the user's own, goes by how much of the sentence it has.
    """
    if found[0].speaks is None:
        return found[0].evidence.covered
    parts = confidence_parts(found)
    odds: float = sum(getattr(parts, name) * getattr(weights, name) for name in Confidence._fields)
    return 1 / (1 + math.exp(-max(-30.0, min(30.0, odds))))


def read_confidence(path: str = FILE) -> Confidence:
    """What each part is worth. The lines are plain enough to be read without a parser."""
    with open(path, encoding="utf-8") as file:
        rows = [line.partition(" = ") for line in file if line[:1].isalpha()]
    return Confidence(**{name: float(number) for name, _, number in rows})
