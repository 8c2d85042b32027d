"""What the index knows of words: which entries have a term, what may stand for it, how entries
stand, options and tasks.
"""

from __future__ import annotations

from dowsing.index.narrowing import listed
from dowsing.index.schema import HEADS, TEXT
from dowsing.index.store import Store
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable, Sequence

MOST_BEGINNINGS = 60  # terms that a beginning of a word is completed to


class Posting(Record):
    """The entries that have a term in one part (heads or text), the fields it stands in, and how
    common it is.
    """

    term: str
    part: int
    spread: float
    entries: Sequence[int]
    fields: bytes


def postings(store: Store, terms: Iterable[str], last_part: int = TEXT) -> list[Posting]:
    """The postings of these terms in the parts up to the last one; a term that no entry has, has
    none.
    """
    wanted = list(dict.fromkeys(terms))
    found = []
    for start in range(0, len(wanted), 500):
        part = wanted[start : start + 500]
        rows = store.rows(
            "SELECT term, part, spread, entries, fields FROM postings INDEXED BY postings_by_term "
            f"WHERE term IN ({','.join('?' * len(part))}) AND part<=?",
            [*part, last_part],
        )
        found += [
            Posting(term, part_of, spread, memoryview(entries).cast("I"), fields)
            for term, part_of, spread, entries, fields in rows
        ]
    return found


def entries_in_all(store: Store) -> float:
    """The number of entries, large families counting for a few only, as the spread of terms is
    counted.
    """
    return float(store.rows("SELECT coalesce(sum(weight), 1) FROM static_ranks")[0][0])


def known_words(store: Store, words: Iterable[str]) -> dict[str, str]:
    """Which of the words any name, summary or task has, with their terms."""
    wanted = list(words)
    marks = ",".join("?" * len(wanted))
    return dict(store.rows(f"SELECT word, term FROM words WHERE word IN ({marks})", wanted))


def terms_of_heads(store: Store, terms: Iterable[str]) -> frozenset[str]:
    """Those of the terms that a name, a summary or a task has."""
    wanted = list(terms)
    marks = ",".join("?" * len(wanted))
    rows = store.rows(
        f"SELECT DISTINCT term FROM postings INDEXED BY postings_by_term WHERE term IN ({marks}) "
        "AND part<=?",
        [*wanted, HEADS],
    )
    return frozenset(row[0] for row in rows)


def terms_anywhere(store: Store, terms: Iterable[str]) -> frozenset[str]:
    """Those of the terms that any text of a page has, or a name or summary."""
    wanted = list(terms)
    marks = ",".join("(?)" for _ in wanted)
    rows = store.rows(
        f"WITH wanted(term) AS (VALUES {marks}) SELECT term FROM wanted w WHERE EXISTS("
        "SELECT 1 FROM postings p INDEXED BY postings_by_term WHERE p.term=w.term)",
        wanted,
    )
    return frozenset(row[0] for row in rows)


def terms_beginning(store: Store, beginning: str) -> list[str]:
    """Terms that begin so, the most widespread first."""
    rows = store.rows(
        "SELECT term, sum(spread) FROM postings WHERE term>=? AND term<? GROUP BY term ORDER BY 2 "
        "DESC LIMIT ?",
        (beginning, beginning + "\U0010ffff", MOST_BEGINNINGS),
    )
    return [row[0] for row in rows]


def terms_like(store: Store, pattern: str) -> list[str]:
    """Flags that match a shell pattern."""
    return [
        row[0]
        for row in store.rows(
            "SELECT DISTINCT term FROM postings WHERE term GLOB ? AND part<>?", (pattern, HEADS)
        )
    ]


def spelled_words(store: Store) -> list[tuple[str, str, int]]:
    """Every word of names, summaries and tasks with its term and how often it occurs."""
    return store.rows("SELECT word, term, count FROM words")


def word_count(store: Store, word: str) -> int:
    """How often a word occurs in names, summaries and tasks."""
    rows = store.rows("SELECT count FROM words WHERE word=?", (word,))
    return int(rows[0][0]) if rows else 0


def heads_meant(store: Store, kind: str, word: str, term: str) -> list[str]:
    """The groups of `verbs` or `nouns` that a word, or its stem, belongs to; a shell pattern
    matches any of their words.
    """
    rows = store.rows(
        "SELECT DISTINCT head FROM meanings WHERE kind=? AND (word GLOB ? OR term=?)",
        (kind, word, term),
    )
    return [row[0] for row in rows]


def heads_near(store: Store, kind: str, term: str, least: float) -> list[str]:
    """The groups of `verbs` or `nouns` that a stem is related to by at least so much."""
    rows = store.rows(
        "SELECT DISTINCT m.head FROM related r JOIN meanings m ON m.term = r.other"
        " WHERE r.term=? AND r.weight>=? AND m.kind=?",
        (term, least, kind),
    )
    return [row[0] for row in rows]


def entries_doing(store: Store, kind: str, words: list[str]) -> dict[int, int]:
    """The entries that have one of these `verbs` or `nouns`, patterns among them, and the place it
    has among those of the entry: 0 is the first.
    """
    either = " OR ".join(["word GLOB ?" if set(word) & set("*?[") else "word=?" for word in words])
    found: dict[int, int] = {}
    for entries, places in store.rows(
        f"SELECT entries, places FROM doings WHERE kind=? AND ({either})", (kind, *words)
    ):
        for number, place in zip(memoryview(entries).cast("I"), places, strict=True):
            if place < found.get(number, 99):
                found[number] = place
    return found


