"""Search: words narrow, patterns match names; names count before summaries before text."""

from __future__ import annotations

from dowsing.core.finding.filters import Filters
from dowsing.core.index.store import Entry, Match, Store
from dowsing.core.record import Record

MOST_WORDS = 24
MOST_PATTERN = 200
FAMILY_SHARE = 5  # a family with more hits than one in so many lines of the list is folded

#: Words that say nothing of what is looked for.
_EMPTY = frozenset(
    """
        a an the of to in on for with and or my me i do does is are how what which that it its from by at please
        can want show-me
    """.split()
)

#: How much worse an entry of a section is than one of section 1, in units of the full-text score.
_SECTION_COST = {"1": 0.0, "8": 0.4, "6": 0.6, "5": 2.0, "7": 2.0, "2": 3.0, "3": 3.5, "4": 3.0, "9": 4.0}


_DEPTH_COST = 0.8


class Query(Record):
    """What is searched for: plain words, patterns on names, and how much is wanted."""

    words: list[str]
    patterns: list[str]
    limit: int = 20
    filters: Filters = Filters()


class Hit(Record):
    """An entry found, its score (larger is better), why it was found, and how many of its family it stands for."""

    entry: Entry
    score: float
    why: list[str]
    folded: int = 0


class Answer(Record):
    """The hits, the number of matching entries, and what was loosened to find them (None if nothing)."""

    query: Query
    total: int
    relaxed: str | None
    hits: list[Hit]


def make_query(words: list[str], limit: int = 20, filters: Filters | None = None) -> Query:
    """A query from the words of a command line; a word with `*`, `?` or `[…]` is a pattern."""
    plain_words: list[str] = []
    patterns: list[str] = []
    for word in " ".join(words).split():
        question = word.endswith("?") and "*" not in word and "[" not in word and len(word.rstrip("?")) > 3
        if not question and any(sign in word for sign in "*?["):
            patterns.append(word)
        else:
            plain_words += _tokens(word.casefold())
    telling = [word for word in dict.fromkeys(plain_words) if word not in _EMPTY]
    return Query(telling or list(dict.fromkeys(plain_words)), patterns, limit, filters or Filters())


def _tokens(word: str) -> list[str]:
    """The runs of letters and digits."""
    return "".join(char if char.isalnum() or char == "_" else " " for char in word).split()


def search(store: Store, query: Query) -> Answer:
    """The entries that match the query, best first. Loosens where nothing has every word, and says so."""
    relaxed = None
    words, patterns = query.words, query.patterns
    narrowed = query.filters
    store.narrow(narrowed.package, narrowed.family, narrowed.kind, narrowed.section)
    notes = []
    if len(words) > MOST_WORDS:
        words = words[:MOST_WORDS]
        notes.append(f"only the first {MOST_WORDS} words were used")
    if any(len(pattern) > MOST_PATTERN for pattern in patterns):
        patterns = [pattern[:MOST_PATTERN] for pattern in patterns]
        notes.append(f"patterns were cut to {MOST_PATTERN} characters")
    scores = _matches(store, words, patterns)
    if not scores and patterns and not words:
        widened = [f"*{pattern.strip('*')}*" for pattern in patterns]
        scores = _matches(store, [], widened)
        if scores:
            notes.append("no name matches that whole; these have it inside")
    if not scores and words:
        words, dropped = _loosened(store, words)
        scores = _matches(store, words, patterns) if words else {}
        if scores:
            listed = ", ".join(f"“{word}”" for word in dropped)
            notes.append(f"nothing has every word; left out: {listed}")
    if notes and scores:
        relaxed = "; ".join(notes)
    ranked = sorted(scores.values(), key=lambda pair: (-pair[1], len(pair[0].name), pair[0].name))
    return Answer(query, len(ranked), relaxed, _folded(store, ranked, query, words))


