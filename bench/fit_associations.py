"""Learns which words of pages the words of people stand for, and writes them to
knowledge/associations.txt.

    python bench/fit_associations.py [--left-out HALF] [--to FILE]

What is learned from: every phrase for a page, beside the page's names, summary and first paragraph;
every wording of a recipe, beside the recipe's task and the page of its command. A model of word
translation is fitted to these pairs by expectation maximisation: each word that people said is
explained by words of the other side, by itself, or by chance. A word of pages is kept for a word of
people if it explains at least LEAST recipes' or phrases' worth of it, and LEAST_SHARE of all uses;
how much it counts at look-up grows with the root of that share.

--left-out 0 or 1: leave out the commands of that half (half_of in left_out.py), to measure on them.
"""

from __future__ import annotations

import argparse
import os
import re
import sys
from collections import Counter, defaultdict
from pathlib import Path
from typing import NamedTuple

from left_out import half_of

import dowsing.knowledge
from dowsing.index.schema import HEADS, IN_LEAD, IN_NAME, IN_SUMMARY, TEXT, WHOLE_NAME
from dowsing.index.store import Store
from dowsing.ingest.upkeep import open_index
from dowsing.knowledge.page_phrases import purposes
from dowsing.knowledge.recipes import own_recipes
from dowsing.knowledge.stems import EMPTY, stem, telling_stems
from dowsing.knowledge.wordings import read_wordings
from dowsing.machine.settings import read_settings

FILE = Path(os.path.dirname(dowsing.knowledge.__file__)) / "associations.txt"
#: How much a word of the other side counts by where it stands.
OF_TASK, OF_HEAD, OF_HEAD_OF_RECIPE, OF_LEAD, OF_OTHER_PHRASE = 1.0, 1.0, 0.7, 0.25, 0.25
ROUNDS = 6
ITSELF = 0.6  # the chance at least that a word stands for itself where both sides have it
SMOOTHING = 1.0
START = 0.02
LEAST = 0.3  # of a recipe or phrase
LEAST_SHARE = 0.02
LEAST_PAGES = 3  # a word that fewer pages have in their heads is a name
MOST = 8  # words of pages for a word of people
MOST_WEIGHT = 0.6
_PLACE = re.compile(r"<[^>]*>|[\[\]]|\.\.\.")

Table = dict[str, dict[str, float]]


class Pair(NamedTuple):
    """What people said, what it may be explained by with how much each word counts there, and how
    much the pair counts.
    """

    said: list[str]
    pages: dict[str, float]
    weight: float


class Pages:
    """The words of pages: names and summaries, first paragraphs."""

    def __init__(self, store: Store) -> None:
        self.store = store
        self.heads: dict[int, set[str]] = defaultdict(set)
        self.leads: dict[int, set[str]] = defaultdict(set)
        self.count: Counter[str] = Counter()
        empty = {stem(word) for word in EMPTY}
        for term, part, entries, fields in store.rows(
            "SELECT term, part, entries, fields FROM postings WHERE part IN (?,?)", (HEADS, TEXT)
        ):
            if term in empty or not term.isalpha() or len(term) < 2:
                continue
            for number, bits in zip(memoryview(entries).cast("I"), fields, strict=True):
                if part == HEADS and bits & (WHOLE_NAME | IN_NAME | IN_SUMMARY):
                    self.heads[number].add(term)
                    self.count[term] += 1
                elif part == TEXT and bits & IN_LEAD:
                    self.leads[number].add(term)

    def number(self, name: str, sections: tuple[str, ...]) -> int | None:
        """The entry of a name in the first of these sections that has it."""
        for section in sections:
            rows = self.store.rows(
                "SELECT entry FROM names WHERE name=? AND section=?", (name, section)
            )
            if rows:
                return int(rows[0][0])
        return None

    def words(self, number: int | None, of_head: float) -> dict[str, float]:
        """The words of one page, with how much each counts."""
        if number is None:
            return {}
        found = dict.fromkeys(self.leads[number], OF_LEAD)
        return found | dict.fromkeys(self.heads[number], of_head)


def pairs_of_recipes(pages: Pages, left_out: int | None) -> list[Pair]:
    """Wordings beside the tasks of their recipes and the pages of their commands."""
    wordings = read_wordings()
    found = []
    for recipe in own_recipes():
        name = recipe.command.replace(" ", "-")
        if half_of(name) == left_out:
            continue
        beside = pages.words(pages.number(name, ("1", "8", "1ssl")), OF_HEAD_OF_RECIPE)
        beside |= dict.fromkeys(_stems(recipe.task), OF_TASK)
        said = [_stems(text) for text in (*recipe.also, *wordings.get(recipe.line, ()))]
        said = [words for words in said if words]
        found += [Pair(words, beside, 1 / len(said)) for words in said]
    return found


