"""Writes what searching needs besides names: terms, tasks, options, static ranks, and the words that stand for others."""

from __future__ import annotations

import re
import sqlite3
import zlib
from array import array
from collections import Counter
from collections.abc import Iterable
from functools import cache

from dowsing.index.schema import COMMON_TEXT, HEADS, TEXT
from dowsing.ingest.static_rank import share, static_rank
from dowsing.ingest.terms import Postings, head_terms
from dowsing.knowledge.lexicon import NEAR, lexicon
from dowsing.knowledge.phrases import purposes
from dowsing.knowledge.stems import stem, telling_stems, words
from dowsing.model.record import Record

COMMON_SPREAD = 100  # entries; a term that more have in their heads is very common
_SEPARATOR = re.compile(r"[-_. ]")


class SearchedEntry(Record):
    """What is known of an entry when its postings are written. The first of `names` is its own; `labels` are all with sections."""

    number: int
    names: list[str]
    labels: list[str]
    summary: str
    family: str
    priority: str
    verbs: str
    nouns: str
    referred: int = 0


def insert_language(db: sqlite3.Connection) -> None:
    """The words that stand for others, which look-ups read from here."""
    known = lexicon()
    db.executemany("INSERT INTO related VALUES(?,?,?)", known.relations())
    db.executemany("INSERT OR IGNORE INTO joined VALUES(?,?)", known.joins())
    for kind, groups in (("verbs", known.verbs), ("nouns", known.nouns)):
        db.executemany(
            "INSERT INTO meanings VALUES(?,?,?,?)",
            ((kind, word, stem(word), group.head) for group in groups for word in group.members),
        )


def insert_postings(db: sqlite3.Connection, entries: Iterable[SearchedEntry], texts: Postings) -> None:
    """Write the postings of entries that have none yet; `texts` has the terms of their texts."""
    batch = sorted(entries, key=lambda one: one.number)
    if not batch:
        return
    tasks = purposes()
    sizes = dict(db.execute("SELECT family, count(*) FROM entries WHERE family<>'' AND NOT hidden GROUP BY family"))
    shares = {one.number: share(sizes.get(one.family, 1)) for one in batch}
    heads = Postings()
    spelled: Counter[str] = Counter()
    summaries: Counter[str] = Counter()
    said_in = cache(telling_stems)
    rows = []
    first, last = batch[0].number, batch[-1].number
    marks = bytearray(last - first + 1)
    families = array("I", bytes(4 * len(marks)))
    for one in batch:
        phrases = [phrase for label in one.labels for phrase in tasks.get(label, ())]
        said = (" ".join(said_in(text)) for text in (one.summary, *phrases))
        rows.append((one.number, next(said), "\n".join(phrases), "\n".join(said)))
        heads.add(one.number, head_terms(one.names, one.summary, one.verbs.split(), one.nouns.split(), phrases))
        summaries[one.summary] += 1
        for text in (*one.names, *phrases):
            spelled.update(words(text))
        if one.family:
            families[one.number - first] = zlib.crc32(one.family.encode("utf-8", "replace"))
        depth = len(_SEPARATOR.findall(one.names[0][len(one.family) :])) if one.family else 0
        marks[one.number - first] = static_rank(sizes.get(one.family, 1), depth, one.referred, one.priority)
    for summary, count in summaries.items():
        for word in words(summary):
            spelled[word] += count
    db.executemany(
        "INSERT INTO words VALUES(?,?,?) ON CONFLICT(word) DO UPDATE SET count=count+excluded.count",
        ((word, stem(word), count) for word, count in spelled.items()),
    )
    db.executemany("INSERT INTO said VALUES(?,?,?,?)", rows)
    db.execute(
        "INSERT INTO static_ranks VALUES(?,?,?,?)", (first, bytes(marks), families.tobytes(), sum(shares.values()))
    )
    heads.write(db, HEADS, shares.__getitem__)
    texts.write(db, TEXT, lambda number: shares.get(number, 1.0))


def set_common_apart(db: sqlite3.Connection) -> None:
    """Set the texts of very common terms apart, and drop the words that would only be near to them."""
    common = "SELECT term FROM postings WHERE part=? GROUP BY term HAVING sum(spread)>?"
    db.execute(
        f"UPDATE postings SET part=? WHERE part=? AND term IN ({common})", (COMMON_TEXT, TEXT, HEADS, COMMON_SPREAD)
    )
    db.execute(f"DELETE FROM related WHERE weight<=? AND term IN ({common})", (NEAR, HEADS, COMMON_SPREAD))


def referrals(references: dict[int, list[str]], number_of: dict[str, int], family_of: dict[int, str]) -> Counter[int]:
    """How many pages, or whole families, send to each entry; a family's own pages do not count."""
    seen: set[tuple[object, int]] = set()
    for number, labels in references.items():
        family = family_of.get(number, "")
        for label in labels:
            target = number_of.get(label)
            if target is not None and target != number and (not family or family_of.get(target) != family):
                seen.add((family or number, target))
    return Counter(target for _, target in seen)
