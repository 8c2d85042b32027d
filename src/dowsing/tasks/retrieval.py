"""Recipes for a sentence: each wording of a recipe is compared with the words of the sentence, rare
words counting more.
"""

from __future__ import annotations

import json
import math

from dowsing.index.schema import Meta
from dowsing.index.word_reader import related_terms, terms_of_heads
from dowsing.knowledge.recipe_terms import packed_row, wording_terms
from dowsing.knowledge.recipes import Recipe, Slot
from dowsing.knowledge.stems import stem, words
from dowsing.model.record import Record
from dowsing.tasks.choice import UNKNOWN, Candidate, Choice, telling_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.tasks.bare_names import Ordinary
    from dowsing.tasks.part_phrases import Token
    from dowsing.tasks.sentence import ParsedSentence

#: How much of a score is how well the sentence is covered; the rest is how well the wording is.
OF_SENTENCE = 0.62
LEAST_RELATED = 0.35  # what counts less for a word than that is left out
LIGHT = 0.4  # of its weight is left of a word that could stand in any sentence
_LIGHT = frozenset(
    """
        here now there already also please just only really quickly together all each every
        anything everything something thing things lot new own many much some hi hello tell show
        see give find want know like me same other again whole right through until between
    """.split()
)
UNNAMED = 0.6  # of a wording that names its command is left for a sentence that does not
FEW_TERMS = 2  # where so few words tell anything, what the values imply is looked for as well
MOST_CHOSEN = 30  # recipes that are looked at closely
COMPARED = 150  # wordings that are looked at closely


class WordingTerm(Record):
    """A term of the sentence: its weight, and the terms of wordings that may stand for it with how
    much each counts.
    """

    stem: str
    weight: float
    variants: list[tuple[str, float]]


class RecipeMatch(Record):
    """A recipe with the wording of it that is nearest, and how much of each term that wording has.

    `also` is how much all its wordings have together, `wordings` are these; `chosen` is what the
    model says of it.
    """

    recipe: Recipe
    cover: list[float]
    also: list[float]
    wording: list[str]
    wordings: list[str] = []  # noqa: RUF012 - a record is immutable
    chosen: Candidate | None = None


class Corpus:
    """The recipes that the index keeps; one is made when it is asked for, for most are only
    compared.
    """

    def __init__(self, rows: list[str], packed: str) -> None:
        table = json.loads(packed) if packed else {}
        self.weights: dict[str, float] = table.get("weights", {})
        self.places: dict[str, list[int]] = table.get("places", {})
        self.wordings: list[str] = table["wordings"].split("\n") if table.get("wordings") else []
        self.numbers: list[int] = table.get("numbers", [])
        self.commands: list[str] = table.get("commands", [])
        self.rows = rows[: len(self.commands)]  # the model's own have no place in the table
        self.tools = frozenset(table.get("tools", []))
        self.chosen: dict[int, Candidate] = {}  # what the model says of recipes, by their number
        self.unknown = 0.5 * math.log(
            1 + max(len(self.rows), 1)
        )  # not that of the rarest: it may well be a name

    def add(self, recipes: list[Recipe]) -> None:
        """Put more recipes to those of the index, such as the user's own."""
        for one in recipes:
            wordings = [" ".join(wording_terms(text)) for text in (one.task, *one.also)]
            self.tools |= {one.command}
            self._add(packed_row(one), stem(one.command), [text for text in wordings if text])

    def add_chosen(self, candidates: list[Candidate], telling: dict[str, float]) -> None:
        """Put the recipes that were chosen to the others; `telling` are the weights of stems."""
        self.weights.update(telling)
        for one in candidates:
            self.chosen[len(self.rows)] = one
            self._add(one.row, "", one.wordings)

    def _add(self, row: str, command: str, wordings: list[str]) -> None:
        number = len(self.rows)
        self.rows.append(row)
        self.commands.append(command)
        for wording in wordings:
            for term in wording.split(" "):
                self.weights.setdefault(term, 2 * self.unknown)
                self.places.setdefault(term, []).append(len(self.wordings))
            self.wordings.append(wording)
            self.numbers.append(number)


