"""What the score of an entry is made of. The parts add up to the score: a test holds it."""

from __future__ import annotations

from dowsing.index.schema import HEAD_FIELDS, HEADS, MIDDLE, TEXT_FIELDS, UNIT
from dowsing.index.word_reader import EntryTexts, postings, static_ranks
from dowsing.model.record import Record
from dowsing.search.ranking import Phrase, coverage, summary_boost, task_boost
from dowsing.search.weights import Weights, field_boosts, section_cost, section_costs

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.model.entry import Candidate
    from dowsing.search.matching import Matches, QueryTerm


class WordShare(Record):
    """What a word of the query brings. `variant`: the synonym that was found in its place, "" for
    itself; `fields`: those it stands in, by the names of their weights, [] if only in the text or
    within a longer word of a name.
    """

    word: str
    variant: str
    fields: list[str]
    gain: float


class Breakdown(Record):
    """The parts of a score. What counts against an entry is negative.

    `uncovered`: what is lost for words that are not there; `name`, `option`: that it was typed, and
    asked for; `doing`: how central the verb and the noun asked for are; `asked`: that it is the
    command that people use for these words; `text`: that its text alone has the words; `patterns`:
    those that its name matches, where there were no words.
    """

    words: list[WordShare]
    uncovered: float
    static_rank: float
    section: str
    section_cost: float
    name: float = 0.0
    doing: float = 0.0
    option: float = 0.0
    task: str = ""
    task_boost: float = 0.0
    summary_boost: float = 0.0
    text: float = 0.0
    asked: float = 0.0
    length_cost: float = 0.0
    patterns: list[str] = []  # noqa: RUF012 - a record is immutable

    @property
    def total(self) -> float:
        """The score."""
        parts = (
            self.uncovered,
            self.static_rank,
            self.name,
            self.doing,
            self.option,
            self.task_boost,
            self.summary_boost,
            self.text,
            self.asked,
        )
        return (
            sum(word.gain for word in self.words)
            + sum(parts)
            - self.section_cost
            - self.length_cost
        )


class Explainer:
    """Takes the scores of one search apart."""

    def __init__(self, store: Store, matches: Matches, weights: Weights) -> None:
        self.store = store
        self.matches = matches
        self.weights = weights
        self.costs = section_costs({term.term for term in matches.terms}, weights)
        self.phrase = Phrase(matches, weights)
        self.boosts = field_boosts(weights, len(matches.terms))
        self._fields: dict[str, list[tuple[int, dict[int, int]]]] | None = None

    def explain(
        self,
        one: Candidate,
        texts: EntryTexts | None,
        *,
        name: float,
        doing: float,
        option: float,
        in_text: bool,
    ) -> Breakdown:
        """The parts of one entry's score. `texts`: its summary and tasks, if they were looked
        at.
        """
        number = one.number
        words = [self._share(term, gain[number], number) for term, gain in self._there(number)]
        bits = sum(1 << n for n, gain in enumerate(self.matches.gains) if number in gain)
        gained = sum(word.gain for word in words)
        uncovered = gained * coverage(self.matches, bits, self.weights) - gained if words else 0.0
        rank = static_ranks(self.store)[number] / UNIT * self.weights.static_rank
        found = Breakdown(
            words,
            uncovered,
            rank,
            one.section,
            section_cost(self.costs, one.section),
            name=name,
            doing=doing,
            option=option,
        )
        if in_text:
            middle = MIDDLE / UNIT * self.weights.static_rank
            found = found.changed(
                words=[],
                uncovered=0.0,
                static_rank=0.0,
                text=middle / 2,
                name=0.0,
                doing=0.0,
                option=0.0,
            )
        if texts is None:
            return found
        fits = [
            (self.phrase.fit(terms), task)
            for task, terms in zip(texts.tasks, texts.task_terms, strict=True)
        ]
        return found.changed(
            task=max(fits)[1] if fits and max(fits)[0] > 0 else "",
            task_boost=task_boost(self.phrase, texts, self.weights),
            summary_boost=summary_boost(self.phrase, texts, self.weights),
        )

    def _there(self, number: int) -> list[tuple[QueryTerm, dict[int, float]]]:
        pairs = zip(self.matches.terms, self.matches.gains, strict=True)
        return [(term, gain) for term, gain in pairs if number in gain]

    def _share(self, term: QueryTerm, gain: float, number: int) -> WordShare:
        """Which variant of a term, in which fields, is worth most."""
        best: tuple[float, str, list[str]] = (0.0, term.term, [])
        for variant, weight in term.variants:
            for part, places in self._places(variant):
                fields = places.get(number, 0)
                worth = weight * self.boosts[part][fields]
                if fields and (worth > best[0] or not best[2]):
                    bits = HEAD_FIELDS if part == HEADS else TEXT_FIELDS
                    best = worth, variant, [name for name, bit in bits.items() if fields & bit]
        _, variant, names = best
        return WordShare(term.word, variant if variant != term.term else "", names, gain)

    def _places(self, variant: str) -> list[tuple[int, dict[int, int]]]:
        """The fields that a term stands in, by entry, for the heads and for the text."""
        if self._fields is None:
            self._fields = {}
            for posting in postings(
                self.store, {one for term in self.matches.terms for one, _ in term.variants}
            ):
                places = dict(zip(posting.entries, posting.fields, strict=True))
                self._fields.setdefault(posting.term, []).append((posting.part, places))
        return self._fields.get(variant, [])