def is_well_known(store: Store, words: str) -> bool:
    """Whether a command is one of those that facts of ours tell of."""
    return bool(store.rows("SELECT 1 FROM command_facts WHERE words=?", (words,)))


def defining(store: Store, name: str) -> list[tuple[int, str, str]]:
    """The entries that define a variable, or a file by the last part of its path, with how each
    writes it and what it says of it.
    """
    return store.rows(
        "SELECT d.entry, d.tag, d.says FROM defined d JOIN entries e ON e.id = d.entry"
        f" WHERE d.name=? AND {store.shown}",
        (name,),
    )


def terms_meant(store: Store, kind: str, heads: list[str]) -> list[str]:
    """The terms of all words of these groups of `verbs` or `nouns`."""
    marks = ",".join("?" * len(heads))
    rows = store.rows(
        f"SELECT DISTINCT term FROM meanings WHERE kind=? AND head IN ({marks})", (kind, *heads)
    )
    return [row[0] for row in rows]


def verb_words(store: Store) -> frozenset[str]:
    """All words that are verbs of the lexicon."""
    return frozenset(row[0] for row in store.rows("SELECT word FROM meanings WHERE kind='verbs'"))


def meaning_groups(store: Store, kind: str) -> dict[str, list[str]]:
    """The words of each group of `verbs` or `nouns` besides the one that stands for it."""
    found: dict[str, list[str]] = {}
    for word, head in store.rows(
        "SELECT word, head FROM meanings WHERE kind=? ORDER BY rowid", (kind,)
    ):
        found.setdefault(head, [])
        if word != head:
            found[head].append(word)
    return found


def related_terms(store: Store, terms: list[str]) -> dict[str, list[tuple[str, float]]]:
    """For each term those that may stand for it, with how much they count."""
    found: dict[str, list[tuple[str, float]]] = {}
    marks = ",".join("?" * len(terms))
    for term, other, weight in store.rows(
        f"SELECT term, other, weight FROM related WHERE term IN ({marks})", terms
    ):
        found.setdefault(term, []).append((other, weight))
    return found


def joined_terms(store: Store, apart: list[str]) -> dict[str, str]:
    """The one word that stands for words said apart (stems with a blank between), where there is
    one.
    """
    marks = ",".join("?" * len(apart))
    return (
        dict(store.rows(f"SELECT apart, term FROM joined WHERE apart IN ({marks})", apart))
        if apart
        else {}
    )


def static_ranks(store: Store) -> bytearray:
    """The static rank of every entry, by its number; 0 where none was worked out."""
    found: bytearray | None = store.memory.get("static_ranks")
    if found is None:
        found = store.memory["static_ranks"] = bytearray()
        for first, marks in store.rows("SELECT first, marks FROM static_ranks ORDER BY first"):
            found.extend(bytes(max(first + len(marks) - len(found), 0)))
            found[first : first + len(marks)] = (
                marks  # what is written at one time has numbers of its own
            )
        last = store.rows("SELECT coalesce(max(id), 0) FROM entries")[0][0]
        found.extend(bytes(max(last + 1 - len(found), 0)))
    return found


def count_kin(store: Store, number: int, numbers: Iterable[int]) -> int:
    """How many of these entries are of the family of one, itself included if it is among them."""
    kin = 0
    rows = store.rows("SELECT first, families FROM static_ranks ORDER BY first")
    parts = [(first, len(codes) // 4, memoryview(codes).cast("I")) for first, codes in rows]
    own = next(
        (codes[number - first] for first, size, codes in parts if first <= number < first + size), 0
    )
    wanted = list(numbers) if own else []
    for first, size, codes in parts:
        kin += sum([codes[one - first] == own for one in wanted if first <= one < first + size])
    return kin


def stems_of(store: Store, words: list[str]) -> list[str]:
    """The stems of words; those that the index has are read from there, which spares most look-ups
    the stemmer.
    """
    known = known_words(store, words)
    if len(known) < len(set(words)):
        from dowsing.knowledge.stems import stem

        return [known.get(word) or stem(word) for word in words]
    return [known[word] for word in words]


class EntryTexts(Record):
    """The terms of an entry's summary, the tasks it is for in plain words, and the terms of each;
    whether it is one that few people look for.
    """

    summary: list[str]
    tasks: list[str]
    task_terms: list[list[str]]
    special: bool = False


def texts_of(store: Store, numbers: list[int]) -> dict[int, EntryTexts]:
    """What is said of these entries in summaries and tasks."""
    rows = store.rows(
        "SELECT entry, terms, tasks, task_terms, special FROM said "
        "WHERE entry IN (SELECT value FROM json_each(?))",
        (listed(numbers),),
    )
    return {
        number: EntryTexts(
            terms.split(" "),
            tasks.split("\n") if tasks else [],
            [one.split(" ") for one in task_terms.split("\n")] if tasks else [],
            bool(special),
        )
        for number, terms, tasks, task_terms, special in rows
    }


def options_of(store: Store, numbers: list[int]) -> dict[int, list[tuple[list[str], str]]]:
    """The options of each of these entries: flags, and the beginning of what is said of them."""
    found = {}
    for start in range(0, len(numbers), 500):
        part = numbers[start : start + 500]
        marks = ",".join("?" * len(part))
        for number, lines in store.rows(
            f"SELECT entry, lines FROM options WHERE entry IN ({marks})", part
        ):
            found[number] = [_option(line) for line in lines.split("\n") if line]
    return found


def _option(line: str) -> tuple[list[str], str]:
    flags, _, says = line.partition("\t")
    return flags.split(" "), says