def _matches(store: Store, words: list[str], patterns: list[str]) -> dict[int, tuple[Match, float, str]]:
    """Matching entries with their scores and the reason."""
    found: dict[int, tuple[Match, float, str]] = {}
    allowed: set[int] | None = None
    if not words and not patterns:
        reason = "what it is narrowed to"
        return {m.number: (m, 20.0 - _cost(m) - len(m.name) / 20, reason) for m in store.all_matches()}
    for pattern in patterns:
        matches = store.matching_names(pattern)
        numbers = {match.number for match in matches}
        allowed = numbers if allowed is None else allowed & numbers
        for match in matches:
            score = 30.0 - len(match.name) / 4 - _cost(match) - match.score
            found[match.number] = (match, score, f"name matches {pattern}")
    if words:
        inside: dict[int, tuple[Match, float, str]] = {}
        for match in store.in_heads(words):
            score = 20.0 - match.score - _cost(match) + _name_bonus(match, words)
            inside[match.number] = (match, score, "name or summary")
        if len(words) == 1 and len(words[0]) > 1:
            for match in store.names_holding(words[0]):
                if match.number not in inside:
                    inside[match.number] = (match, 12.0 - len(match.name) / 8 - _cost(match), "part of a name")
        if len(inside) < 8 or allowed is not None:
            heads = [store.numbers_in_heads(word) for word in words] if len(words) > 1 else []
            for match in store.in_bodies(words):
                if match.number not in inside:
                    share = sum(match.number in numbers for numbers in heads) / len(words)
                    score = min(-match.score, 6.0) + 8.0 * share - _cost(match)
                    inside[match.number] = (match, score, "text, and some words in the summary" if share else "text")
        if allowed is None:
            return inside
        found = {number: inside[number] for number in inside if number in allowed}
    elif allowed is not None:
        found = {number: match for number, match in found.items() if number in allowed}
    return found


def _cost(match: Match) -> float:
    """What an entry loses for its section, and for being far down in a family: the deeper, the more special."""
    depth = match.name.count("-") + match.name.count("_") if match.family else 0
    return _SECTION_COST.get(match.section[:1], 2.0) + min(depth, 5) * _DEPTH_COST


def _name_bonus(match: Match, words: list[str]) -> float:
    name = match.name.casefold()
    if name in words:
        return 10.0 if len(words) == 1 else 4.0
    if len(words) == 1 and name.startswith(words[0]):
        return 3.0
    return -min(len(name), 40) / 20


def _loosened(store: Store, words: list[str]) -> tuple[list[str], list[str]]:
    """The words without those that occur nowhere, then without the least telling ones."""
    counts = {word: store.count("bodies", [word]) + store.count("heads", [word]) for word in words}
    dropped = [word for word in words if not counts[word]]
    left = [word for word in words if counts[word]]
    while len(left) > 1 and not store.count("heads", left) and not store.count("bodies", left):
        common = max(left, key=lambda word: counts[word])
        left.remove(common)
        dropped.append(common)
    return left, dropped


def _folded(store: Store, ranked: list[tuple[Match, float, str]], query: Query, words: list[str]) -> list[Hit]:
    """The best hits, each family that would flood the list folded into its best entry."""
    sizes: dict[str, int] = {}
    for match, _, _ in ranked:
        if match.family:
            sizes[match.family] = sizes.get(match.family, 0) + 1
    named = set(query.words)
    folded_into: dict[str, int] = {}
    chosen: list[tuple[Match, float, str]] = []
    for item in ranked:
        family = item[0].family
        if (
            family
            and not query.filters.family
            and sizes[family] > max(query.limit // FAMILY_SHARE, 1)
            and family.casefold() not in named
        ):
            if family in folded_into:
                continue
            folded_into[family] = sizes[family] - 1
        chosen.append(item)
        if len(chosen) >= query.limit:
            break
    entries = store.entries([match.number for match, _, _ in chosen])
    return [
        Hit(entry, round(score, 3), [why], folded_into.get(match.family or "", 0))
        for entry, (match, score, why) in zip(entries, chosen, strict=True)
    ]
