"""Search: words, patterns and filters to a ranked list, and what was done to get one."""

from __future__ import annotations

from dowsing.index.commands_asked import commands_asked
from dowsing.index.schema import MIDDLE, UNIT
from dowsing.index.word_reader import EntryTexts, count_kin, static_ranks, terms_meant, texts_of
from dowsing.knowledge.stems import QUESTIONS
from dowsing.model.names import is_typed
from dowsing.model.record import Record
from dowsing.search.filters import columns_narrowed
from dowsing.search.loosening import (
    NoteCode,
    SearchNote,
    add_texts,
    and_beginnings,
    having_all,
    in_texts,
    lacking,
    settle,
)
from dowsing.search.matching import Matches, QueryTerm, match, terms_of
from dowsing.search.query import MOST_PATTERN, MOST_WORDS, Query, make_query
from dowsing.search.ranking import Phrase, score, summary_boost, task_boost
from dowsing.search.weights import WEIGHTS, Weights, section_cost, section_costs

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.narrowing import Narrowing
    from dowsing.index.store import Store
    from dowsing.model.entry import Candidate, Entry
    from dowsing.search.breakdown import Breakdown
    from dowsing.search.facet import Taken

__all__ = ["Hit", "SearchAnswer", "make_query", "search"]

LOOKED_AT = 150  # entries that are fetched, at least
LOOKED_AT_TWICE = 40  # entries whose summaries and tasks are looked at, at least
#: An entry without every word is listed if it is worth so much of what the best one is that has
#: them, by the number of words; few words are meant one by one, a sentence is meant as a whole.
AS_GOOD = {1: 1.0, 2: 1.15, 3: 0.9}
AS_GOOD_SENTENCE = 0.35
LEAST_IDF = 4.0  # how rare a word is at least that no name, summary or task has
FEW = 5  # so few entries are made more by those that have the words in their texts
OF_OTHERS = 0.5  # of what a name is worth in sections whose names are not typed at a prompt
OF_SEVERAL_WORDS = 2.0  # of what a name is worth one of several words, which hardly is a chance
QUESTIONED = 2.0  # of what a name is worth that the words as a whole make
FEWEST_ASKING = 2  # words that speak for a command
OTHER_SHELL = 6.0  # what it costs a builtin that it is of another shell than the user's
LONG_NAME = 8  # characters of a name that cost 1, where there are no words to rank by


class Hit(Record):
    """An entry found, its score (larger is better), what that is made of (if asked for), how many
    of its family it stands for, the options asked for.
    """

    entry: Entry
    score: float
    breakdown: Breakdown | None = None
    folded: int = 0
    options: list[Taken] = []  # noqa: RUF012 - a record is immutable


class SearchAnswer(Record):
    """The hits, the number of matching entries and their numbers, and what was loosened to find
    them.

    `terms`: what was searched for, with what may stand for it.
    """

    query: Query
    total: int
    notes: list[SearchNote]
    hits: list[Hit]
    numbers: list[int]
    terms: list[QueryTerm]

    @property
    def is_guessed(self) -> bool:
        """Whether a word was taken as another one, for nothing has it."""
        return any(note.code is NoteCode.TAKEN_AS for note in self.notes)


def search(
    store: Store, query: Query, why: bool = False, weights: Weights = WEIGHTS
) -> SearchAnswer:
    """The entries that match the query, best first. Loosens where nothing has every word, and says
    so.

    `why`: give what each score is made of. `weights`: what things are worth, to be changed by
    measurements only.
    """
    return _Search(store, query, weights).answer(why)


