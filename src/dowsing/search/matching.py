"""The terms of a query, what may stand for them, and what each entry gets for having them."""

from __future__ import annotations

import math

from dowsing.index.schema import HEADS
from dowsing.index.store import Store
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
from dowsing.search.weights import WEIGHTS, Weights, field_worths

GLUED = 0.9  # how much `timezone` counts for `time zone`
OWN_ONLY = 0.85  # a word that counts no more than that for another is looked for in the heads only


class Term(Record):
    """A word of the query: its stem, and the terms that may stand for it with how much each counts (itself first)."""

    word: str
    term: str
    variants: list[tuple[str, float]]


def terms_of(store: Store, words: list[str], weights: Weights = WEIGHTS) -> list[Term]:
    """The terms of the telling words of a query, with what may stand for each."""
    roots = stems_of(store, words)
    runs = {" ".join(roots[at : at + size]): (at, size) for size in (3, 2) for at in range(len(roots) - size + 1)}
    joined = joined_terms(store, list(runs))
    taken: dict[int, tuple[int, str]] = {}
    for run, term in joined.items():
        at, size = runs[run]
        taken[at] = (size, term)
    chosen: list[tuple[str, str, list[str]]] = []  # word, term, the stems it was said with
    at = 0
    while at < len(roots):
        if at in taken:
            size, term = taken[at]
            chosen.append(
                (
                    " ".join(words[at : at + size]),
                    term,
                    [
                        one
                        for one, word in zip(roots[at : at + size], words[at : at + size], strict=True)
                        if word not in EMPTY
                    ],
                )
            )
            at += size
            continue
        if words[at] not in EMPTY:
            chosen.append((words[at], roots[at], []))
        at += 1
    if not chosen:
        chosen = [(word, one, []) for word, one in zip(words, roots, strict=True)]
    pairs = {words[n] + words[n + 1]: n for n in range(len(words) - 1)}
    glued = known_words(store, pairs) if pairs else {}
    related = related_terms(store, [term for _, term, _ in chosen])
    found = []
    for word, term, said in chosen:
        variants = {term: 1.0}
        for other in said:
            variants[other] = 0.5
        for other, weight in related.get(term, ()):
            variants[other] = max(variants.get(other, 0.0), weight * weights.equal)
        for pair, one in glued.items():
            if word in words[pairs[pair] : pairs[pair] + 2]:
                variants[one] = GLUED
        found.append(Term(word, term, list(variants.items())))
    return found


class Matches(Record):
    """What a search among terms gave: for each term how telling it is and what each entry gets for it."""

    terms: list[Term]
    telling: list[float]
    gains: list[dict[int, float]]


def match(store: Store, terms: list[Term], weights: Weights = WEIGHTS) -> Matches:
    """What each entry gets for each term."""
    own = {variant for term in terms for variant, weight in term.variants if weight > OWN_ONLY}
    others = {variant for term in terms for variant, _ in term.variants} - own
    lists: dict[str, list[Posting]] = {}
    for posting in (*postings(store, own), *postings(store, others, HEADS)):
        lists.setdefault(posting.term, []).append(posting)
    total = entries_in_all(store)
    worths = field_worths(weights, len(terms))

    def telling_of(term: str) -> float | None:
        found = lists.get(term)
        if not found:
            return None
        spread = sum(p.spread if p.part == HEADS else p.spread * weights.text_spread for p in found)
        return math.log(1 + total / (spread + total / weights.ceiling))

    most = math.log(1 + weights.ceiling)
    telling, gains = [], []
    for term in terms:
        itself = telling_of(term.term)
        best = 0.0
        worth_of: list[dict[int, float]] = []
        for variant, weight in term.variants:
            value = telling_of(variant)
            if value is None:
                continue
            value = weight * min(value, itself if itself is not None else most)
            best = max(best, value)
            for posting in lists[variant]:
                worth = [one * value for one in worths[posting.part]]
                worth_of.append(dict(zip(posting.entries, map(worth.__getitem__, posting.fields))))  # noqa: B905
        telling.append(itself if itself is not None else best)
        gains.append(_best(worth_of))
    return Matches(terms, telling, gains)


def _best(several: list[dict[int, float]]) -> dict[int, float]:
    """For each entry the best it has in any; the largest is taken as it is, for most of the time goes into this."""
    if not several:
        return {}
    several.sort(key=len, reverse=True)
    best = several[0]
    for one in several[1:]:
        for number, value in one.items():
            if value > best.get(number, 0.0):
                best[number] = value
    return best
