"""How to go on from a list: what would narrow it to a telling part, with the number of entries
there.
"""

from __future__ import annotations

from dowsing.model.record import Record
from dowsing.search.filters import COLUMNS, Filters

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Collection

    from dowsing.index.store import Store

_OFFERED = ("does", "what", "kind", "package", "section")
MOST_HINTS = 3
MOST_LOOKED_AT = 3000
_LEAST, _MOST = 0.04, 0.6  # of all entries found


class Hint(Record):
    """A filter that narrows what was found: its option and value, and how many entries it
    leaves.
    """

    option: str
    value: str
    count: int


def hints(store: Store, numbers: Collection[int], filters: Filters, words: list[str]) -> list[Hint]:
    """Filters that leave a part of these entries that is neither nearly all nor next to nothing,
    the largest of each.
    """
    if len(numbers) > MOST_LOOKED_AT:
        return []
    total = len(numbers)
    found = []
    for option in _OFFERED:
        if getattr(filters, option) or (option == "section" and filters.kind):
            continue
        for value, count in store.tally(COLUMNS[option], numbers):
            if count > _MOST * total or value in words:
                continue
            if count >= max(2, _LEAST * total):
                found.append(Hint(option, value, count))
            break
    return found[:MOST_HINTS]
