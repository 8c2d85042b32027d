"""Search: words, patterns and filters to a ranked list, and what was done to get one."""

from __future__ import annotations

from dowsing.index.schema import MIDDLE, UNIT
from dowsing.index.store import Store
from dowsing.index.word_reader import Said, count_kin, said_of, standings, terms_meant
from dowsing.model.entry import Candidate, Entry
from dowsing.model.record import Record
from dowsing.search.filters import meant, narrow
from dowsing.search.loosening import (
    add_texts,
    and_beginnings,
    having_all,
    in_texts,
    lacking,
    settle,
)
from dowsing.search.matching import Matches, Term, match, terms_of
from dowsing.search.query import MOST_PATTERN, MOST_WORDS, Query, make_query
from dowsing.search.ranking import refine, score
from dowsing.search.weights import WEIGHTS, Weights, section_costs

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.search.facet import Taken

__all__ = ["Answer", "Hit", "make_query", "search"]

LOOKED_AT = 150  # entries that are fetched, at least
LOOKED_AT_TWICE = 40  # entries whose summaries and tasks are looked at, at least
#: An entry without every word is listed if it is worth so much of what the best one is that has them, by the number of
#: words; few words are meant one by one, a sentence is meant as a whole.
AS_GOOD = {1: 1.0, 2: 1.15, 3: 0.9}
AS_GOOD_SENTENCE = 0.35
LEAST_TELLING = 4.0  # how telling a word is at least that no name, summary or task has
MOST_TOLD = 6  # words left out
FEW = 5  # so few entries are made more by those that have the words in their texts
OF_NAME = 12.0  # what it is worth that what was typed is the name
INSIDE_NAME = 0.8  # what it is worth that a name holds the one word that is searched for


class Hit(Record):
    """An entry found, its score (larger is better), why, how many of its family it stands for, the options asked for."""

    entry: Entry
    score: float
    why: list[str]
    folded: int = 0
    options: list[Taken] = []  # noqa: RUF012 - a record is immutable


class Answer(Record):
    """The hits, the number of matching entries and their numbers, and what was loosened to find them (None if nothing).

    `terms`: what was searched for, with what may stand for it.
    """

    query: Query
    total: int
    relaxed: str | None
    hits: list[Hit]
    numbers: list[int]
    terms: list[Term]


