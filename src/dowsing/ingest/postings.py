"""Writes what searching needs besides names: terms, tasks, options, static ranks, and the words
that stand for others.
"""

from __future__ import annotations

import re
import zlib
from array import array
from collections import Counter
from functools import cache

from dowsing.index.rows import SearchRow
from dowsing.index.schema import HEADS, TEXT
from dowsing.index.writer import IndexWriter
from dowsing.ingest.static_rank import share, static_rank
from dowsing.ingest.terms import Postings, head_terms, label_words
from dowsing.knowledge.lexicon import lexicon
from dowsing.knowledge.stems import stem, telling_stems, words
from dowsing.model.names import is_typed
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable

    from dowsing.ingest.meanings import Meanings

_SEPARATOR = re.compile(r"[-_. ]")


class SearchedEntry(Record):
    """What is known of an entry when its postings are written. The first of `names` is its own;
    `labels` are all with sections.
    """

    number: int
    names: list[str]
    labels: list[str]
    summary: str
    family: str
    priority: str
    verbs: str
    nouns: str
    referred: int = 0
    package: str = ""


def insert_language(writer: IndexWriter) -> None:
    """The words that stand for others, which look-ups read from here."""
    known = lexicon()
    writer.insert_related(known.relations())
    writer.insert_joined(known.joins())
    for kind, groups in (("verbs", known.verbs), ("nouns", known.nouns)):
        writer.insert_meanings(
            (kind, word, stem(word), group.head) for group in groups for word in group.members
        )


def insert_postings(
    writer: IndexWriter,
    entries: Iterable[SearchedEntry],
    texts: Postings,
    meanings: Meanings,
) -> None:
    """Write the postings of entries that have none yet; `texts` has the terms of their texts,
    `meanings` what labels are for.
    """
    batch = sorted(entries, key=lambda one: one.number)
    if not batch:
        return
    sizes = writer.family_sizes()
    shares = {one.number: share(sizes.get(one.family, 1)) for one in batch}
    tasks = {
        one.number: [phrase for label in one.labels for phrase in meanings.phrases.get(label, ())]
        for one in batch
    }
    terms_in = cache(telling_stems)
    heads = Postings()
    for one in batch:
        tasks_of_one = tasks[one.number]
        heads.add(
            one.number,
            head_terms(
                one.names,
                one.summary,
                one.verbs.split(),
                one.nouns.split(),
                tasks_of_one,
                _label(one) if shares[one.number] == 1 else (),
            ),
        )
    writer.count_words((word, stem(word), count) for word, count in _spelled(batch, tasks).items())
    writer.insert_search_rows(
        SearchRow(
            one.number,
            " ".join(terms_in(one.summary)),
            tasks[one.number],
            [" ".join(terms_in(task)) for task in tasks[one.number]],
            not meanings.special.isdisjoint(one.labels),
        )
        for one in batch
    )
    _insert_doings(writer, batch)
    _insert_static_ranks(writer, batch, meanings, sizes, sum(shares.values()))
    heads.write(writer, HEADS, shares.__getitem__)
    texts.write(writer, TEXT, lambda number: shares.get(number, 1.0))


def _label(one: SearchedEntry) -> list[str]:
    section = one.labels[0].rpartition("(")[2].rstrip(")") if one.labels else ""
    return label_words(section if section[:1].isdigit() else "", one.package)


def _insert_doings(writer: IndexWriter, batch: list[SearchedEntry]) -> None:
    """Write which entries have a verb or a noun, and at which place among theirs."""
    found: dict[tuple[str, str], tuple[array[int], bytearray]] = {}
    for one in batch:
        for kind, said in (("verbs", one.verbs), ("nouns", one.nouns)):
            for place, word in enumerate(said.split()):
                numbers, places = found.setdefault((kind, word), (array("I"), bytearray()))
                numbers.append(one.number)
                places.append(place)
    writer.insert_doings(
        (kind, word, numbers.tobytes(), bytes(places))
        for (kind, word), (numbers, places) in found.items()
    )


def _spelled(batch: list[SearchedEntry], tasks: dict[int, list[str]]) -> Counter[str]:
    """How often each word occurs in names, tasks and summaries."""
    spelled: Counter[str] = Counter()
    summaries: Counter[str] = Counter()
    for one in batch:
        summaries[one.summary] += 1
        for text in (*one.names, *tasks[one.number]):
            spelled.update(words(text))
    for summary, count in summaries.items():
        for word in words(summary):
            spelled[word] += count
    return spelled


def _insert_static_ranks(
    writer: IndexWriter,
    batch: list[SearchedEntry],
    meanings: Meanings,
    sizes: dict[str, int],
    weight: float,
) -> None:
    """`meanings`: what commands are for; `sizes`: of families; `weight`: how many entries these
    count for.
    """
    first, last = batch[0].number, batch[-1].number
    ranks = bytearray(last - first + 1)
    families = array("I", bytes(4 * len(ranks)))
    for one in batch:
        place = one.number - first
        if one.family:
            families[place] = zlib.crc32(one.family.encode("utf-8", "replace"))
        depth = len(_SEPARATOR.findall(one.names[0][len(one.family) :])) if one.family else 0
        section = one.labels[0].rpartition("(")[2].rstrip(")") if "(" in one.labels[0] else ""
        recipes = len(meanings.tasks.get(one.names[0], ())) if is_typed(section) else 0
        size = sizes.get(one.family, 1)
        ranks[place] = static_rank(size, depth, one.referred, one.priority, recipes)
    writer.insert_static_ranks(first, bytes(ranks), families.tobytes(), weight)


def referrals(
    references: dict[int, list[str]], number_of: dict[str, int], family_of: dict[int, str]
) -> Counter[int]:
    """How many pages, or whole families, send to each entry; a family's own pages do not count."""
    seen: set[tuple[object, int]] = set()
    for number, labels in references.items():
        family = family_of.get(number, "")
        for label in labels:
            target = number_of.get(label)
            if (
                target is not None
                and target != number
                and (not family or family_of.get(target) != family)
            ):
                seen.add((family or number, target))
    return Counter(target for _, target in seen)
