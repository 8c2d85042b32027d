"""Which recipe answers a sentence best: what its words say for it, the values that it takes, and
what it would do.
"""

from __future__ import annotations

import re

from dowsing.knowledge.stems import EMPTY, stem, words
from dowsing.model.record import Record
from dowsing.tasks.adding import Adding
from dowsing.tasks.additions import Additions
from dowsing.tasks.choice import domains_of
from dowsing.tasks.cues import Cues
from dowsing.tasks.evidence import Evidence, read_weights
from dowsing.tasks.filling import FilledRecipe, SlotCues
from dowsing.tasks.negation import NEGATIONS, contradictions, denied_in
from dowsing.tasks.patterns import Pattern
from dowsing.tasks.recipe_cues import RecipeCues
from dowsing.tasks.recipe_in_sentence import RecipeInSentence, missed
from dowsing.tasks.retrieval import (
    LEAST_RELATED,
    Corpus,
    RecipeMatch,
    WordingTerm,
    compare,
    matches,
    terms_for,
)
from dowsing.tasks.sentence import NO_TOOL

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Protocol

    from dowsing.commandline.reading.command_finder import CommandFinder
    from dowsing.tasks.sentence import ParsedSentence
    from dowsing.tasks.values import Value
else:
    Protocol = object

EMPTY_STEMS = frozenset(stem(word) for word in EMPTY)
OWN = "dowsing"  # our own commands look documentation up, and do nothing else
OF_DOCUMENTS = frozenset(
    "manual manuals page pages man help docs documentation command commands option options tool "
    "tools program programs flag flags mean means meaning explain example examples usage task "
    "tasks line lines snippet snippets saved history dowsing topic term".split()
)
MOST_RATED = 44  # recipes
TELLING = 2.0  # what a word must tell for it to be missed
NEAR_TOP = 16  # recipes of which it is worth finding out whether their command is here
#: What a recipe that the model does not know is behind its best one, if the sentence has nothing of
#: its nearest wording.
UNFITTED = 12.0
#: Kinds of slots that any word may stand in.
_ANY_WORD = frozenset(("text", "word", "command", "pattern", "user", "group"))
#: Words that join what is said, and say nothing that could be left out.
_JOINING = frozenset("but though also just only now quickly really kindly here then".split())
MOST_FIT, LEAST_FIT = 4.0, -3.0
_FETCHES = Pattern(r"<host>:<(?:file|folder|path)>|<remote> ", exact=True)
_SENDS = Pattern(r"<host>:(?!<(?:file|folder|path)>)|<remote>$", exact=True)
#: Which way it goes, up to three words before a machine.
_WAY = re.compile(r"\b(to|onto|from)(?:\s+\w+){0,3}\s*\Z", re.IGNORECASE)


class Asking(Protocol):
    """What kind of doing a sentence asks for, each as a probability."""

    @property
    def asks_change(self) -> float: ...


class Ranked(Record):
    """A recipe with values for a sentence, its score, what that is made of, how much of the
    sentence its wordings have, guessed values left out (`known`), and how many of its words no
    wording has (`strange`). `speaks`: what the words say for it by the model (log odds), None if
    that does not know it; `left`: the words of the sentence that neither its wordings nor its line
    have; `missed`: the values for which it has no slot; `lost`: the conditions on files that it
    leaves out, as they are said; `telling`: how many words of the sentence tell something, and in
    how many `clauses`.
    """

    score: float
    filled: FilledRecipe
    evidence: Evidence
    known: float = 0.0
    strange: float = 0.0
    speaks: float | None = 0.0
    left: list[str] = []  # noqa: RUF012 - a record is immutable
    missed: list[Value] = []  # noqa: RUF012
    lost: list[str] = []  # noqa: RUF012
    telling: int = 0
    clauses: int = 0


def ranked(
    said: ParsedSentence, corpus: Corpus, finder: CommandFinder, choice: Asking | None = None
) -> list[Ranked]:
    """The recipes for what is said, filled with its values, the best first. `choice` tells what
    kind of doing is asked for.
    """
    weights = read_weights()
    rater = Rater(said, corpus, finder, choice)
    found = [one for match in rater.matches() if (one := rater.rate(match, weights)) is not None]
    found.sort(key=lambda one: -one.score)
    front = [rater.with_absence(one, weights) for one in found[:NEAR_TOP]]
    return sorted([*front, *found[NEAR_TOP:]], key=lambda one: -one.score)


