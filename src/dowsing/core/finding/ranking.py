"""How well entries match words.

The score of an entry is the sum, over the words, of the best field that the word, or a word that may stand for it,
stands in, times how telling the word is; then how much of what was asked is there at all, how it stands (see
standing.py) and what its section is worth at a prompt. The entries that come out best are then looked at once more
with their summaries and tasks before the eyes.
"""

from __future__ import annotations

from dowsing.core.finding.matching import Matches
from dowsing.core.finding.query import EMPTY
from dowsing.core.finding.standing import UNIT
from dowsing.core.finding.weights import WEIGHTS, Weights
from dowsing.core.index.store import Candidate, Store
from dowsing.core.index.vocabulary import standings
from dowsing.core.language.stems import stems
from dowsing.core.record import Record

ENOUGH = 1500  # so many candidates are not widened by less telling words


class Scored(Record):
    """An entry's number, its score, and how much of what was asked it has (0 to 1)."""

    number: int
    score: float
    covered: float


def score(
    store: Store, matches: Matches, allowed: set[int] | None, most: int, weights: Weights = WEIGHTS
) -> list[Scored]:
    """The `most` best entries by terms, coverage and standing, in order; only `allowed` ones if that is given."""
    total: dict[int, float] = {}
    had: dict[int, float] = {}
    for telling, gain in sorted(zip(matches.telling, matches.gains, strict=True), key=lambda pair: -pair[0]):
        if allowed is not None:
            gain = {number: value for number, value in gain.items() if number in allowed}
        if not total:
            total, had = gain.copy(), dict.fromkeys(gain, telling)
        elif len(total) > ENOUGH:
            for number in total.keys() & gain.keys():
                total[number] += gain[number]
                had[number] += telling
        else:
            for number, value in gain.items():
                total[number] = total.get(number, 0.0) + value
                had[number] = had.get(number, 0.0) + telling
    asked = sum(matches.telling) or 1.0
    standing = standings(store)
    size, unit, power = len(standing), weights.standing / UNIT, weights.coverage
    found = []
    for number, value in total.items():
        covered = had[number] / asked
        mark = standing[number] if number < size else 0
        found.append((value * covered**power + mark * unit, number, covered))
    found.sort(reverse=True)
    return [Scored(number, value, covered) for value, number, covered in found[:most]]


class Phrase:
    """What the words of a query are worth in one piece of text, such as a summary or a task."""

    def __init__(self, matches: Matches) -> None:
        self.asked = sum(matches.telling) or 1.0
        self.telling = matches.telling
        self.places: dict[str, list[tuple[int, float]]] = {}
        for n, term in enumerate(matches.terms):
            for variant, weight in term.variants:
                self.places.setdefault(variant, []).append((n, weight))

    def fit(self, stems: list[str]) -> float:
        """From 0 to 1: how much of the query is said in the text, and how much of the text says it."""
        best: dict[int, float] = {}
        said = 0.0
        for one in stems:
            places = self.places.get(one)
            if places:
                said += max(weight for _, weight in places)
                for n, weight in places:
                    if weight > best.get(n, 0.0):
                        best[n] = weight
        if not best:
            return 0.0
        here = sum(self.telling[n] * weight for n, weight in best.items()) / self.asked
        return here * (0.4 + 0.6 * said / len(stems))


def refine(
    candidates: list[Candidate],
    scores: dict[int, float],
    tasks: dict[int, list[str]],
    matches: Matches,
    weights: Weights = WEIGHTS,
) -> dict[int, float]:
    """The scores of candidates once their summaries and tasks have been looked at."""
    phrase = Phrase(matches)
    found = {}
    for one in candidates:
        score = scores[one.number]
        task = max((phrase.fit(telling_stems(text)) for text in tasks.get(one.number, ())), default=0.0)
        summary = phrase.fit(telling_stems(one.summary))
        found[one.number] = score + weights.task * task**weights.fit + weights.summary * summary**weights.fit
    return found


def telling_stems(text: str) -> list[str]:
    found = stems(text)
    return [one for one in found if one not in EMPTY] or found
