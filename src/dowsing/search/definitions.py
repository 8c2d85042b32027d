"""Which pages define a variable or a file, and what they say of it."""

from __future__ import annotations

import re

from dowsing.index.word_reader import defining, static_ranks
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.model.entry import Entry

MOST = 5
_SHELLS = ("bash", "dash", "zsh", "ksh", "fish", "zshall", "zshparam")
_NAME = re.compile(r"\$?[A-Z][A-Z0-9_]{2,}|\.[\w.-]+|[\w@+-]+(?:\.[\w-]+)+|[\w.@+-]+_[\w.]+")


class Definition(Record):
    """An entry that defines a name, as it writes it, and the beginning of what it says."""

    entry: Entry
    tag: str
    says: str


def may_be_defined(word: str) -> bool:
    """Whether a word is written as a variable or the name of a file is."""
    return _NAME.fullmatch(word) is not None


def definitions(store: Store, word: str, shell: str) -> list[Definition]:
    """The entries that define a variable or a file of that name, each text once: the user's shell
    first, then other shells, then the best known.
    """
    rows = defining(store, word.lstrip("$"))
    if not rows:
        return []
    ranks = static_ranks(store)
    numbers = [number for number, _, _ in rows]
    entries = dict(zip(numbers, store.entries(numbers), strict=True))

    def order(row: tuple[int, str, str]) -> tuple[bool, bool, int]:
        name = entries[row[0]].name
        return name != shell, name not in _SHELLS, -ranks[row[0]]

    once: dict[str, Definition] = {}
    for number, tag, says in sorted(rows, key=order):
        once.setdefault(says, Definition(entries[number], tag, says))
    return list(once.values())[:MOST]