class Rater:
    """Rates recipes for one sentence."""

    def __init__(
        self,
        said: ParsedSentence,
        corpus: Corpus,
        finder: CommandFinder,
        choice: Asking | None = None,
    ) -> None:
        refused = [tool for tool in said.without_tools if tool in corpus.tools]
        self.said = said.changed(
            values=[one for one in said.values if not _refuses(one, refused)],
            conditions=[
                one
                for one in said.conditions
                if not one.end or said.text[one.start : one.end].lower() not in refused
            ],
        )
        self.corpus, self.finder = corpus, finder
        ruled_out = NO_TOOL.finditer(said.text) if refused else ()
        self.ruled_out = [one.span() for one in ruled_out if one[1].lower() in refused]
        self.asks_change = choice.asks_change if choice is not None else 0.5
        self.terms: list[WordingTerm] = terms_for(finder.store, corpus, said.words)
        self.cues = Cues(finder.store, said.text, said.values)
        self.adding = Adding(Additions(finder.store, said))
        self.domains: dict[str, frozenset[str]] = {}
        self.bare = self.cues.bare(said.ordinary)
        words = {value.text for value, _ in self.bare} | {value.text for value in said.values}
        here = [word for word in sorted(words) if word in corpus.tools or finder.is_here(word)]
        self.programs = frozenset(here)
        self.best = max((one.score for one in corpus.chosen.values()), default=0.0)
        self.best_beside = max((one.beside for one in corpus.chosen.values()), default=0.0)

    def matches(self) -> list[RecipeMatch]:
        """The recipes that come into question, with what is to be known of them at hand."""
        found = matches(self.corpus, self.terms, self.said.implied, MOST_RATED)
        recipes = [match.recipe for match in found]
        self.domains = domains_of(self.finder.store, {one.command for one in recipes})
        self.adding.learn(recipes)
        self.cues.learn([slot.name for one in recipes for slot in one.slots])
        return found

    def rate(self, match: RecipeMatch, weights: Evidence) -> Ranked | None:
        """A recipe filled and rated; None if it is for conditions and none are said, or does what
        was said not to be done.
        """
        recipe = match.recipe
        if recipe.command == OWN and not any(one.text in OF_DOCUMENTS for one in self.said.tokens):
            return None
        wanted = self._has_tool(recipe.line, self.said.with_tools)
        filled = RecipeInSentence(recipe, self.said, wanted, self.cues_for(match))
        self._add(match, filled)
        if (filled.filters and not self.said.conditions) or self._contradicts(match, filled):
            return None
        filled.spans += self.ruled_out
        covered, union = self._coverage(match, filled)
        said = self._wording_said(match, filled)
        lost = self._lost(match, filled)
        evidence = self._of_values(filled).changed(
            chosen=self._chosen(match, said, filled),
            covered=covered,
            union=union,
            unsaid=self._unsaid(recipe.command),
            said=said,
            changes=self._changes(match),
            shows=self._shows(match),
            lost=float(len(lost)),
            wanted=float(wanted),
            added=float(filled.exactly),
            near=float(filled.nearly),
            named=float(self._is_named(recipe.line)),
        )
        return Ranked(
            evidence.worth(weights),
            filled.filled,
            evidence,
            self._known(match, filled),
            self._strange(filled),
            match.chosen.score if match.chosen is not None else None,
            self._left(match, filled),
            self._missed(filled),
            lost,
            len(self.said.words),
            len(self.adding.additions.clauses),
        )

    def _add(self, match: RecipeMatch, filled: RecipeInSentence) -> None:
        """Put what is asked for beside what the recipe says into its line."""
        tokens = self.adding.additions.tokens
        free = frozenset(n for n, one in enumerate(tokens) if not filled.has(one.start, one.end))
        near, also = (
            {
                word.start
                for word, much in zip(self.said.words, row, strict=True)
                if much >= LEAST_RELATED
            }
            for row in (match.cover, match.also)
        )
        new = frozenset(n for n in free if tokens[n].start not in near)
        strange = frozenset(n for n in free if tokens[n].start not in also)
        added = self.adding.put_into(filled.filled.line, filled.filled.unused, new, strange)
        filled.add(added, tokens)

    def cues_for(self, match: RecipeMatch) -> SlotCues:
        """Where values of the recipe stand. A word that its wordings have is no value of it."""
        own = {word for text in match.wordings for word in text.split(" ")}
        bare = [one for one in self.bare if one[0].text != match.recipe.command]
        return RecipeCues(self.cues, own, bare, self.programs, self.said.ordinary)

    def with_absence(self, one: Ranked, weights: Evidence) -> Ranked:
        """A rating that counts that the command is not here."""
        if self.finder.is_here(one.filled.recipe.command):
            return one
        evidence = one.evidence.changed(absent=1.0)
        return one.changed(evidence=evidence, score=evidence.worth(weights))

    def _is_named(self, line: str) -> bool:
        """Whether the verb that the sentence begins with stands in the line."""
        first = self.said.tokens[0].text if self.said.tokens else ""
        return first not in EMPTY and first in line.partition("<")[0].split(" ")

    def _chosen(self, match: RecipeMatch, said: float, filled: RecipeInSentence) -> float:
        """What the words say for it beside the best one. For a recipe that takes conditions, the
        words of these need not say anything, nor need those that asked for what was added.
        """
        if match.chosen is not None:
            behind = match.chosen.score - self.best
            if filled.filters:
                behind = max(behind, match.chosen.beside - self.best_beside)
            if filled.added:
                best = max(one.without(filled.added) for one in self.corpus.chosen.values())
                behind = max(behind, match.chosen.without(filled.added) - best)
            return behind
        return -UNFITTED * (1 - said)

    def _unsaid(self, command: str) -> float:
        """1 if nothing is said of what a command is for."""
        domain = self.domains.get(command)
        implied = self.said.implied | {stem(command)}
        said = domain is None or any(one in domain or one in implied for one in self.said.stems)
        return 0.0 if said or (domain is not None and domain & self.said.implied) else 1.0

    def _changes(self, match: RecipeMatch) -> float:
        """How unlikely it is that the change which a recipe makes is asked for."""
        return 1 - self.asks_change if match.chosen is not None and match.chosen.changing else 0.0

    def _shows(self, match: RecipeMatch) -> float:
        """How likely it is that a change is asked for, of a recipe that only shows something."""
        only_shows = match.chosen is not None and not match.chosen.changing
        return self.asks_change if only_shows else 0.0

    def _coverage(self, match: RecipeMatch, filled: RecipeInSentence) -> tuple[float, float]:
        """How much of the sentence the nearest wording, and all wordings, have."""
        total = whole = got = 0.0
        rows = zip(self.terms, self.said.words, match.cover, match.also, strict=True)
        for term, word, cover, also in rows:
            taken = filled.covers(word.start, word.end)
            if self._is_value(word.start, word.end) and not max(cover, taken):
                continue  # an extension that the recipe takes in some other way
            whole += term.weight
            got += term.weight * max(taken, cover)
            total += term.weight * max(taken, also)
        return (got / whole, total / whole) if whole else (1.0, 1.0)

    def _known(self, match: RecipeMatch, filled: RecipeInSentence) -> float:
        """How much of the sentence the wordings have, or values that are sure and were placed."""
        sure = [(one.start, one.end) for one in filled.used if self._is_sure(one)]
        got = whole = 0.0
        for term, word, also in zip(self.terms, self.said.words, match.also, strict=True):
            is_placed = any(start < word.end and word.start < end for start, end in sure)
            whole += term.weight
            got += term.weight * (1.0 if is_placed else also)
        return got / whole if whole else float(bool(sure))

    def _left(self, match: RecipeMatch, filled: RecipeInSentence) -> list[str]:
        """The words of the sentence that neither the wordings nor the line have."""
        return [
            word.text
            for term, word, also in zip(self.terms, self.said.words, match.also, strict=True)
            if term.weight >= TELLING and also < LEAST_RELATED and word.text not in _JOINING
            if not filled.has(word.start, word.end)
        ]

    def _strange(self, filled: RecipeInSentence) -> float:
        """How many words of the sentence no wording has, values that are sure left out."""
        sure = [(one.start, one.end) for one in filled.used if self._is_sure(one)]
        return float(
            sum(
                not term.variants
                and not any(start < word.end and word.start < end for start, end in sure)
                for term, word in zip(self.terms, self.said.words, strict=True)
            )
        )

    def _contradicts(self, match: RecipeMatch, filled: RecipeInSentence) -> bool:
        """Whether it uses a tool that was refused, goes the other way than was said, or does what
        was denied.
        """
        return (
            self._has_tool(filled.filled.line, self.said.without_tools)
            or self._goes_wrong_way(filled)
            or bool(self._denied(match, filled))
        )

    def _denied(self, match: RecipeMatch, filled: RecipeInSentence) -> list[str]:
        """The stems of which the wordings of the recipe say the contrary."""
        said = sorted(self.said.words, key=lambda word: word.start)
        free = frozenset(word.stem for word in said if not filled.has(word.start, word.end))
        denied = denied_in(word.stem for word in said)
        if not denied and not any(one in text for text in match.wordings for one in NEGATIONS):
            return []  # most do
        wordings = [text.split(" ") for text in match.wordings]
        return contradictions(free - denied, free & denied, wordings)

    def _is_value(self, start: int, end: int) -> bool:
        return any(
            value.sure and value.start < end and start < value.end for value in self.said.values
        )

    def _wording_said(self, match: RecipeMatch, filled: RecipeInSentence) -> float:
        """How much of the nearest wording the sentence has. A value in a slot says what the slot
        is for, if that can be seen by its shape.
        """
        recipe, values = match.recipe, filled.filled.values
        shaped = [one for one in recipe.slots if values.get(one.name) and one.kind not in _ANY_WORD]
        known = {stem(part) for slot in shaped for part in slot.name.split("-")}
        known |= {stem(slot.kind) for slot in shaped}
        implied = self.said.implied | known
        return compare(self.corpus, self.terms, implied, match.wording, stem(recipe.command))[1]

    def _of_values(self, filled: RecipeInSentence) -> Evidence:
        """What the values say."""
        recipe, line = filled.filled.recipe, filled.filled.line
        values = filled.filled.values
        open_slots = sum(f"<{name}>" in line for name in values)
        any_sure = any(value.sure for value in self.said.values) or bool(self.said.conditions)
        like = any(slot.is_like(value.text) for slot in recipe.slots for value in filled.used)
        return Evidence(
            guessed=float(sum(not self._is_sure(value) for value in filled.used)),
            unused=sum(missed(value, filled.used) for value in filled.filled.unused),
            open=float(open_slots) if any_sure else 0.0,
            fit=max(min(filled.filled.fit, MOST_FIT), LEAST_FIT),
            like=float(like),
        )

    def _is_sure(self, value: Value) -> bool:
        """Whether a value is one by its shape, is the name of a command that is here, or stands by
        the noun that says what it is and is no word of the language.
        """
        is_named = bool(value.noun) and not self.said.ordinary.has(value.text.casefold())
        is_program = value.text in self.programs
        return value.sure or value.kind == "schedule" or is_program or is_named

    def _goes_wrong_way(self, filled: RecipeInSentence) -> bool:
        """Whether a line fetches from a machine what was to go there, or the other way round."""
        line = filled.filled.recipe.line
        host = next(
            (
                value
                for value in filled.used
                if value.kind in ("host", "remote") or value.noun in ("host", "server", "machine")
            ),
            None,
        )
        if host is None:
            return False
        way = "to" if _FETCHES.search(line) else ("from" if _SENDS.search(line) else "")
        before = _WAY.search(self.said.text[: host.start])
        return bool(way) and (before[1].lower() if before else host.place) == way

    def _lost(self, match: RecipeMatch, filled: RecipeInSentence) -> list[str]:
        """The conditions on files that were said and nothing of the line comes from, nor is in the
        nearest wording (`remove an empty folder`).
        """
        return [
            self.said.text[one.start : one.end]
            for one in self.said.conditions
            if one.end and not filled.has(one.start, one.end)
            if not {stem(word) for word in words(self.said.text[one.start : one.end])}
            <= EMPTY_STEMS.union(match.wording)
        ]

    def _missed(self, filled: RecipeInSentence) -> list[Value]:
        """The values with a form of their own that stand in no slot."""
        unused = filled.filled.unused
        return [one for one in unused if one.sure and missed(one, filled.used) == 1.0]

    def _has_tool(self, line: str, tools: list[str]) -> bool:
        """Whether a line has one of these tools."""
        return any(_has(line, tool) for tool in tools if tool in self.corpus.tools)


def _refuses(value: Value, tools: list[str]) -> bool:
    """Whether a value is only the name of a tool that is not to be used."""
    return value.unit == "excluded" and value.text.lower() in tools


def _has(line: str, tool: str) -> bool:
    return bool(re.search(rf"(?<![\w./-])(?:--)?{re.escape(tool)}(?![\w.-])", line))