def search(store: Store, query: Query, why: bool = False, weights: Weights = WEIGHTS) -> Answer:
    """The entries that match the query, best first. Loosens where nothing has every word, and says so.

    `why`: give the reasons of each hit. `weights`: what things are worth, to be changed by measurements only.
    """
    notes: list[str] = []
    words, patterns = query.words, query.patterns
    if len(words) > MOST_WORDS:
        words = words[:MOST_WORDS]
        notes.append(f"only the first {MOST_WORDS} words were used")
    if any(len(pattern) > MOST_PATTERN for pattern in patterns):
        patterns = [pattern[:MOST_PATTERN] for pattern in patterns]
        notes.append(f"patterns were cut to {MOST_PATTERN} characters")
    narrow(store, query.filters)
    allowed, bonus = _allowed(store, query, patterns, bool(words), notes)
    matches, numbers, scored = Matches([], [], []), set[int](), list[tuple[float, int]]()
    if words:
        for number in store.numbers_named(query.names):
            if allowed is None or number in allowed:
                bonus[number] = bonus.get(number, 0.0) + OF_NAME
        most = max(LOOKED_AT, query.limit * 3)
        matches, numbers, scored = _by_words(store, words, allowed, bonus, notes, most, weights, query.texts)
    elif allowed is not None:
        numbers, scored = allowed, _by_standing(store, allowed, bonus)
    ranked, scores, said = _ranked(store, scored, matches, max(LOOKED_AT_TWICE, query.limit * 3 // 2), weights)
    shown, over = ranked[: query.limit], set[str]()
    if len(ranked) > query.limit and not query.filters.family:
        from dowsing.search.folding import folded

        shown, over = folded(ranked, query.limit, set(words))
    reasons = _reasons(store, shown, matches, said, patterns) if why else {}
    taken: dict[int, list[Taken]] = {}
    if query.filters.takes:
        from dowsing.search.facet import options_taken

        taken = options_taken(store, [one.number for one in shown], query.filters.takes)
    entries = store.entries([one.number for one in shown])
    hits: list[Hit] = []
    for one, entry in zip(shown, entries, strict=True):
        more = 0
        if one.family in over:  # told once, of the best of its family
            over.remove(one.family)
            more = count_kin(store, one.number, numbers) - sum(other.family == one.family for other in shown)
        hits.append(
            Hit(entry, round(scores[one.number], 3), reasons.get(one.number, []), more, taken.get(one.number, []))
        )
    if hits:
        left_out = [f"“{matches.terms[n].word}”" for n in lacking(matches, shown[0].number)]
        if 0 < len(left_out) < len(matches.terms) and not having_all(matches, set()):
            rest = f" and {len(left_out) - MOST_TOLD} more" if len(left_out) > MOST_TOLD else ""
            notes.append(f"nothing has every word; left out: {', '.join(left_out[:MOST_TOLD])}{rest}")
    relaxed = "; ".join(notes) if notes and hits else None
    terms = [*matches.terms, *_filter_terms(store, query)]
    return Answer(query, len(numbers), relaxed, hits, list(numbers), terms)


def _filter_terms(store: Store, query: Query) -> list[Term]:
    """The verb and the noun that are narrowed to, with the words that mean the same."""
    found = []
    for kind, word in (("verbs", query.filters.does), ("nouns", query.filters.what)):
        if word:
            heads = meant(store, kind, word)
            found.append(Term(word, heads[0], [(term, 1.0) for term in (*terms_meant(store, kind, heads), *heads)]))
    return found


def _allowed(
    store: Store, query: Query, patterns: list[str], words: bool, notes: list[str]
) -> tuple[set[int] | None, dict[int, float]]:
    """The entries that filters and patterns allow, None if they allow all; and what the option asked for is worth."""
    allowed: set[int] | None = None
    for pattern in patterns:
        numbers = {found.number for found in store.matching_names(pattern)}
        allowed = numbers if allowed is None else allowed & numbers
    if patterns and not allowed and not words:
        for pattern in patterns:
            numbers = {found.number for found in store.matching_names(f"*{pattern.strip('*')}*")}
            allowed = numbers if not allowed else allowed & numbers
        if allowed:
            notes.append("no name matches that whole; these have it inside")
    if allowed is None and store.narrowed:
        allowed = {found.number for found in store.all_matches()}
    bonus: dict[int, float] = {}
    if query.filters.takes:
        from dowsing.search.facet import takers

        bonus = takers(store, query.filters.takes)
        allowed = bonus.keys() & allowed if allowed is not None else set(bonus)
    return allowed, bonus


def _by_words(
    store: Store,
    words: list[str],
    allowed: set[int] | None,
    bonus: dict[int, float],
    notes: list[str],
    most: int,
    weights: Weights,
    texts: bool,
) -> tuple[Matches, set[int], list[tuple[float, int]]]:
    """The terms with what entries get for them, the entries that are found, and the best of them with scores."""
    terms = terms_of(store, words, weights)
    alone = len(terms) == 1 and len(terms[0].word) > 1
    if alone:
        terms = [and_beginnings(store, terms[0])]
    matches = match(store, terms, weights)
    missing: list[str] = []
    if not all(matches.gains):
        settled = settle(store, matches)
        notes += settled.notes
        terms, missing = settled.terms, settled.missing
        matches = match(store, terms, weights)
    if alone:
        gain = matches.gains[0]
        for number in store.numbers_holding(terms[0].word):
            gain.setdefault(number, INSIDE_NAME)
    hidden = store.hidden()
    if missing and texts:
        add_texts(store, matches, missing, max([*matches.telling, LEAST_TELLING]))
    for gain in matches.gains:
        for number in hidden & gain.keys():
            del gain[number]
        if allowed is not None:
            for number in gain.keys() - allowed:
                del gain[number]
    scored = score(store, matches, most, weights)
    # where none has every word, those that have what the best one has: the least telling words are left out
    numbers = having_all(matches, set()) or (
        having_all(matches, set(lacking(matches, scored[0][1]))) if scored else set()
    )
    if bonus:
        scored = sorted(((value + bonus.get(number, 0.0), number) for value, number in scored), reverse=True)
    middle = MIDDLE / UNIT * weights.standing
    part = AS_GOOD.get(sum(map(bool, matches.gains)), AS_GOOD_SENTENCE)
    best = max((value for value, number in scored if number in numbers), default=0.0)
    least = middle + part * (best - middle)
    scored = [(value, number) for value, number in scored if number in numbers or value >= least]
    numbers = numbers | {number for _, number in scored}
    if texts and len(numbers) < FEW:
        for number in in_texts(store, [term.word for term in terms]) - hidden - numbers:
            if allowed is None or number in allowed:
                numbers.add(number)
                scored.append((middle / 2, number))
    return matches, numbers, scored


def _by_standing(store: Store, allowed: set[int], bonus: dict[int, float]) -> list[tuple[float, int]]:
    """Entries without words to rank them by: how they stand, and whether they take the option by its name."""
    standing = standings(store)
    return [(standing[number] / UNIT + bonus.get(number, 0.0), number) for number in allowed]


def _ranked(
    store: Store, scored: list[tuple[float, int]], matches: Matches, twice: int, weights: Weights
) -> tuple[list[Candidate], dict[int, float], dict[int, Said]]:
    """Candidates in their final order, with their scores, and the tasks of the best ones."""
    scores = {number: value for value, number in scored}
    candidates = store.candidates(scores)
    costs = section_costs({term.term for term in matches.terms}, weights)
    for one in candidates:
        scores[one.number] -= costs.get(one.section[:1], 2.0)
        if not matches.terms:
            scores[one.number] -= len(one.name) / 8
    candidates.sort(key=lambda one: (-scores[one.number], len(one.name), one.name))
    said: dict[int, Said] = {}
    if matches.terms:
        best = candidates[:twice]
        said = said_of(store, [one.number for one in best])
        scores |= refine(scores, said, matches, weights)
        best.sort(key=lambda one: (-scores[one.number], len(one.name), one.name))
        candidates[:twice] = best
    return candidates, scores, said


def _reasons(
    store: Store, shown: list[Candidate], matches: Matches, said: dict[int, Said], patterns: list[str]
) -> dict[int, list[str]]:
    if not matches.terms:
        listed = ", ".join(patterns)
        return {one.number: [f"its name matches {listed}" if listed else "what it is narrowed to"] for one in shown}
    from dowsing.search.reasons import reasons

    return reasons(store, shown, matches, said)
