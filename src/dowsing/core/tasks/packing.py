"""Recipes as the index keeps them."""

from __future__ import annotations

import json

from dowsing.core.language.stems import EMPTY, stem, words
from dowsing.core.tasks.recipe import Recipe

#: Words that say nothing elsewhere but tell recipes apart.
TELLING = frozenset("not all only just every each without over up out off again same other no new".split())


def packed_words(recipes: list[Recipe]) -> str:
    """The words of all wordings, for the index."""
    return " ".join(sorted({w for recipe in recipes for text in [recipe.task, *recipe.also] for w in words(text)}))


def packed_recipes(recipes: list[Recipe]) -> str:
    """Recipes with the terms of their wordings, for the index."""

    def terms(text: str) -> list[str]:
        return list(dict.fromkeys(stem(word) for word in words(text) if word not in EMPTY or word in TELLING))

    rows: list[list[object]] = []
    for one in recipes:
        slots = [[slot.name, slot.kind, slot.like, slot.default] for slot in one.slots]
        wordings = [terms(text) for text in [one.task, *one.also]]
        rows.append([one.task, one.also, one.line, slots, one.command, one.changes, one.look, one.where, wordings])
    return json.dumps(rows, ensure_ascii=False)