def pairs_of_phrases(pages: Pages, left_out: int | None) -> list[Pair]:
    """Phrases beside their pages, and beside the other phrases of the page."""
    found = []
    for label, phrases in purposes().items():
        name, _, section = label.rstrip(")").partition("(")
        number = pages.number(name, (section,))
        if number is None or half_of(name) == left_out:
            continue
        own = pages.words(number, OF_HEAD)
        for phrase in phrases:
            others = {word for other in phrases if other != phrase for word in _stems(other)}
            beside = dict.fromkeys(others, OF_OTHER_PHRASE) | own
            found.append(Pair(_stems(phrase), beside, len(phrases) ** -0.5))
    return found


def _stems(text: str) -> list[str]:
    return telling_stems(_PLACE.sub(" ", text))


class Translation:
    """A model of word translation: for each word of pages how often each word of people stands for
    it.
    """

    def __init__(self, pairs: list[Pair]) -> None:
        self.pairs = pairs
        uses: Counter[str] = Counter()
        for pair in pairs:
            for word in pair.said:
                uses[word] += pair.weight
        whole = sum(uses.values())
        self.chance = {word: count / whole for word, count in uses.items()}
        self.table: Table | None = None
        self.aligned: Table = {}
        self.uses: dict[str, float] = {}

    def fit(self) -> None:
        """Go through all pairs ROUNDS times, then once more to count."""
        for _ in range(ROUNDS):
            self._count()
            self.table = {
                other: {word: n / (sum(row.values()) + SMOOTHING) for word, n in row.items()}
                for other, row in self.aligned.items()
            }
        self._count()

    def _count(self) -> None:
        aligned: Table = defaultdict(lambda: defaultdict(float))
        used: dict[str, float] = defaultdict(float)
        for pair in self.pairs:
            size = sum(pair.pages.values())
            for word in pair.said:
                parts = self._parts(word, pair.pages)
                by_chance = self.chance[word] * size
                whole = sum(parts.values()) + by_chance
                if whole <= 0:
                    continue
                used[word] += pair.weight
                for other, part in parts.items():
                    aligned[other][word] += pair.weight * part / whole
        self.aligned, self.uses = aligned, used

    def _parts(self, word: str, pages: dict[str, float]) -> dict[str, float]:
        if self.table is None:
            return {
                other: weight * (max(START, ITSELF) if other == word else START)
                for other, weight in pages.items()
            }
        found = {}
        for other, weight in pages.items():
            chance = self.table.get(other, {}).get(word, 0.0)
            if other == word:
                chance = max(chance, ITSELF)
            if chance > 1e-6:
                found[other] = weight * chance
        return found

    def kept(self, pages: Counter[str]) -> dict[str, list[tuple[str, float]]]:
        """For each word of people the words of pages that it stands for, with how much they
        count.
        """
        found: dict[str, list[tuple[float, str]]] = defaultdict(list)
        for other, row in self.aligned.items():
            if pages[other] < LEAST_PAGES:
                continue
            for word, count in row.items():
                share = count / self.uses[word]
                if word != other and count >= LEAST and share >= LEAST_SHARE:
                    found[word].append((share, other))
        return {
            word: [
                (other, round(min(MOST_WEIGHT, share**0.5), 2))
                for share, other in sorted(rows, reverse=True)[:MOST]
            ]
            for word, rows in sorted(found.items())
        }


def main() -> int:
    """Fit, and write what is kept."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("--left-out", type=int, choices=(0, 1))
    parser.add_argument("--to", type=Path, default=FILE)
    asked = parser.parse_args()
    pages = Pages(open_index(read_settings())[0])
    pairs = pairs_of_recipes(pages, asked.left_out) + pairs_of_phrases(pages, asked.left_out)
    model = Translation(pairs)
    model.fit()
    kept = model.kept(pages.count)
    lines = [
        "# Which words of pages a word of people stands for, as stems, and how much each counts.",
        "# Written by bench/fit_associations.py from our own phrases and wordings.",
    ]
    for word, others in kept.items():
        lines.append(f"{word} > {' '.join(f'{other}:{weight}' for other, weight in others)}")
    asked.to.write_text("\n".join(lines) + "\n", encoding="utf-8")
    print(f"{len(pairs)} pairs, {len(kept)} words with {sum(map(len, kept.values()))} others")
    return 0


if __name__ == "__main__":
    sys.exit(main())
