"""Entries related to one, grouped by why."""

from __future__ import annotations

import re
from itertools import takewhile

from dowsing.index.convention_rows import conventions_of
from dowsing.index.schema import UNIT
from dowsing.index.store import Store
from dowsing.index.word_reader import entries_doing, static_ranks
from dowsing.model.names import is_typed
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document
    from dowsing.model.entry import Entry

MOST_ALIKE = 500
LATER = 0.6  # of what a verb or noun counts, the next one of an entry
LEAST_SHARED = 0.5  # in common, to be called alike
OF_RANK = 0.05  # how much it counts that an entry is well known


class RelatedGroup(Record):
    """Related entries with the reason; `total` how many there are in all."""

    why: str
    total: int
    entries: list[Entry]


def related(
    store: Store, entry: Entry, document: Document | None, limit: int = 8
) -> list[RelatedGroup]:
    """Groups of related entries, the strongest reason first; no entry stands in two groups."""
    does, to = entry.verbs[:2], entry.nouns[:2]
    meant = f"{', '.join(does)} · {', '.join(to)}"
    seen = {entry.label}
    groups = []
    referred = [
        found[0]
        for reference in (document.see_also if document is not None else [])
        if (found := store.named(reference.name, reference.section))
    ]
    others = [other for other in store.named(entry.name) if other.label != entry.label]
    packed = store.of_package(entry.package) if entry.package else []
    candidates = [
        ("the same name", sorted(others, key=_usual)),
        ("its page refers to it", referred),
        (f"family {entry.family}", siblings(store, entry) if entry.family else []),
        (f"same verb and noun: {meant}", alike(store, entry) if does and to else []),
        (f"package {entry.package}", sorted(packed, key=_usual)),
        (f"same verb: {', '.join(does)}", _doing(store, "verbs", does)),
        (f"same noun: {', '.join(to)}", _doing(store, "nouns", to)),
    ]
    for why, entries in candidates:
        fresh = list({other.label: other for other in entries if other.label not in seen}.values())
        if fresh:
            seen |= {other.label for other in fresh}
            groups.append(RelatedGroup(why, len(fresh), fresh[:limit]))
    return groups


def siblings(store: Store, entry: Entry) -> list[Entry]:
    """The entries of its family: those of the same part of it first, then those that are used most,
    then short names.
    """
    family = entry.family or ""
    parts = _parts(entry.name)
    usual = {word: n for n, word in enumerate(conventions_of(store).facts(family).usual)}
    found = store.of_family(family)

    def order(other: Entry) -> tuple[int, int, int, str]:
        own = _parts(other.name)
        pairs = takewhile(lambda pair: pair[0] == pair[1], zip(parts[:-1], own, strict=False))
        shared = len(list(pairs))
        place = usual.get("-".join(own[1:]), len(usual))
        return -shared, place, len(other.name), other.name

    return sorted(found, key=order)


def _parts(name: str) -> list[str]:
    return re.split(r"[-_]", name)


def alike(store: Store, entry: Entry) -> list[Entry]:
    """The entries that do the same to the same: the more of its verbs and nouns they have, and the
    more central these are to both, the better.
    """
    verbs = _shared(store, "verbs", entry.verbs)
    nouns = _shared(store, "nouns", entry.nouns)
    ranks = static_ranks(store)
    worth = {
        number: verbs[number] + nouns[number] + OF_RANK * ranks[number] / UNIT
        for number in (verbs.keys() & nouns.keys()) - store.hidden()
        if verbs[number] + nouns[number] >= LEAST_SHARED
    }
    best = sorted(worth, key=lambda number: (-worth[number], number))
    return [one for one in store.entries(best[:MOST_ALIKE]) if one.label != entry.label]


def _shared(store: Store, kind: str, words: list[str]) -> dict[int, float]:
    """What the entries that have some of these verbs or nouns have in common with them, 1 for the
    first word of both.
    """
    found: dict[int, float] = {}
    for n, word in enumerate(words):
        for number, place in entries_doing(store, kind, [word]).items():
            found[number] = found.get(number, 0.0) + LATER**n * LATER**place
    return found


def _doing(store: Store, kind: str, words: list[str]) -> list[Entry]:
    """The entries of which one of these words is the first, the best known first."""
    places = entries_doing(store, kind, words) if words else {}
    ranks = static_ranks(store)
    hidden = store.hidden()
    best = sorted(places.keys() - hidden, key=lambda n: (places[n], -ranks[n], n))
    return store.entries(best[:MOST_ALIKE])


def _usual(entry: Entry) -> tuple[bool, int, str]:
    """Commands before functions and formats, short names first."""
    return not is_typed(entry.section), len(entry.name), entry.name