class _Search:
    """One search. `boosts`: what entries get for their name or for an option, whatever the
    words.
    """

    def __init__(self, store: Store, query: Query, weights: Weights) -> None:
        self.store = store
        self.query = query
        self.weights = weights
        self.notes: list[SearchNote] = []
        self.words = query.words[:MOST_WORDS]
        if len(query.words) > MOST_WORDS:
            self.notes.append(SearchNote(NoteCode.ONLY_FIRST, [str(MOST_WORDS)]))
        self.patterns = [pattern[:MOST_PATTERN] for pattern in query.patterns]
        if self.patterns != query.patterns:
            self.notes.append(SearchNote(NoteCode.PATTERNS_CUT, [str(MOST_PATTERN)]))
        self.within: Narrowing = columns_narrowed(query.filters)
        self.of_option: dict[int, float] = {}
        self.of_doing: dict[int, float] = {}
        self.of_name: dict[int, float] = {}
        self.of_asked: dict[int, float] = {}
        self.is_added = set[int]()  # those that the words ask for and that have too few of them
        self.allowed = self._allowed()
        self.matches = Matches([], [], [])
        self.numbers = set[int]()  # all that match
        self.in_text = set[int]()  # those of them that only their texts speak for
        self.scores: dict[int, float] = {}
        self.texts: dict[int, EntryTexts] = {}

    def answer(self, why: bool) -> SearchAnswer:
        """What is found."""
        limit = self.query.limit
        scored = self._scored(max(LOOKED_AT, limit * 3))
        ranked = self._ranked(scored, max(LOOKED_AT_TWICE, limit * 3 // 2))
        shown, over = ranked[:limit], set[str]()
        if len(ranked) > limit and not self.query.filters.family:
            from dowsing.search.folding import folded

            shown, over = folded(ranked, limit, set(self.words))
        hits = self._hits(shown, over, why)
        if hits:
            self._note_what_is_left_out(shown[0].number)
        terms = [*self.matches.terms, *self._filter_terms()]
        return SearchAnswer(
            self.query,
            len(self.numbers),
            self.notes if hits else [],
            hits,
            list(self.numbers),
            terms,
        )

    # --- what matches
    # --------------------------------------------------------------------------------

    def _allowed(self) -> set[int] | None:
        """The entries that filters and patterns allow, None if they allow all."""
        allowed = self._named_like()
        if allowed is None and self.within:
            allowed = {found.number for found in self.store.all_matches(self.within)}
        if self.query.filters.does or self.query.filters.what:
            self.of_doing = self._doing()
            doing = self.of_doing.keys() - self.store.hidden()
            allowed = doing if allowed is None else doing & allowed
        if self.query.filters.takes:
            from dowsing.search.facet import takers

            self.of_option = takers(self.store, self.query.filters.takes)
            allowed = (
                self.of_option.keys() & allowed if allowed is not None else set(self.of_option)
            )
        return allowed

    def _doing(self) -> dict[int, float]:
        """The entries with the verb and the noun asked for; where few have both, also those that
        speak of the noun.
        """
        from dowsing.search.doing import Doings

        filters = self.query.filters
        doings = Doings(self.store, filters.does, filters.what)
        found = doings.found()
        if len(found) < FEW:
            more = {n: worth for n, worth in doings.speaking_of().items() if n not in found}
            if more:
                self.notes.append(SearchNote(NoteCode.SPOKEN_OF, [filters.what]))
                found = found | more
        return found

    def _named_like(self) -> set[int] | None:
        """The entries with a name that each pattern matches, whole, or else inside; None without
        patterns.
        """
        found = self._in_all([self._numbers_like(pattern) for pattern in self.patterns])
        if not self.patterns or found or self.words:
            return found
        inside: set[int] = set()
        for pattern in self.patterns:
            numbers = self._numbers_like(f"*{pattern.strip('*')}*")
            inside = inside & numbers if inside else numbers
        if inside:
            self.notes.append(SearchNote(NoteCode.NAMES_INSIDE))
        return inside

    def _numbers_like(self, pattern: str) -> set[int]:
        return {found.number for found in self.store.matching_names(pattern, self.within)}

    @staticmethod
    def _in_all(sets: list[set[int]]) -> set[int] | None:
        return set.intersection(*sets) if sets else None

    def _is_allowed(self, number: int) -> bool:
        return self.allowed is None or number in self.allowed

    def _scored(self, most: int) -> list[tuple[float, int]]:
        """The best of what matches with scores: by words, or by static rank where there are
        none.
        """
        if self.words:
            named = self.store.candidates(self.store.numbers_named(self.query.names))
            self.of_name = {
                one.number: self.weights.of_name * _name_share(one)
                for one in named
                if self._is_allowed(one.number)
            }
            return self._by_words(most)
        if self.allowed is None:
            return []
        self.numbers = self.allowed
        ranks = static_ranks(self.store)
        boosts = self._boosts()
        return [(ranks[number] / UNIT + boosts.get(number, 0.0), number) for number in self.allowed]

    def _by_words(self, most: int) -> list[tuple[float, int]]:
        missing = self._match()
        hidden = self.store.hidden()
        if missing and self.query.texts:
            add_texts(
                self.store, self.matches, missing, max([*self.matches.idf, LEAST_IDF]), self.within
            )
        for gain in self.matches.gains:
            out = hidden & gain.keys()
            if self.allowed is not None:
                out |= gain.keys() - self.allowed
            for number in out:
                del gain[number]
        self._add_questions()
        scored = score(self.store, self.matches, most, self.weights)
        self.numbers = self._having_what_the_best_has(scored)
        boosts = self._boosts()
        if boosts:
            scored = sorted(
                ((value + boosts.get(number, 0.0), number) for value, number in scored),
                reverse=True,
            )
        scored = self._good_enough(scored)
        if self.query.texts and len(self.numbers) < FEW:
            scored += self._by_text(hidden)
        return scored

    def _add_questions(self) -> None:
        """A word that a question begins with is lost as a word; an entry of that name that has half
        of the other words may be meant: `who is logged in`.
        """
        asked = [word for word in self.words if word in QUESTIONS]
        gains = [gain for gain in self.matches.gains if gain]
        if not asked or not gains or any(term.word in asked for term in self.matches.terms):
            return
        for number in self.store.numbers_named(asked):
            having = sum(number in gain for gain in gains)
            if 2 * having >= len(gains) and self._is_allowed(number):
                self.of_name[number] = QUESTIONED * self.weights.of_name

    def _boosts(self) -> dict[int, float]:
        found = dict(self.of_option)
        for number, value in (*self.of_name.items(), *self.of_doing.items()):
            found[number] = found.get(number, 0.0) + value
        return found

    def _match(self) -> list[str]:
        """Match the words, loosely where they are not found as they are typed; the words that
        nothing has.
        """
        terms = terms_of(self.store, self.words, self.weights, self.query.exact)
        alone = len(terms) == 1 and len(terms[0].word) > 1
        if alone:
            terms = [and_beginnings(self.store, terms[0])]
        self.matches = match(self.store, terms, self.weights)
        missing: list[str] = []
        if not all(self.matches.gains):
            settled = settle(self.store, self.matches)
            self.notes += settled.notes
            terms, missing = settled.terms, settled.missing
            self.matches = match(self.store, terms, self.weights)
        if alone:
            gain = self.matches.gains[0]
            for number in self.store.numbers_holding(terms[0].word):
                gain.setdefault(number, self.weights.inside_name)
        return missing

    def _having_what_the_best_has(self, scored: list[tuple[float, int]]) -> set[int]:
        """The entries with every word; where none has, those with what the best one has: the
        commonest are left out.
        """
        found = having_all(self.matches, set())
        if found or not scored:
            return found
        return having_all(self.matches, set(lacking(self.matches, scored[0][1])))

    def _good_enough(self, scored: list[tuple[float, int]]) -> list[tuple[float, int]]:
        """The entries with every word, and those without that are as good."""
        middle = MIDDLE / UNIT * self.weights.static_rank
        part = AS_GOOD.get(sum(map(bool, self.matches.gains)), AS_GOOD_SENTENCE)
        best = max((value for value, number in scored if number in self.numbers), default=0.0)
        least = middle + part * (best - middle)
        scored = [
            (value, number) for value, number in scored if number in self.numbers or value >= least
        ]
        self.numbers = self.numbers | {number for _, number in scored}
        return scored

    def _by_text(self, hidden: set[int]) -> list[tuple[float, int]]:
        """Entries that have all the words somewhere in their texts, and are not found otherwise."""
        middle = MIDDLE / UNIT * self.weights.static_rank
        having = in_texts(self.store, [term.word for term in self.matches.terms], self.within)
        self.in_text = {
            number for number in having - hidden - self.numbers if self._is_allowed(number)
        }
        self.numbers |= self.in_text
        return [(middle / 2, number) for number in self.in_text]

    # --- in order
    # ------------------------------------------------------------------------------------

    def _ranked(self, scored: list[tuple[float, int]], twice: int) -> list[Candidate]:
        """Candidates in their final order."""
        asked = self._asked()
        added = self._added(scored, asked)
        scored = [*scored, *added]
        self.of_asked = {number: value for value, number in added}
        self.is_added = set(self.of_asked)
        scores = self.scores = {number: value for value, number in scored}
        candidates = self.store.candidates(scores)
        foreign = self._of_other_shells(candidates)
        costs = section_costs({term.term for term in self.matches.terms}, self.weights)
        for one in candidates:
            scores[one.number] -= section_cost(costs, one.section)
            if one.number in foreign:
                scores[one.number] -= OTHER_SHELL
            if one.name in asked and is_typed(one.section):
                worth = self.weights.asked * asked[one.name]
                scores[one.number] += worth
                self.of_asked[one.number] = self.of_asked.get(one.number, 0.0) + worth
            if not self.matches.terms:
                scores[one.number] -= len(one.name) / LONG_NAME
        candidates.sort(key=self._order)
        if self.matches.terms:
            best = candidates[:twice]
            self.texts = texts_of(self.store, [one.number for one in best])
            phrase = Phrase(self.matches, self.weights)
            for number, texts in self.texts.items():
                scores[number] += task_boost(phrase, texts, self.weights)
                scores[number] += summary_boost(phrase, texts, self.weights)
            best.sort(key=self._order)
            candidates[:twice] = best
        return candidates

    def _asked(self) -> dict[str, float]:
        """How likely each command, by the name of its page, is what people use for the words."""
        terms = [term.term for term in self.matches.terms]
        if len(terms) < FEWEST_ASKING or self.query.exact:
            return {}
        asked = commands_asked(self.store, terms)
        return {command.replace(" ", "-"): share for command, share in asked.items()}

    def _added(
        self, scored: list[tuple[float, int]], asked: dict[str, float]
    ) -> list[tuple[float, int]]:
        """The commands that are likely what is asked for and have too few of the words: as good as
        the least that has them.
        """
        likely = [name for name, share in asked.items() if share >= self.weights.least_asked]
        if not likely or not scored:
            return []
        known = {number for _, number in scored}
        least = min(value for value, _ in scored)
        found = {one for one in self.store.numbers_named(likely) if self._is_allowed(one)} - known
        self.numbers |= found
        return [(least, number) for number in sorted(found)]

    def _of_other_shells(self, candidates: list[Candidate]) -> set[int]:
        """The builtins among them that the user's own shell does not have."""
        builtins = [one for one in candidates if one.section == "builtin"]
        if not builtins or not self.query.shell:
            return set()
        own = self.store.names_in_shell(self.query.shell)
        return {one.number for one in builtins if own and one.name not in own}

    def _order(self, one: Candidate) -> tuple[float, int, str]:
        return -self.scores[one.number], len(one.name), one.name

    # --- what is shown
    # -------------------------------------------------------------------------------

    def _hits(self, shown: list[Candidate], over: set[str], why: bool) -> list[Hit]:
        """`over`: families that were folded; each is told once, of the best of it."""
        told = self._breakdowns(shown) if why else {}
        taken: dict[int, list[Taken]] = {}
        if self.query.filters.takes:
            from dowsing.search.facet import options_taken

            taken = options_taken(
                self.store, [one.number for one in shown], self.query.filters.takes
            )
        hits: list[Hit] = []
        for one, entry in zip(
            shown, self.store.entries([one.number for one in shown]), strict=True
        ):
            folded = 0
            if one.family in over:
                over.remove(one.family)
                kin = sum(other.family == one.family for other in shown)
                folded = count_kin(self.store, one.number, self.numbers) - kin
            value = round(self.scores[one.number], 3)
            hits.append(Hit(entry, value, told.get(one.number), folded, taken.get(one.number, [])))
        return hits

    def _breakdowns(self, shown: list[Candidate]) -> dict[int, Breakdown]:
        from dowsing.search.breakdown import Explainer

        explainer = Explainer(self.store, self.matches, self.weights)
        found = {}
        for one in shown:
            number = one.number
            found[number] = explainer.explain(
                one,
                self.texts.get(number),
                name=self.of_name.get(number, 0.0),
                doing=self.of_doing.get(number, 0.0),
                option=self.of_option.get(number, 0.0),
                in_text=number in self.in_text,
            )
            if number in self.of_asked:
                found[number] = found[number].changed(asked=self.of_asked[number])
            if number in self.is_added:
                found[number] = found[number].changed(words=[], uncovered=0.0, static_rank=0.0)
            if not self.matches.terms:
                rank = static_ranks(self.store)[number] / UNIT
                length = len(one.name) / LONG_NAME
                found[number] = found[number].changed(
                    static_rank=rank, length_cost=length, patterns=self.patterns
                )
        return found

    def _note_what_is_left_out(self, best: int) -> None:
        without = lacking(self.matches, best)
        if 0 < len(without) < len(self.matches.terms) and not having_all(self.matches, set()):
            self.notes.append(
                SearchNote(NoteCode.LEFT_OUT, [self.matches.terms[n].word for n in without])
            )

    def _filter_terms(self) -> list[QueryTerm]:
        """The verb and the noun that are narrowed to, with the words that mean the same."""
        found = []
        for kind, word in (("verbs", self.query.filters.does), ("nouns", self.query.filters.what)):
            if word:
                from dowsing.search.doing import meant

                heads = meant(self.store, kind, word.split()[-1])
                same = [(term, 1.0) for term in (*terms_meant(self.store, kind, heads), *heads)]
                found.append(QueryTerm(word, heads[0], same))
        return found


def _name_share(one: Candidate) -> float:
    """How much of what a typed name is worth counts for an entry of that name."""
    share = 1.0 if is_typed(one.section) else OF_OTHERS
    return share * (OF_SEVERAL_WORDS if set(one.name) & set("-_") else 1.0)