#: Where the rows of recipes and of examples are kept.
ROWS = {Meta.RECIPES: Meta.RECIPE_ROWS, Meta.EXAMPLES: Meta.EXAMPLE_ROWS}


def rows_of(store: Store, kind: Meta) -> list[str]:
    """The packed rows of recipes or examples, without what finds them."""
    text = store.meta_value(ROWS[kind])
    return text.split("\n") if text else []


def recipe_of(row: str) -> Recipe:
    """The recipe of a packed row."""
    task, also, line, slots, command, changes, look, where, parts = json.loads(row)
    return Recipe(
        task, also, line, [Slot(*slot) for slot in slots], command, changes, look, where, parts
    )


def corpus_of(store: Store, kind: Meta = Meta.RECIPES, own: list[Recipe] | None = None) -> Corpus:
    """The recipes of the index, with the user's own ones if they are given; or the examples of
    pages.
    """
    found: Corpus | None = store.memory.get(kind)
    if found is None:
        packed = store.meta_value(kind)
        found = store.memory[kind] = Corpus(rows_of(store, kind), packed)
        found.add(own or [])
    return found


def chosen_corpus(store: Store, said: ParsedSentence, own: list[Recipe]) -> tuple[Corpus, Choice]:
    """The recipes that the words of a sentence speak for, those that the model does not know, and
    the user's own.
    """
    stems = said.stems
    known = telling_of(store, stems)
    related = related_terms(store, stems) if stems else {}
    strange = (related.get(one, []) for one in stems if one not in known)
    hints = said.hints | ({other for row in strange for other, _ in row} - set(stems))
    choice = Choice(store, [*stems, *sorted(hints - said.hints)], said.marks, hints, said.inside)
    candidates = choice.best(MOST_CHOSEN)
    packed = store.meta_value(Meta.RECIPES)
    corpus = Corpus(rows_of(store, Meta.RECIPES) if '"numbers":[]' not in packed else [], packed)
    corpus.unknown = UNKNOWN
    wanted = {stem for one in candidates for text in one.wordings for stem in text.split(" ")}
    wanted.update(stems, (other for row in related.values() for other, _ in row))
    corpus.add_chosen(candidates, telling_of(store, sorted(wanted)))
    corpus.add(own)
    return corpus, choice


def ordinary_of(store: Store, text: str, own: list[Recipe]) -> Ordinary:
    """The words of ordinary language: such a word is no name, nor is one that the user's `own`
    recipes are worded with.

    Of those of `text` it is told which the pages have.
    """
    from dowsing.tasks.bare_names import Ordinary
    from dowsing.tasks.values import MOST_WORDS

    said = {
        stem(word) for one in own for wording in [one.task, *one.also] for word in words(wording)
    }
    return Ordinary(
        frozenset(store.meta_value(Meta.ORDINARY_WORDS).split()) | said,
        frozenset(store.meta_value(Meta.NEVER_NAMES).split()),
        terms_of_heads(store, {stem(word) for word in words(text)[:MOST_WORDS]}),
    )


def terms_for(store: Store, corpus: Corpus, words: list[Token]) -> list[WordingTerm]:
    """The terms of the words of a sentence, one for each word, with what may stand for them."""
    related = related_terms(store, list({word.stem for word in words})) if words else {}
    weights = corpus.weights
    found = []
    for word in words:
        variants = {word.stem: 1.0} if word.stem in weights else {}
        for other, much in related.get(word.stem, ()):
            if much >= LEAST_RELATED and other in weights:
                variants[other] = max(variants.get(other, 0.0), much)
        own = weights.get(word.stem)
        if own is None:  # as telling as what stands for it, if anything does
            own = max(
                (weights[other] * much for other, much in variants.items()), default=corpus.unknown
            )
        own *= LIGHT if word.text in _LIGHT else 1.0
        found.append(WordingTerm(word.stem, own, list(variants.items())))
    return found


