"""Success at 1 and at 5 and mean reciprocal rank on judged queries, by style, ours and plain full-text ranking.

    python bench/finding.py FILE.tsv [--misses]

FILE has query TAB accepted names (best first, comma separated) TAB style. A hit is right if its name or an alias of it,
with its section, is accepted. Plain ranking is SQLite's bm25 over names and summaries, all words or any.
"""

from __future__ import annotations

import sys

from dowsing.core.finding.search import make_query, search
from dowsing.core.index.refresh import open_index
from dowsing.core.index.store import Entry, Store
from dowsing.core.settings import read_settings


def labels(entry: Entry) -> set[str]:
    """All names of an entry with their sections."""
    return {entry.label, *(a if "(" in a else f"{a}({entry.section})" for a in entry.aliases)}


def rank(entries: list[Entry], accepted: set[str]) -> int:
    """The place of the first right entry, 0 if there is none among them."""
    for place, entry in enumerate(entries, 1):
        if labels(entry) & accepted:
            return place
    return 0


def plain(store: Store, query: str) -> list[Entry]:
    """What plain full-text ranking gives."""
    words = "".join(c if c.isalnum() else " " for c in query).split()
    for glue in (" AND ", " OR "):
        text = glue.join(f'"{word}"' for word in words)
        rows = store._rows(
            "SELECT h.rowid FROM heads h JOIN entries e ON e.id=h.rowid WHERE heads MATCH ? AND NOT e.hidden "
            "ORDER BY bm25(heads) LIMIT 20",
            (text,),
        )
        if rows:
            return store.entries([row[0] for row in rows])
    return []


def figures(ranks: list[int]) -> str:
    """Success at 1, at 5 and the mean reciprocal rank."""
    count = max(len(ranks), 1)
    first = sum(r == 1 for r in ranks) / count
    five = sum(0 < r <= 5 for r in ranks) / count
    mean = sum(1 / r for r in ranks if r) / count
    return f"{first:.3f}  {five:.3f}  {mean:.3f}"


def main() -> int:
    """Print a line for each style and all."""
    store = open_index(read_settings())[0]
    ours: dict[str, list[int]] = {}
    theirs: dict[str, list[int]] = {}
    with open(sys.argv[1], encoding="utf-8") as file:
        lines = [line.rstrip("\n").split("\t") for line in file if line.count("\t") >= 2 and not line.startswith("#")]
    for query, names, style, *_ in lines:
        accepted = set(names.split(","))
        found = [hit.entry for hit in search(store, make_query([query])).hits]
        place = rank(found, accepted)
        for key in (style, "all"):
            ours.setdefault(key, []).append(place)
            theirs.setdefault(key, []).append(rank(plain(store, query), accepted))
        if "--misses" in sys.argv and place != 1:
            print(f"{place:>2} {query} | {names[:60]} | {', '.join(e.label for e in found[:5])}")
    print(f"{'style':<10} {'queries':>7}   ours: at 1, at 5, mrr      plain: at 1, at 5, mrr")
    for key, ranks in sorted(ours.items(), key=lambda pair: pair[0] == "all"):
        print(f"{key:<10} {len(ranks):>7}   {figures(ranks)}        {figures(theirs[key])}")
    return 0


if __name__ == "__main__":
    sys.exit(main())
