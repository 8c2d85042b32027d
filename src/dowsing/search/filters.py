"""What entries are narrowed to besides words: package, family, kind, section, verb, noun and
option.
"""

from __future__ import annotations

from dowsing.index.store import Narrowing, Store, narrowing
from dowsing.model.entry import EntryKind
from dowsing.model.record import Record

#: Kinds of entries, in the order in which they are offered.
KINDS = tuple(EntryKind)


#: Filters by a value of entries, and the column that it is kept in.
COLUMNS = {
    "does": "verbs",
    "what": "nouns",
    "kind": "kind",
    "package": "package",
    "section": "section",
    "family": "family",
}
_SAID = {"does": "verb", "what": "noun", "takes": "option"}


class Filters(Record):
    """Each is a name or a pattern with `*`, `?` or `[…]`, in any case; "" does not narrow.

    A section takes in those with a suffix: `3` has `3pm` in it. `does` and `what` are verbs and
    nouns: a word means its whole group of equal words. `takes` are flags (`-r`, `--no-*`) or words
    that one option has all of.
    """

    package: str = ""
    family: str = ""
    kind: str = ""
    section: str = ""
    does: str = ""
    what: str = ""
    takes: str = ""

    @property
    def any(self) -> bool:
        """Whether anything is narrowed."""
        return any(getattr(self, name) for name in self._fields)

    def described(self) -> str:
        """The filters in words: `package tar, section 1`."""
        return ", ".join(
            f"{_SAID.get(name, name)} {value}"
            for name in self._fields
            if (value := getattr(self, name))
        )


def narrowed(store: Store, filters: Filters, options: bool = False) -> Narrowing:
    """The entries that the filters let through; of an option only with `options`."""
    numbers = None
    if options and filters.takes:
        from dowsing.search.facet import takers

        numbers = list(takers(store, filters.takes))
    return narrowing(
        {"package": filters.package, "family": filters.family, "kind": filters.kind},
        filters.section,
        meant(store, "verbs", filters.does),
        meant(store, "nouns", filters.what),
        numbers,
    )


def meant(store: Store, kind: str, word: str) -> list[str]:
    """The verbs or nouns that entries are kept under and that a word or pattern means: its group,
    or itself.
    """
    word = word.casefold().strip()
    if not word:
        return []
    from dowsing.index.word_reader import heads_meant
    from dowsing.knowledge.stems import stem

    return list(dict.fromkeys([*heads_meant(store, kind, word, stem(word)), word, stem(word)]))
