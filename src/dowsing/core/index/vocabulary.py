"""What the index knows of words: which entries have a term, what may stand for it, how entries stand, options and tasks."""

from __future__ import annotations

from collections.abc import Iterable

from dowsing.core.index.fields import COMMON_TEXT
from dowsing.core.index.store import Store
from dowsing.core.record import Record

MOST_BEGINNINGS = 60  # terms that a beginning of a word is completed to


class Posting(Record):
    """The entries that have a term in one part (heads or text), the fields it stands in, and how common it is."""

    term: str
    part: int
    spread: float
    entries: list[int]
    fields: bytes


def postings(store: Store, terms: Iterable[str], common: bool = False) -> list[Posting]:
    """The postings of these terms; a term that no entry has, has none.

    `common`: also those in the texts of very common terms.
    """
    wanted = list(dict.fromkeys(terms))
    found = []
    for start in range(0, len(wanted), 500):
        part = wanted[start : start + 500]
        rows = store.rows(
            "SELECT term, part, spread, entries, fields FROM postings INDEXED BY postings_by_term "
            f"WHERE term IN ({','.join('?' * len(part))}) AND part<?",
            [*part, COMMON_TEXT + common],
        )
        found += [Posting(row[0], row[1], row[2], memoryview(row[3]).cast("I"), row[4]) for row in rows]  # type: ignore[arg-type]
    return found


def entries_in_all(store: Store) -> float:
    """The number of entries, large families counting for a few only, as the spread of terms is counted."""
    return float(store.rows("SELECT coalesce(sum(weight), 1) FROM standing")[0][0])


def known_words(store: Store, words: Iterable[str]) -> dict[str, str]:
    """Which of the words any name, summary or task has, with their terms."""
    wanted = list(words)
    marks = ",".join("?" * len(wanted))
    return dict(store.rows(f"SELECT word, term FROM words WHERE word IN ({marks})", wanted))


def known_terms(store: Store, terms: Iterable[str]) -> set[str]:
    """Which of the terms any entry has."""
    wanted = list(dict.fromkeys(terms))
    marks = ",".join("?" * len(wanted))
    return {row[0] for row in store.rows(f"SELECT DISTINCT term FROM postings WHERE term IN ({marks})", wanted)}


def terms_beginning(store: Store, beginning: str, part: int | None = None) -> list[str]:
    """Terms that begin so, the most widespread first."""
    condition = "" if part is None else f" AND part={part:d}"
    rows = store.rows(
        f"SELECT term, sum(spread) FROM postings WHERE term>=? AND term<?{condition} GROUP BY term ORDER BY 2 DESC LIMIT ?",
        (beginning, beginning + "\U0010ffff", MOST_BEGINNINGS),
    )
    return [row[0] for row in rows]


def terms_like(store: Store, pattern: str) -> list[str]:
    """Flags that match a shell pattern."""
    return [
        row[0] for row in store.rows("SELECT DISTINCT term FROM postings WHERE term GLOB ? AND part=1", (pattern,))
    ]


def spelled_words(store: Store) -> list[tuple[str, str, int]]:
    """Every word of names, summaries and tasks with its term and how often it occurs."""
    return store.rows("SELECT word, term, count FROM words")


def word_count(store: Store, word: str) -> int:
    """How often a word occurs in names, summaries and tasks."""
    rows = store.rows("SELECT count FROM words WHERE word=?", (word,))
    return int(rows[0][0]) if rows else 0


def heads_meant(store: Store, kind: str, word: str, term: str) -> list[str]:
    """The groups of `verbs` or `nouns` that a word, or its stem, belongs to; a shell pattern matches any of their words."""
    rows = store.rows(
        "SELECT DISTINCT head FROM meanings WHERE kind=? AND (word GLOB ? OR term=?)", (kind, word, term)
    )
    return [row[0] for row in rows]


