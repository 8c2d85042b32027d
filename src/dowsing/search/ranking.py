"""How well entries match words.

The score of an entry is the sum, over the words, of the best field that the word, or a word that may stand for it,
stands in, times how telling the word is; then how much of what was asked is there at all, how it stands (see
standing.py) and what its section is worth at a prompt. The entries that come out best are then looked at once more
with their summaries and tasks before the eyes.
"""

from __future__ import annotations

from dowsing.index.schema import UNIT
from dowsing.index.store import Store
from dowsing.index.word_reader import Said, standings
from dowsing.search.matching import Matches
from dowsing.search.weights import WEIGHTS, Weights

MANY = 1500  # so many candidates are not widened by less telling words,
ENOUGH = 150  # nor so many by words that all together tell little beside those before
LITTLE = 0.4


def score(store: Store, matches: Matches, most: int, weights: Weights = WEIGHTS) -> list[tuple[float, int]]:
    """The `most` best entries by terms, coverage and standing, in order: their scores and numbers."""
    total: dict[int, float] = {}
    had: dict[int, int] = {}  # which terms, a bit for each
    asked = left = sum(matches.telling) or 1.0
    order = sorted(range(len(matches.terms)), key=lambda n: -matches.telling[n])
    for n in order:
        gain, bit = matches.gains[n], 1 << n
        if not total:
            total, had = gain.copy(), dict.fromkeys(gain, bit)
        elif len(total) > MANY or (len(total) > ENOUGH and left < LITTLE * asked):
            for number in total.keys() & gain.keys():
                total[number] += gain[number]
                had[number] |= bit
        else:
            for number, value in gain.items():
                total[number] = total.get(number, 0.0) + value
                had[number] = had.get(number, 0) | bit
        left -= matches.telling[n]
    standing = standings(store)
    unit = weights.standing / UNIT
    part = {
        bits: (sum(telling for n, telling in enumerate(matches.telling) if bits >> n & 1) / asked) ** weights.coverage
        for bits in set(had.values())
    }
    if len(total) > 3 * most:  # those that cannot come up any more are left where they are
        least = sorted(total.values(), reverse=True)[2 * most]
        total = {number: value for number, value in total.items() if value >= least}
    found = [(value * part[had[number]] + standing[number] * unit, number) for number, value in total.items()]
    found.sort(reverse=True)
    return found[:most]


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
    scores: dict[int, float], said: dict[int, Said], matches: Matches, weights: Weights = WEIGHTS
) -> dict[int, float]:
    """The scores of the entries that `said` has, once their summaries and tasks have been looked at."""
    phrase = Phrase(matches)
    found = {}
    for number, one in said.items():
        task = max([phrase.fit(terms) for terms in one.task_terms], default=0.0)
        summary = phrase.fit(one.summary)
        found[number] = scores[number] + weights.task * task**weights.fit + weights.summary * summary**weights.fit
    return found
