"""What of the index applies to a run: it holds what was read of all manual folders that the user
has ever had in use, and a look-up is to see those of its own MANPATH and PATH alone.

An entry applies by the number of its manual folder. Where two pages have one name and section, the
first in the order of search is shown: which pages another order than the index's own shows and
hides is worked out once and kept in the index, by its folders.
"""

from __future__ import annotations

from array import array

from dowsing.index.applying import Applying
from dowsing.index.schema import GONE, NOWHERE
from dowsing.model.paths import stored

TYPE_CHECKING = False
if TYPE_CHECKING:
    import sqlite3

    from dowsing.index.store import Store

MOST_ORDERS = 8  # that are kept; the oldest go first

_TWINS = """
SELECT DISTINCT e.id, e.name, e.section, e.place, e.hidden
    FROM entries h INDEXED BY shadowed_entries
    JOIN names o ON o.entry=h.id AND o.alias=0 JOIN names n ON n.key=o.key
    JOIN entries e ON e.id=n.entry
    WHERE h.hidden=2 AND e.name=h.name AND e.section=h.section
"""


def narrow(store: Store, roots: list[str]) -> bool:
    """Have the store see the entries of these manual folders alone, in their order; whether the
    index had kept what that changes. Raises Unusable.
    """
    known = store.roots
    ranks = {place: roots.index(root) for place, root in enumerate(known) if root in roots}
    others = ",".join(str(place) for place, root in enumerate(known) if root and place not in ranks)
    in_own_order = list(ranks.values()) == sorted(ranks.values())
    if in_own_order and not others:
        return True
    kept = store.rows("SELECT raised, lowered FROM orders WHERE roots=?", (_key(roots),))
    if kept:
        raised, lowered = (frozenset(memoryview(one).cast("I")) for one in kept[0])
    else:
        raised, lowered = _changed(store.rows(_TWINS), ranks)
    if raised or lowered or others:
        store.applying = Applying({NOWHERE: NOWHERE, **ranks}, others, raised, lowered)
    return bool(kept) or not (raised or lowered)


def keep_orders(db: sqlite3.Connection, known: list[str], roots: list[str]) -> None:
    """Write what the order of these manual folders changes, and work out anew what others did.
    `known`: the folders that the index is made of.
    """
    keys = [row[0] for row in db.execute("SELECT roots FROM orders")]
    wanted = [_key(roots), *(key for key in keys if key != _key(roots))][:MOST_ORDERS]
    db.execute("DELETE FROM orders")
    twins = db.execute(_TWINS).fetchall()
    for key in wanted:
        order = key.split("\n")
        ranks = {
            place: order.index(stored(root))
            for place, root in enumerate(known)
            if stored(root) in order
        }
        raised, lowered = _changed(twins, ranks)
        if raised or lowered:
            values = (key, _packed(raised), _packed(lowered))
            db.execute("INSERT INTO orders VALUES(?,?,?)", values)


def _key(roots: list[str]) -> str:
    return stored("\n".join(roots))


def _packed(numbers: frozenset[int]) -> bytes:
    return array("I", sorted(numbers)).tobytes()


def _changed(
    twins: list[tuple[int, str, str, int, int]], ranks: dict[int, int]
) -> tuple[frozenset[int], frozenset[int]]:
    """The entries that are raised and lowered, of those that share a name and a section with others
    (number, name, section, folder, hidden).
    """
    groups: dict[tuple[str, str], list[tuple[int, int, bool]]] = {}
    for number, name, section, place, hidden in twins:
        if place in ranks and hidden != GONE:
            groups.setdefault((name, section), []).append((ranks[place], number, bool(hidden)))
    raised, lowered = set[int](), set[int]()
    for group in groups.values():
        first, *others = sorted(group)
        if first[2]:
            raised.add(first[1])
        lowered |= {number for _, number, hidden in others if not hidden}
    return frozenset(raised), frozenset(lowered)
