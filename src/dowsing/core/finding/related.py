"""Entries related to one, grouped by why."""

from __future__ import annotations

from dowsing.core.document import Document
from dowsing.core.index.store import Entry, Store
from dowsing.core.record import Record


class Group(Record):
    """Related entries with the reason; `total` how many there are in all."""

    why: str
    total: int
    entries: list[Entry]


def related(store: Store, entry: Entry, document: Document | None, limit: int = 8) -> list[Group]:
    """Groups of related entries, the strongest reason first; no entry stands in two groups."""
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
        (f"package {entry.package}", store.of_package(entry.package) if entry.package else []),
    ]
    for why, entries in candidates:
        fresh = list({other.label: other for other in entries if other.label not in seen}.values())
        if fresh:
            seen |= {other.label for other in fresh}
            groups.append(
                Group(why, len(fresh), sorted(fresh, key=_usual)[:limit] if "page" not in why else fresh[:limit])
            )
    return groups


def _usual(entry: Entry) -> tuple[bool, int, str]:
    """Commands before functions and formats, short names first."""
    return entry.section[:1] not in ("1", "6", "8", "b", ""), len(entry.name), entry.name
