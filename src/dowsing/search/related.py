"""Entries related to one, grouped by why."""

from __future__ import annotations

from dowsing.index.store import Store, narrowing
from dowsing.index.word_reader import static_ranks
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document
    from dowsing.model.entry import Entry

MOST_ALIKE = 500


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
    candidates = [
        ("the same name", others),
        ("its page refers to it", referred),
        (f"family {entry.family}", store.of_family(entry.family) if entry.family else []),
        (f"same verb and noun: {meant}", _meaning(store, does, to) if does and to else []),
        (f"same verb: {', '.join(does)}", _meaning(store, does, []) if does else []),
        (f"package {entry.package}", store.of_package(entry.package) if entry.package else []),
        (f"same noun: {', '.join(to)}", _meaning(store, [], to) if to else []),
    ]
    for why, entries in candidates:
        fresh = list({other.label: other for other in entries if other.label not in seen}.values())
        if fresh:
            seen |= {other.label for other in fresh}
            in_order = "page" in why or why.startswith("same verb") or why.startswith("same noun")
            groups.append(
                RelatedGroup(
                    why, len(fresh), (fresh if in_order else sorted(fresh, key=_usual))[:limit]
                )
            )
    return groups


def _usual(entry: Entry) -> tuple[bool, int, str]:
    """Commands before functions and formats, short names first."""
    return entry.section[:1] not in ("1", "6", "8", "b", ""), len(entry.name), entry.name


def _meaning(store: Store, verbs: list[str], nouns: list[str]) -> list[Entry]:
    """The entries that do this to that, those that stand best first."""
    static_rank = static_ranks(store)
    numbers = [match.number for match in store.all_matches(narrowing(verbs=verbs, nouns=nouns))]
    numbers.sort(key=lambda number: (-static_rank[number], number))
    return store.entries(numbers[:MOST_ALIKE])
