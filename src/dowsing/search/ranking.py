"""How well entries match words.

The score of an entry is a sum of parts, each of which `--why` tells (breakdown.py):

- for each word the best field that it, or a synonym, stands in, times how rare it is (its idf);
- of that sum as much is left as what was asked is there at all (coverage);
- how much the entry counts before any word is looked at (ingest/static_rank.py);
- what its section costs at a prompt;
- for the best entries, which are looked at twice: how well the summary and the best task say what
  was asked;
- what the name that was typed, and an option that was asked for, are worth.
"""

from __future__ import annotations

from dowsing.index.schema import UNIT
from dowsing.index.word_reader import EntryTexts, static_ranks
from dowsing.search.weights import WEIGHTS, Weights

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.search.matching import Matches

MANY = 1500  # so many candidates are not widened by less rare words,
ENOUGH = 150  # nor so many by words that all together tell little beside those before
LITTLE = 0.4


def score(
    store: Store, matches: Matches, most: int, weights: Weights = WEIGHTS
) -> list[tuple[float, int]]:
    """The `most` best entries by terms, coverage and static rank, in order: their scores and
    numbers. Behind them the others that have all terms, of which so many may be shown, too.
    """
    total, had = _gains(matches)
    left = {bits: coverage(matches, bits, weights) for bits in set(had.values())}
    every = (1 << len(matches.terms)) - 1
    if len(total) > 3 * most:  # those that cannot come up any more are left where they are
        least = sorted(total.values(), reverse=True)[2 * most]
        total = {
            number: value
            for number, value in total.items()
            if value >= least or had[number] == every
        }
    ranks = static_ranks(store)
    unit = weights.static_rank / UNIT
    found = [
        (value * left[had[number]] + ranks[number] * unit, number)
        for number, value in total.items()
    ]
    found.sort(reverse=True)
    return found[:most] + [one for one in found[most:] if had[one[1]] == every][:most]


def _gains(matches: Matches) -> tuple[dict[int, float], dict[int, int]]:
    """What entries get for all terms together, and which terms each has, a bit for each; the rarest
    terms come first.
    """
    total: dict[int, float] = {}
    had: dict[int, int] = {}
    asked = left = sum(matches.idf) or 1.0
    for n in sorted(range(len(matches.terms)), key=lambda n: -matches.idf[n]):
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
        left -= matches.idf[n]
    return total, had


def coverage(matches: Matches, bits: int, weights: Weights = WEIGHTS) -> float:
    """How much of what words are worth is left where only the terms of these bits are there."""
    asked = sum(matches.idf) or 1.0
    there = sum(idf for n, idf in enumerate(matches.idf) if bits >> n & 1)
    return float((there / asked) ** weights.coverage)


class Phrase:
    """What the words of a query are worth in one piece of text, such as a summary or a task."""

    def __init__(self, matches: Matches, weights: Weights = WEIGHTS) -> None:
        self.precise = weights.precise
        self.asked = sum(matches.idf) or 1.0
        self.idf = matches.idf
        self.places: dict[str, list[tuple[int, float]]] = {}
        for n, term in enumerate(matches.terms):
            for variant, weight in term.variants:
                self.places.setdefault(variant, []).append((n, weight))

    def fit(self, stems: list[str], beside: float = 0.0) -> float:
        """From 0 to 1: how much of the query is said in the text, and how much of the text says it.
        `beside`: so many more words are taken to stand there that say none of it.
        """
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
        here = sum(self.idf[n] * weight for n, weight in best.items()) / self.asked
        return here * (1 - self.precise + self.precise * said / (len(stems) + beside))


def task_boost(phrase: Phrase, texts: EntryTexts, weights: Weights = WEIGHTS) -> float:
    """What the task that says the query best is worth."""
    beside = weights.special if texts.special else 0.0
    fit = max([phrase.fit(terms, beside) for terms in texts.task_terms], default=0.0)
    return float(weights.task * fit**weights.task_fit)


def summary_boost(phrase: Phrase, texts: EntryTexts, weights: Weights = WEIGHTS) -> float:
    """What the summary is worth."""
    return float(weights.summary * phrase.fit(texts.summary) ** weights.fit)
