"""Entries by what they do, and to what: a verb and a noun as filters, and how central each is to an
entry that has it.
"""

from __future__ import annotations

from dowsing.index.schema import HEADS
from dowsing.index.word_reader import entries_doing, heads_meant, heads_near, postings
from dowsing.knowledge.lexicon import NEAR
from dowsing.knowledge.stems import stem

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store

#: What it is worth that a verb, or a noun, is the first of an entry; each further place has LATER
#: of what the place before has.
OF_VERB, OF_NOUN, LATER = 5.0, 4.0, 0.75
LITERAL = 1.5  # that the very word stands in name, summary or tasks, not only another of its group
OF_NEAR = 0.35  # of what a verb is worth, one that is near to it
SPOKEN_OF = 0.8  # of an entry that only speaks of the noun


class Doings:
    """The entries with a verb and a noun, "" for any, and what each gets for having them."""

    def __init__(self, store: Store, verb: str, noun: str) -> None:
        self.store = store
        nouns = noun.split()
        self.verbs = self._meant("verbs", verb, OF_VERB) if verb else None
        self.nouns = self._meant("nouns", nouns[-1], OF_NOUN) if nouns else None
        if self.verbs is not None and self.nouns is not None and not set(verb) & set("*?["):
            self._add_near(self.verbs, verb)
        self._add_literal(self.verbs, [verb])
        self._add_literal(self.nouns, nouns)
        self.words = [verb, *nouns]

    def found(self) -> dict[int, float]:
        """The entries with the verb and the noun, of what is asked, and what each gets."""
        if self.verbs is None or self.nouns is None:
            return self.nouns if self.verbs is None else self.verbs  # type: ignore[return-value]
        both = self.verbs.keys() & self.nouns.keys()
        return {number: self.verbs[number] + self.nouns[number] for number in both}

    def speaking_of(self) -> dict[int, float]:
        """The entries with the verb whose names, summaries or tasks have the noun, whatever is done
        to it.
        """
        if not self.verbs or len(self.words) < 2:
            return {}
        having = self._having(self.words[1:])
        return {
            number: worth + SPOKEN_OF * having[number]
            for number, worth in self.verbs.items()
            if number in having
        }

    def _meant(self, kind: str, word: str, worth: float) -> dict[int, float]:
        return self._central(kind, meant(self.store, kind, word), worth)

    def _central(self, kind: str, heads: list[str], worth: float) -> dict[int, float]:
        places = entries_doing(self.store, kind, heads) if heads else {}
        return {number: worth * LATER**place for number, place in places.items()}

    def _add_near(self, found: dict[int, float], verb: str) -> None:
        """Let in, behind, what does to the noun what is near to the verb: `query` for `show`."""
        near = heads_near(self.store, "verbs", stem(verb.casefold()), NEAR)
        for number, worth in self._central("verbs", near, OF_VERB * OF_NEAR).items():
            found.setdefault(number, worth)

    def _add_literal(self, found: dict[int, float] | None, words: list[str]) -> None:
        if found:
            for number, count in self._having(words).items():
                if number in found:
                    found[number] += LITERAL * count

    def _having(self, words: list[str]) -> dict[int, int]:
        """How many of the words stand in the heads of an entry."""
        counts: dict[int, int] = {}
        for posting in postings(self.store, {stem(word.casefold()) for word in words}, HEADS):
            for number in posting.entries:
                counts[number] = counts.get(number, 0) + 1
        return counts


def meant(store: Store, kind: str, word: str) -> list[str]:
    """The verbs or nouns that entries are kept under and that a word or pattern means: its group,
    or itself.
    """
    word = word.casefold().strip()
    if not word:
        return []
    return list(dict.fromkeys([*heads_meant(store, kind, word, stem(word)), word, stem(word)]))
