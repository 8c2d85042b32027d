"""Recipes for a sentence: each wording of a recipe is compared with the words of the sentence, rare words counting more."""

from __future__ import annotations

import math

from dowsing.core.finding.matching import Term, terms_of
from dowsing.core.index.store import Store
from dowsing.core.language.stems import EMPTY
from dowsing.core.record import Record
from dowsing.core.tasks.packing import TELLING
from dowsing.core.tasks.recipe import Recipe, Slot

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

#: How much of a score is how well the sentence is covered; the rest is how well the wording is.
OF_SENTENCE = 0.62


class Match(Record):
    """A recipe with how well it answers, from 0 to about 1."""

    recipe: Recipe
    score: float


class Kept:
    """A recipe as the index keeps it; it is made when it is asked for, for most are only compared."""

    __slots__ = ("row",)

    def __init__(self, row: list[Any]) -> None:
        self.row = row

    @property
    def recipe(self) -> Recipe:
        """The recipe itself."""
        task, also, line, slots, command, changes, look, where = self.row[:8]
        return Recipe(task, also, line, [Slot(*slot) for slot in slots], command, changes, look, where)

    @property
    def wordings(self) -> list[list[str]]:
        """The terms of its task and of each other wording."""
        wordings: list[list[str]] = self.row[8]
        return wordings


def recipes_of(store: Store) -> list[Kept]:
    """The recipes that the index keeps."""
    found: list[Kept] | None = store.memory.get("recipes")
    if found is None:
        import json

        found = store.memory["recipes"] = [Kept(row) for row in json.loads(store.meta_value("recipes") or "[]")]
    return found


def recipe_words(store: Store) -> frozenset[str]:
    """The words that recipes are worded with, in lower case: such a word is no name."""
    found: frozenset[str] | None = store.memory.get("recipe words")
    if found is None:
        found = store.memory["recipe words"] = frozenset(store.meta_value("recipe words").split())
    return found


def matches(store: Store, words: list[str], most: int = 40) -> list[Match]:
    """The recipes that have most of these words, the best first."""
    recipes = recipes_of(store)
    weights = _rarity(recipes)
    terms = terms_of(store, words) + [Term(w, w, [(w, 1.0)]) for w in words if w in TELLING]
    terms = [term for term in terms if term.word not in EMPTY or term.word in TELLING]
    total = sum(weights.get(term.term, _unknown(recipes)) for term in terms)
    if not total:
        return []
    found: list[tuple[float, Kept]] = []
    for kept in recipes:
        best = 0.0
        union: dict[str, float] = {}
        for wording in kept.wordings:
            have = set(wording)
            got = used = 0.0
            covered: set[str] = set()
            for term in terms:
                weight = weights.get(term.term, _unknown(recipes))
                variant, value = max(
                    ((one, much) for one, much in term.variants if one in have),
                    key=lambda pair: pair[1],
                    default=("", 0.0),
                )
                if value:
                    got += weight * value
                    union[term.term] = max(union.get(term.term, 0.0), weight * value)
                    if variant not in covered:
                        covered.add(variant)
                        used += weights[variant] * value
            if got:
                whole = sum(weights[term] for term in wording)
                best = max(best, OF_SENTENCE * got / total + (1 - OF_SENTENCE) * used / whole)
        if best:
            found.append((0.85 * best + 0.15 * sum(union.values()) / total, kept))
    found.sort(key=lambda pair: -pair[0])
    return [Match(kept.recipe, score) for score, kept in found[:most]]


def _rarity(recipes: list[Kept]) -> dict[str, float]:
    """How telling each term is: the rarer among recipes, the more."""
    counts: dict[str, int] = {}
    for kept in recipes:
        for term in {term for wording in kept.wordings for term in wording}:
            counts[term] = counts.get(term, 0) + 1
    return {term: math.log(1 + len(recipes) / (0.5 + count)) for term, count in counts.items()}


def _unknown(recipes: list[Kept]) -> float:
    """The weight of a word that no recipe has: not that of the rarest, for it may well be a name."""
    return 0.5 * math.log(1 + len(recipes))