def _gains(corpus: Corpus, terms: list[WordingTerm], implied: frozenset[str]) -> dict[int, float]:
    """What each wording has of these terms, by its place."""
    gains: dict[int, float] = {}
    for term in terms:
        for place, much in _best_of(corpus, term).items():
            gains[place] = gains.get(place, 0.0) + much * term.weight
    few = len(terms) < FEW_TERMS
    for one in implied:
        for place in corpus.places.get(one, ()):
            if place in gains or few:
                gains[place] = gains.get(place, 0.0) + 0.3 * corpus.weights[one]
    if few:  # the model may go by the kinds of values alone
        chosen = (n for n, number in enumerate(corpus.numbers) if number in corpus.chosen)
        gains = {**dict.fromkeys(chosen, 0.0), **gains}
    return gains


def _best_of(corpus: Corpus, term: WordingTerm) -> dict[int, float]:
    """How much each wording has of a term, by its place."""
    best: dict[int, float] = {}
    for variant, much in term.variants:
        for place in corpus.places.get(variant, ()):
            if much > best.get(place, 0.0):
                best[place] = much
    return best


def matches(
    corpus: Corpus, terms: list[WordingTerm], implied: frozenset[str], most: int = 44
) -> list[RecipeMatch]:
    """The recipes that have most of these terms, the best first. `implied`: stems that are as good
    as said.
    """
    total = sum(term.weight for term in terms) or 1.0
    gains = _gains(corpus, terms, implied)
    near = sorted(gains, key=lambda place: -gains[place])[: COMPARED * 3]
    nearest: dict[int, tuple[float, list[float], list[str]]] = {}
    union: dict[int, list[float]] = {}
    for place in near:
        number, wording = corpus.numbers[place], corpus.wordings[place].split()
        cover, said = compare(corpus, terms, implied, wording, corpus.commands[number])
        score = (
            OF_SENTENCE * sum(c * t.weight for c, t in zip(cover, terms, strict=True)) / total
            + (1 - OF_SENTENCE) * said
        )
        if number not in nearest or score > nearest[number][0]:
            nearest[number] = (score, cover, wording)
        union[number] = [max(pair) for pair in zip(union.get(number, cover), cover, strict=True)]
    wordings: dict[int, list[str]] = {number: [] for number in nearest}
    for number, text in zip(corpus.numbers, corpus.wordings, strict=True):
        if number in wordings:
            wordings[number].append(text)
    chosen = sorted(nearest, key=lambda number: -nearest[number][0])[:most]
    return [
        RecipeMatch(
            recipe_of(corpus.rows[number]),
            nearest[number][1],
            union[number],
            nearest[number][2],
            wordings[number],
            corpus.chosen.get(number),
        )
        for number in chosen
    ]


def compare(
    corpus: Corpus,
    terms: list[WordingTerm],
    implied: frozenset[str],
    wording: list[str],
    command: str,
) -> tuple[list[float], float]:
    """How much of each term a wording has, and how much of the wording is said.

    A wording that names its command is for those who name it.
    """
    have = set(wording)
    cover: list[float] = []
    used: dict[str, float] = {}
    for term in terms:
        best, which = 0.0, ""
        for variant, much in term.variants:
            if variant in have and much > best:
                best, which = much, variant
        cover.append(best)
        if best and best > used.get(which, 0.0):
            used[which] = best
    for one in implied & have:
        used[one] = max(used.get(one, 0.0), 0.9)
    whole = sum(corpus.weights[one] for one in wording)
    said = sum(corpus.weights[one] * much for one, much in used.items()) / whole if whole else 0.0
    return cover, said * (UNNAMED if command in have and command not in used else 1.0)
