"""Words of a sentence that are spelled wrongly: a word that no wording and no page has is read as
the nearest one that wordings have, where it says what is wanted. A word that stands where a name
may stand is left as it is.
"""

from __future__ import annotations

import re

from dowsing.index.schema import Meta
from dowsing.index.word_reader import terms_anywhere
from dowsing.knowledge.stems import stem
from dowsing.model.nearness import distance, nearest, without_doubles
from dowsing.model.record import Record
from dowsing.tasks.bare_names import NOUNS, word_before

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.tasks.bare_names import Ordinary

SHORTEST = 4  # letters of a word that is looked at
LONG = 7  # letters of a word that is seldom a name with a slip
LONGER = 9  # letters of a word that may have two slips
USUAL = 5  # so often a word stands in wordings that a short one may be a slip for
MOST_READ = 4  # words of a sentence; who misspells more speaks another language
TRIED = 8  # nearest words that are looked at
LEAST_LIKE = 0.6
#: A word by itself: no part of a path, an address, an option or a quoted text.
_WORD = re.compile(r"(?<![\w./~@:='\"<-])[A-Za-z]+(?![\w/~@:='\"-]|\.\w)")
_QUOTED = re.compile(r"'[^']*'|\"[^\"]*\"|`[^`]*`")
#: Words behind which a name stands.
_NAMED = frozenset(
    "called named as by user group host machine server on at into alias tag branch remote".split()
)
_BEFORE = re.compile(r"([A-Za-z]+) $")
_ARTICLES = frozenset("the a an my our your all every each any some no this these and".split())
#: Words behind which a short word that nobody knows is a name.
_LEADING = frozenset("of to from for by in into under below on with or".split())


class Misspelled(Record):
    """A word as it was typed, and the one that it is read as."""

    typed: str
    read: str


class Spelled(Record):
    """A sentence as it is read, and the words that are read otherwise than typed."""

    text: str
    misspelled: list[Misspelled]


class _Strange(Record):
    """A word that neither wordings nor pages have; `is_common`: it stands where a verb or a common
    noun does, and no name.
    """

    word: str
    is_common: bool


def spelled(sentence: str, store: Store, ordinary: Ordinary) -> Spelled:
    """The sentence with its words as they are meant."""
    strange = _strange(sentence, store, ordinary)
    if not strange or len(strange) > MOST_READ:
        return Spelled(sentence, [])
    counts = _vocabulary(store)
    read = {one.word: near for one in strange if (near := _meant(one, counts))}
    text = _WORD.sub(lambda match: read.get(match[0], match[0]), sentence)
    return Spelled(text, [Misspelled(typed, near) for typed, near in read.items()])


def _strange(sentence: str, store: Store, ordinary: Ordinary) -> list[_Strange]:
    """The words that neither wordings nor pages have, names left out."""
    quoted = [match.span() for match in _QUOTED.finditer(sentence)]
    found: dict[str, _Strange] = {}
    for match in _WORD.finditer(sentence):
        word = match[0]
        is_quoted = any(start <= match.start() < end for start, end in quoted)
        if len(word) < SHORTEST or is_quoted or ordinary.has(word.casefold()):
            continue
        before = _BEFORE.search(sentence[: match.start()])
        led_by = before[1].casefold() if before else ""
        is_common = not sentence[: match.start()].strip() or led_by in _ARTICLES
        is_loud = any(letter.isupper() for letter in word[1:])
        is_short_name = len(word) < LONG and led_by in _LEADING
        if is_loud or is_short_name or _may_be_a_name(sentence, match.start()):
            continue
        found[word] = _Strange(word, is_common)
    stems = {stem(one.casefold()) for one in found}
    known = terms_anywhere(store, stems) if found else frozenset()
    return [one for word, one in found.items() if stem(word.casefold()) not in known]


def _may_be_a_name(sentence: str, start: int) -> bool:
    """Whether a name may stand there: behind a noun, or a word that leads to one."""
    before = word_before(sentence, start)
    return before in NOUNS or before in _NAMED


def _vocabulary(store: Store) -> dict[str, int]:
    """The words of wordings with how often they stand there."""
    rows = (row.split(" ") for row in store.meta_value(Meta.SPELLINGS).split("\n") if row)
    return {word: int(count) for word, count in rows}


def _meant(strange: _Strange, counts: dict[str, int]) -> str:
    """The word that is meant, "" if none is near enough."""
    word = strange.word.casefold()
    least = USUAL if len(word) < LONG else 0
    found = [
        (slips, -counts[near.word], near.word)
        for near in nearest(word, list(counts), TRIED, LEAST_LIKE)
        if (slips := _slips(word, near.word, strange.is_common)) and counts[near.word] >= least
    ]
    return min(found)[2] if found else ""


def _slips(typed: str, meant: str, is_common: bool) -> int:
    """How many slips part two words; 0 if too many do."""
    slips = distance(typed, meant)
    swapped = sorted(typed) == sorted(meant)
    if typed[0] != meant[0] and not swapped:
        return 0
    if slips == 1:
        # another letter or one more makes a name of a short word: `otto`, `marko`
        is_doubled = len(typed) > len(meant) and without_doubles(typed, meant)
        is_other = len(typed) >= len(meant) and not swapped and not is_doubled
        return 0 if is_other and len(typed) < (SHORTEST + 1 if is_common else LONG - 1) else 1
    return 2 if slips == 2 and min(len(typed), len(meant)) >= LONGER else 0
