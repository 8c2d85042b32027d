"""Success at 1 and at 5 and mean reciprocal rank on judged queries, by style, ours and plain
full-text ranking.

    python bench/finding.py FILE.tsv [FILE.tsv …] [--misses] [--without] [--folds N [--trials N]]

FILE has query TAB accepted names (best first, comma separated) TAB style. A hit is right if its
name or an alias of it, with its section, is accepted. Plain ranking is SQLite's bm25 over names and
summaries, all words or any.

--without: a line for each part of the ranking, with the figures without it. --folds N: the weights
are chosen anew on all folds but one, among `--trials` sets drawn at random around those in use, and
judged on the fold that was left out.
"""

from __future__ import annotations

import argparse
import math
import random
import sqlite3
import sys

from dowsing.index.store import Store
from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings
from dowsing.model.entry import Entry
from dowsing.search.searching import make_query, search
from dowsing.search.weights import WEIGHTS, Weights

#: Parts of the ranking, and the weights that are nought without them.
PARTS = {
    "tasks in plain words": ("in_task", "task"),
    "equal and near words": ("synonym",),
    "verbs and nouns": ("is_meaning",),
    "names": ("whole_name", "in_name", "in_alias"),
    "lead, options, headings": ("in_lead", "is_flag", "in_option", "in_heading"),
    "static rank (links, packages, families)": ("static_rank",),
    "sections": ("section", "missed"),
    "how much is there (coverage)": ("coverage",),
    "fit of the summary": ("summary",),
}


class Query:
    """A judged query."""

    def __init__(self, line: str) -> None:
        self.text, names, self.style = line.rstrip("\n").split("\t")[:3]
        self.accepted = set(names.split(","))


def labels(entry: Entry) -> set[str]:
    """All names of an entry with their sections."""
    return {entry.label, *(a if "(" in a else f"{a}({entry.section})" for a in entry.aliases)}


def rank(entries: list[Entry], accepted: set[str]) -> int:
    """The place of the first right entry, 0 if there is none among them."""
    for place, entry in enumerate(entries, 1):
        if labels(entry) & accepted:
            return place
    return 0


def ours(store: Store, query: Query, weights: Weights = WEIGHTS) -> int:
    """The place of the first right entry in our ranking."""
    return rank(
        [hit.entry for hit in search(store, make_query([query.text]), weights=weights).hits],
        query.accepted,
    )


class Plain:
    """Plain full-text ranking over names and summaries."""

    def __init__(self, store: Store) -> None:
        self.store = store
        self.db = sqlite3.connect(":memory:")
        self.db.execute(
            "CREATE VIRTUAL TABLE heads USING fts5(names, summary, tokenize='porter unicode61')"
        )
        rows = store.rows(
            "SELECT id, name||' '||replace(aliases, char(10), ' '), summary FROM entries WHERE NOT "
            "hidden"
        )
        self.db.executemany("INSERT INTO heads(rowid, names, summary) VALUES(?,?,?)", rows)

    def rank(self, query: Query) -> int:
        """The place of the first right entry."""
        words = "".join(c if c.isalnum() else " " for c in query.text).split()
        for glue in (" AND ", " OR "):
            text = glue.join(f'"{word}"' for word in words)
            sql = "SELECT rowid FROM heads WHERE heads MATCH ? ORDER BY bm25(heads) LIMIT 20"
            rows = self.db.execute(sql, (text,)).fetchall()
            if rows:
                return rank(self.store.entries([row[0] for row in rows]), query.accepted)
        return 0


def figures(ranks: list[int]) -> str:
    """Success at 1, at 5 and the mean reciprocal rank."""
    count = max(len(ranks), 1)
    first = sum(r == 1 for r in ranks) / count
    five = sum(0 < r <= 5 for r in ranks) / count
    mean = sum(1 / r for r in ranks if r) / count
    return f"{first:.3f}  {five:.3f}  {mean:.3f}"


def worth(ranks: list[int]) -> float:
    """What a set of weights is chosen by: success at 1, at 5 and half the reciprocal rank."""
    return sum((r == 1) + (0 < r <= 5) + (0.5 / r if r else 0) for r in ranks)


def changed(weights: Weights, **new: float) -> Weights:
    """The weights with some of them other."""
    return Weights(**({name: getattr(weights, name) for name in weights._fields} | new))


def by_style(queries: list[Query], store: Store, misses: bool) -> None:
    """A line for each style and all."""
    plain = Plain(store)
    mine: dict[str, list[int]] = {}
    theirs: dict[str, list[int]] = {}
    for query in queries:
        place = ours(store, query)
        for key in (query.style, "all"):
            mine.setdefault(key, []).append(place)
            theirs.setdefault(key, []).append(plain.rank(query))
        if misses and place != 1:
            found = [hit.entry.label for hit in search(store, make_query([query.text])).hits[:5]]
            print(
                f"{place:>2} {query.text} | {','.join(sorted(query.accepted))[:60]} | "
                f"{', '.join(found)}"
            )
    print(f"{'style':<10} {'queries':>7}   ours: at 1, at 5, mrr      plain: at 1, at 5, mrr")
    for key, ranks in sorted(mine.items(), key=lambda pair: pair[0] == "all"):
        print(f"{key:<10} {len(ranks):>7}   {figures(ranks)}        {figures(theirs[key])}")


def without(queries: list[Query], store: Store) -> None:
    """A line for each part of the ranking: the figures without it."""
    print(f"\n{'without':<38} at 1, at 5, mrr")
    for part, names in PARTS.items():
        weights = changed(WEIGHTS, **dict.fromkeys(names, 0.0))
        print(f"{part:<38} {figures([ours(store, query, weights) for query in queries])}")


def cross_validate(queries: list[Query], store: Store, folds: int, trials: int) -> None:
    """The figures on queries that the weights were not chosen on."""
    draw = random.Random(7)
    sets = [WEIGHTS]
    while len(sets) < trials:
        names = draw.sample(WEIGHTS._fields, 6)
        sets.append(
            changed(
                WEIGHTS,
                **{name: getattr(WEIGHTS, name) * math.exp(draw.gauss(0, 0.5)) for name in names},
            )
        )
    order = list(range(len(queries)))
    draw.shuffle(order)
    places = [[ours(store, query, weights) for query in queries] for weights in sets]
    judged: list[int] = []
    for fold in range(folds):
        left_out = set(order[fold::folds])
        best = max(
            places, key=lambda ranks: worth([r for n, r in enumerate(ranks) if n not in left_out])
        )
        judged += [best[n] for n in left_out]
    print(f"\ncross-validated, {folds} folds, {trials} sets of weights: {figures(judged)}")


def main() -> int:
    """Print what is asked for."""
    parser = argparse.ArgumentParser()
    parser.add_argument("files", nargs="+")
    parser.add_argument("--misses", action="store_true")
    parser.add_argument("--without", action="store_true")
    parser.add_argument("--folds", type=int, default=0)
    parser.add_argument("--trials", type=int, default=40)
    options = parser.parse_args()
    store = open_index(read_settings())[0]
    queries = []
    for name in options.files:
        with open(name, encoding="utf-8") as file:
            queries += [
                Query(line) for line in file if line.count("\t") >= 2 and not line.startswith("#")
            ]
    by_style(queries, store, options.misses)
    if options.without:
        without(queries, store)
    if options.folds:
        cross_validate(queries, store, options.folds, options.trials)
    return 0


if __name__ == "__main__":
    sys.exit(main())
