"""The terms of a query, what may stand for them, and what each entry gets for having them."""

from __future__ import annotations

import math

from dowsing.index.schema import HEADS
from dowsing.index.word_reader import (
    Posting,
    entries_in_all,
    joined_terms,
    known_words,
    postings,
    related_terms,
    stems_of,
)
from dowsing.knowledge.stems import EMPTY
from dowsing.model.record import Record
from dowsing.search.weights import WEIGHTS, Weights, field_boosts

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store

GLUED = 0.9  # how much `timezone` counts for `time zone`
PART_OF_WORD = 0.5  # how much a word counts that was said as a part of another
OWN_ONLY = 0.85  # a word that counts no more than that for another is looked for in the heads only


class QueryTerm(Record):
    """A word of the query: its stem, and the terms that may stand for it with how much each counts
    (itself first).
    """

    word: str
    term: str
    variants: list[tuple[str, float]]


def terms_of(
    store: Store, words: list[str], weights: Weights = WEIGHTS, exact: list[str] | None = None
) -> list[QueryTerm]:
    """The terms of the words of a query that say something, with what may stand for each; for those
    of `exact` nothing does.
    """
    roots = stems_of(store, words)
    chosen = _chosen(store, words, roots)
    glued = _glued(store, words)
    related = related_terms(store, [one.term for one in chosen])
    found = []
    for one in chosen:
        variants = {one.term: 1.0, **dict.fromkeys(one.said_with, PART_OF_WORD)}
        for other, weight in related.get(one.term, ()) if one.word not in (exact or ()) else ():
            variants[other] = max(variants.get(other, 0.0), weight * weights.synonym)
        variants |= {term: GLUED for term, pair in glued if one.word in pair}
        found.append(QueryTerm(one.word, one.term, list(variants.items())))
    return found


class _Chosen(Record):
    """A word, or several that mean one, with its term; `said_with`: the stems of those several."""

    word: str
    term: str
    said_with: list[str]


def _chosen(store: Store, words: list[str], roots: list[str]) -> list[_Chosen]:
    """The words that say something; several in a row that have one word for them are one."""
    taken = _joined(store, roots)
    found: list[_Chosen] = []
    at = 0
    while at < len(roots):
        size, term = taken.get(at, (1, roots[at]))
        if at in taken:
            parts = zip(roots[at : at + size], words[at : at + size], strict=True)
            said_with = [root for root, word in parts if word not in EMPTY]
            found.append(_Chosen(" ".join(words[at : at + size]), term, said_with))
        elif words[at] not in EMPTY:
            found.append(_Chosen(words[at], term, []))
        at += size
    return found or [_Chosen(word, root, []) for word, root in zip(words, roots, strict=True)]


def _joined(store: Store, roots: list[str]) -> dict[int, tuple[int, str]]:
    """Where several stems in a row have one term: the place of the first, how many, the term."""
    runs = {
        " ".join(roots[at : at + size]): (at, size)
        for size in (3, 2)
        for at in range(len(roots) - size + 1)
    }
    found = {}
    for run, term in joined_terms(store, list(runs)).items():
        at, size = runs[run]
        found[at] = (size, term)
    return found


def _glued(store: Store, words: list[str]) -> list[tuple[str, list[str]]]:
    """Terms that two words of the query make when they are written as one, each with the two."""
    pairs = {words[n] + words[n + 1]: words[n : n + 2] for n in range(len(words) - 1)}
    return (
        [(term, pairs[pair]) for pair, term in known_words(store, pairs).items()] if pairs else []
    )


class Matches(Record):
    """What a search among terms gave: for each term how rare it is and what each entry gets for
    it.
    """

    terms: list[QueryTerm]
    idf: list[float]
    gains: list[dict[int, float]]


def match(store: Store, terms: list[QueryTerm], weights: Weights = WEIGHTS) -> Matches:
    """What each entry gets for each term."""
    own = {variant for term in terms for variant, weight in term.variants if weight > OWN_ONLY}
    others = {variant for term in terms for variant, _ in term.variants} - own
    lists: dict[str, list[Posting]] = {}
    for posting in (*postings(store, own), *postings(store, others, HEADS)):
        lists.setdefault(posting.term, []).append(posting)
    total = entries_in_all(store)
    boosts = field_boosts(weights, len(terms))

    def idf_of(term: str) -> float | None:
        found = lists.get(term)
        if not found:
            return None
        spread = sum(p.spread if p.part == HEADS else p.spread * weights.text_spread for p in found)
        return math.log(1 + total / (spread + total / weights.ceiling))

    most = math.log(1 + weights.ceiling)
    idfs, gains = [], []
    for term in terms:
        itself = idf_of(term.term)
        best = 0.0
        worth_of: list[dict[int, float]] = []
        for variant, weight in term.variants:
            value = idf_of(variant)
            if value is None:
                continue
            value = weight * min(value, itself if itself is not None else most)
            best = max(best, value)
            for posting in lists[variant]:
                worth = [one * value for one in boosts[posting.part]]
                worth_of.append(dict(zip(posting.entries, map(worth.__getitem__, posting.fields))))  # noqa: B905
        idfs.append(itself if itself is not None else best)
        gains.append(_best(worth_of))
    return Matches(terms, idfs, gains)


def _best(several: list[dict[int, float]]) -> dict[int, float]:
    """For each entry the best it has in any; the largest is taken as it is, for most of the time
    goes into this.
    """
    if not several:
        return {}
    several.sort(key=len, reverse=True)
    best = several[0]
    for one in several[1:]:
        for number, value in one.items():
            if value > best.get(number, 0.0):
                best[number] = value
    return best
