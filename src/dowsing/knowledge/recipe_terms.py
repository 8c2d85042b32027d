"""Recipes as the index keeps them: the terms of their wordings, and where each term stands."""

from __future__ import annotations

import json
import math
import os
import re
from collections import Counter

from dowsing.knowledge.recipes import SLOT, Recipe
from dowsing.knowledge.stems import EMPTY, stem, words

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable

#: Words that say nothing elsewhere but tell recipes apart.
TELLING = frozenset(
    "not all only just every each without over up out off again same other no new somebody who "
    "where up everything".split()
)


#: `make a folder` says what `create` does; `make` alone may be anything.
MAKING = re.compile(r"\b[Mm]ake (?:me )?(?:an?|the|several|new|two|three)\b")


def wording_terms(text: str) -> list[str]:
    """The stems of the telling words of a wording, each once."""
    found = [stem(word) for word in words(text) if word not in EMPTY or word in TELLING]
    if MAKING.search(text):
        found.insert(0, stem("create"))
    return list(dict.fromkeys(found))


def _own_words() -> tuple[str, str]:
    """Our own list: words that are never names, and nouns of the trade, which may be."""
    with open(
        os.path.join(os.path.dirname(os.path.abspath(__file__)), "ordinary.txt"), encoding="utf-8"
    ) as file:
        never, _, nouns = file.read().partition("---")
    return never, nouns


def words_of_language() -> frozenset[str]:
    """The words of our own list as they stand: what may be a word and no name."""
    return frozenset(" ".join(_own_words()).split())


def never_names() -> str:
    """The stems of words that nothing is named by, unless it is said to be its name."""
    return " ".join(sorted({stem(word) for word in words(_own_words()[0])}))


def ordinary_words(recipes: list[Recipe]) -> str:
    """The stems of ordinary language: those of all wordings, of the curated groups and phrases, and
    of a list of our own.
    """
    from dowsing.knowledge.lexicon import lexicon
    from dowsing.knowledge.page_phrases import purposes

    groups = lexicon()
    texts = [
        *_own_words(),
        *(" ".join([*one.members, *one.near]) for one in (*groups.verbs, *groups.nouns)),
    ]
    texts += [phrase for phrases in purposes().values() for phrase in phrases]
    texts += [*(text for recipe in recipes for text in [recipe.task, *recipe.also])]
    texts += [
        phrase for recipe in recipes for phrases in recipe.parts.values() for phrase in phrases
    ]
    return " ".join(sorted({stem(word) for text in texts for word in words(text)}))


def spellings_of(texts: Iterable[str]) -> str:
    """The words of texts, each with how often it stands there; one a line."""
    counts = Counter(word for text in texts for word in words(SLOT.sub(" ", text)))
    return "\n".join(f"{word} {counts[word]}" for word in sorted(counts) if word.isalpha())


def packed_row(one: Recipe) -> str:
    """One recipe, without the terms of its wordings."""
    slots = [[slot.name, slot.kind, slot.like, slot.default] for slot in one.slots]
    row = [
        one.task,
        one.also,
        one.line,
        slots,
        one.command,
        one.changes,
        one.look,
        one.where,
        one.parts,
    ]
    return json.dumps(row, ensure_ascii=False)


def packed_rows(recipes: list[Recipe]) -> str:
    """Recipes a line each: quicker to take apart than a list."""
    return "\n".join(map(packed_row, recipes))


def packed_recipes(recipes: list[Recipe], others: list[Recipe] | None = None) -> str:
    """The terms of the wordings of recipes, how telling each is, and in which wordings it stands,
    for the index. Of the `others` only the tools are told.
    """
    wordings: list[tuple[int, list[str]]] = []
    counts: dict[str, int] = {}
    for number, one in enumerate(recipes):
        own = [terms for text in [one.task, *one.also] if (terms := wording_terms(text))]
        wordings += [(number, terms) for terms in own]
        for term in {term for terms in own for term in terms}:
            counts[term] = counts.get(term, 0) + 1
    weights = {
        term: round(math.log(1 + len(recipes) / (0.5 + count)), 2) for term, count in counts.items()
    }
    places: dict[str, list[int]] = {term: [] for term in counts}
    for n, (_, terms) in enumerate(wordings):
        for term in terms:
            places[term].append(n)
    table = {
        "weights": weights, "places": places,
        "tools": sorted({one.command for one in [*recipes, *(others or ())]}),
        "commands": [stem(one.command) for one in recipes],
        "numbers": [number for number, _ in wordings],
        "wordings": "\n".join(" ".join(terms) for _, terms in wordings),
    }  # fmt: skip
    return json.dumps(table, ensure_ascii=False, separators=(",", ":"))