def meaning_groups(store: Store, kind: str) -> dict[str, list[str]]:
    """The words of each group of `verbs` or `nouns` besides the one that stands for it."""
    found: dict[str, list[str]] = {}
    for word, head in store.rows("SELECT word, head FROM meanings WHERE kind=? ORDER BY rowid", (kind,)):
        found.setdefault(head, [])
        if word != head:
            found[head].append(word)
    return found


def related_terms(store: Store, terms: list[str]) -> dict[str, list[tuple[str, float]]]:
    """For each term those that may stand for it, with how much they count."""
    found: dict[str, list[tuple[str, float]]] = {}
    marks = ",".join("?" * len(terms))
    for term, other, weight in store.rows(f"SELECT term, other, weight FROM related WHERE term IN ({marks})", terms):
        found.setdefault(term, []).append((other, weight))
    return found


def joined_terms(store: Store, apart: list[str]) -> dict[str, str]:
    """The one word that stands for words said apart (stems with a blank between), where there is one."""
    marks = ",".join("?" * len(apart))
    return dict(store.rows(f"SELECT apart, term FROM joined WHERE apart IN ({marks})", apart)) if apart else {}


def standings(store: Store) -> bytearray:
    """The standing of every entry, by its number."""
    found: bytearray | None = store.memory.get("standings")
    if found is None:
        found = store.memory["standings"] = bytearray()
        for first, marks in store.rows("SELECT first, marks FROM standing ORDER BY first"):
            found.extend(bytes(max(first + len(marks) - len(found), 0)))
            found[first : first + len(marks)] = marks  # what is written at one time has numbers of its own
    return found


class Task(Record):
    """What an entry is for, in plain words, and the terms of that."""

    task: str
    terms: list[str]


def count_kin(store: Store, number: int, numbers: Iterable[int]) -> int:
    """How many of these entries are of the family of one, itself included if it is among them."""
    families: list[int] = []
    for first, codes in store.rows("SELECT first, families FROM standing ORDER BY first"):
        families.extend([0] * (first - len(families)))
        families[first:] = memoryview(codes).cast("I")
    size = len(families)
    own = families[number] if number < size else 0
    return sum(1 for one in numbers if one < size and families[one] == own) if own else 0


def stems_of(store: Store, words: list[str]) -> list[str]:
    """The stems of words; those that the index has are read from there, which spares most look-ups the stemmer."""
    known = known_words(store, words)
    if len(known) < len(set(words)):
        from dowsing.core.language.stems import stem

        return [known.get(word) or stem(word) for word in words]
    return [known[word] for word in words]


def summary_terms(store: Store, numbers: list[int]) -> dict[int, list[str]]:
    """The telling stems of the summaries of these entries."""
    marks = ",".join("?" * len(numbers))
    rows = store.rows(f"SELECT entry, terms FROM said WHERE entry IN ({marks})", numbers)
    return {number: terms.split(" ") for number, terms in rows}


def tasks_of(store: Store, numbers: list[int]) -> dict[int, list[Task]]:
    """The tasks of each of these entries."""
    found: dict[int, list[Task]] = {}
    marks = ",".join("?" * len(numbers))
    for number, task, terms in store.rows(f"SELECT entry, task, terms FROM tasks WHERE entry IN ({marks})", numbers):
        found.setdefault(number, []).append(Task(task, terms.split(" ")))
    return found


def options_of(store: Store, numbers: list[int]) -> dict[int, list[tuple[list[str], str]]]:
    """The options of each of these entries: flags, and the beginning of what is said of them."""
    found = {}
    for start in range(0, len(numbers), 500):
        part = numbers[start : start + 500]
        marks = ",".join("?" * len(part))
        for number, lines in store.rows(f"SELECT entry, lines FROM options WHERE entry IN ({marks})", part):
            found[number] = [_option(line) for line in lines.split("\n") if line]
    return found


def _option(line: str) -> tuple[list[str], str]:
    flags, _, says = line.partition("\t")
    return flags.split(" "), says
