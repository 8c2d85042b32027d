"""What is done where words are not found as they are typed, and what is said of it."""

from __future__ import annotations

from dowsing.index.word_reader import is_well_known, spelled_words, terms_beginning
from dowsing.model.record import Record
from dowsing.model.told import Code
from dowsing.search.matching import Matches, QueryTerm

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.narrowing import Narrowing
    from dowsing.index.store import Store

SHORTEST_MISSPELLED = 3  # letters; of so few, two may only have changed places
LIKE_ENOUGH, SHORT_LIKE_ENOUGH = 0.74, 0.6
OF_BEGINNING = 0.6  # what a word counts that begins with what was typed
OF_TEXT = 0.5  # what it is worth that a word stands somewhere in the text of a page


class NoteCode(Code):
    """What was done to find something."""

    ONLY_FIRST = "only first"  # how many words were used
    PATTERNS_CUT = "patterns cut"  # to how many characters
    NAMES_INSIDE = "names inside"
    TAKEN_AS = "taken as"  # the word, what it was taken as
    LEFT_OUT = "left out"  # words
    SPOKEN_OF = "spoken of"  # the noun


class SearchNote(Record):
    """What was done to find something, and the words or numbers that go into it."""

    code: NoteCode
    about: list[str] = []  # noqa: RUF012 - a record is immutable


class Settled(Record):
    """The terms as they are searched for, notes on what was changed, and words that no entry
    has.
    """

    terms: list[QueryTerm]
    notes: list[SearchNote]
    missing: list[str]


def and_beginnings(store: Store, term: QueryTerm) -> QueryTerm:
    """The term with what begins as it does: a word that stands alone may be the beginning of
    another.
    """
    known = {variant for variant, _ in term.variants}
    begun = [(one, OF_BEGINNING) for one in terms_beginning(store, term.term) if one not in known]
    return QueryTerm(term.word, term.term, [*term.variants, *begun])


def settle(store: Store, matches: Matches) -> Settled:
    """Terms that nothing has are taken as beginnings of words, then as misspelled ones; what is
    left is missing.
    """
    settled: list[QueryTerm] = []
    notes: list[SearchNote] = []
    missing: list[str] = []
    for term, gain in zip(matches.terms, matches.gains, strict=True):
        if gain:
            settled.append(term)
            continue
        begun = terms_beginning(store, term.word) or terms_beginning(store, term.term)
        if begun:
            settled.append(
                QueryTerm(
                    term.word, term.term, [*term.variants, *((one, OF_BEGINNING) for one in begun)]
                )
            )
            continue
        spelled = nearest_word(store, term.word)
        if spelled:
            notes.append(SearchNote(NoteCode.TAKEN_AS, [term.word, spelled[0]]))
            settled.append(QueryTerm(spelled[0], spelled[1], [(spelled[1], 1.0)]))
            continue
        settled.append(term)
        missing.append(term.word)
    return Settled(settled, notes, missing)


def nearest_word(store: Store, word: str) -> tuple[str, str] | None:
    """The known word that is written most like this one, with its term; the more frequent of
    several. None if none is.
    """
    if len(word) < SHORTEST_MISSPELLED or not word.isalpha():
        return None
    known = spelled_words(store)
    from dowsing.model.nearness import SLIP, Near, is_slip, nearest

    is_short = len(word) == SHORTEST_MISSPELLED
    near = nearest(
        word, [row[0] for row in known], 12, SHORT_LIKE_ENOUGH if is_short else LIKE_ENOUGH
    )
    if is_short:
        near = [one for one in near if sorted(one.word) == sorted(word)]
    if not near:
        return None

    def order(one: Near) -> tuple[float, bool, bool, int]:
        likeness = round(one.likeness + SLIP * is_slip(word, one.word), 2)
        return likeness, is_well_known(store, one.word), one.word[0] == word[0], known[one.place][2]

    best = max(near, key=order)
    return known[best.place][0], known[best.place][1]


def add_texts(
    store: Store, matches: Matches, missing: list[str], idf: float, within: Narrowing
) -> None:
    """Let missing words count where they stand anywhere in a text."""
    for n, term in enumerate(matches.terms):
        if term.word not in missing:
            continue
        found = {match.number: OF_TEXT * idf for match in store.in_bodies([term.word], within)}
        if found:
            matches.gains[n] = found
            matches.idf[n] = idf


def in_texts(store: Store, words: list[str], within: Narrowing) -> set[int]:
    """The entries that have all the words somewhere in their texts."""
    return {
        found.number
        for found in store.in_bodies([one for word in words for one in word.split()], within)
    }


def having_all(matches: Matches, without: set[int]) -> set[int]:
    """The entries that have all terms, but those at the places in `without`."""
    gains = [gain for n, gain in enumerate(matches.gains) if n not in without]
    if not gains:
        return set()
    gains.sort(key=len)
    found = set(gains[0])
    for gain in gains[1:]:
        found &= gain.keys()
    return found


def lacking(matches: Matches, number: int) -> list[int]:
    """The places of the terms that an entry does not have."""
    return [n for n, gain in enumerate(matches.gains) if number not in gain]
