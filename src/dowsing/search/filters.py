"""What entries are narrowed to besides words: package, family, kind, section, verb, noun and
option.
"""

from __future__ import annotations

from dowsing.index.narrowing import ALL, Narrowing, narrowing
from dowsing.index.store import Store
from dowsing.index.word_reader import meaning_groups
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
_SAID = {"does": "verb", "what": "noun", "takes": "option", "without": "without family"}


class Filters(Record):
    """Each is a name or a pattern with `*`, `?` or `[…]`, in any case; "" does not narrow.

    A section takes in those with a suffix: `3` has `3pm` in it. `does` and `what` are verbs and
    nouns: a word means its whole group of equal words. `takes` are flags (`-r`, `--no-*`) or words
    that one option has all of; `without` is a family that is left out.
    """

    package: str = ""
    family: str = ""
    kind: str = ""
    section: str = ""
    does: str = ""
    what: str = ""
    takes: str = ""
    without: str = ""

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


def unknown_value(store: Store, filters: Filters) -> tuple[str, str, list[str]] | None:
    """The first filter whose value no entry has: what it is, the value, and the nearest that there
    are; None if there is none.
    """
    from dowsing.model.nearness import nearest_words

    for name, column in COLUMNS.items():
        value = getattr(filters, name).casefold()
        if not value or set(value) & set("*?[") or " " in value:
            continue
        known = [word for word, _ in store.vocabulary(column, ALL)]
        words = {word.casefold() for word in known}
        if name in ("does", "what"):
            groups = meaning_groups(store, column)
            words |= {word for head in groups for word in (head, *groups[head])}
        elif name == "section":
            words |= {word[:1] for word in words}
        if value not in words:
            return _SAID.get(name, name), value, nearest_words(value, sorted(words), 3)
    return None


def narrowed(store: Store, filters: Filters, options: bool = False) -> Narrowing:
    """The entries that the filters let through; of an option only with `options`."""
    numbers = None
    if options and filters.takes:
        from dowsing.search.facet import takers

        numbers = list(takers(store, filters.takes))
    if filters.does or filters.what:
        from dowsing.search.doing import Doings

        found = Doings(store, filters.does, filters.what).found()
        numbers = [one for one in numbers if one in found] if numbers is not None else list(found)
    return columns_narrowed(filters, numbers)


def columns_narrowed(filters: Filters, numbers: list[int] | None = None) -> Narrowing:
    """The entries, of these numbers if they are given, that the filters let through but for verb,
    noun and option.
    """
    columns = {"package": filters.package, "family": filters.family, "kind": filters.kind}
    return narrowing(columns, filters.section, numbers=numbers, without=filters.without)
