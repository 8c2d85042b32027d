"""What of the index applies to a run: it holds what was read of all manual folders that the user
has ever had in use, and a look-up is to see those of its own MANPATH and PATH alone.

Where those are not all, views of this connection alone stand before the tables: statements see the
entries that apply, in the order of search that applies.
"""

from __future__ import annotations

from dowsing.index.schema import GONE, NOWHERE, SHADOWED

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store

_TABLES = """
PRAGMA temp_store = MEMORY;
CREATE TEMP TABLE applying(place INTEGER PRIMARY KEY, rank INTEGER);
CREATE TEMP TABLE raised(id INTEGER PRIMARY KEY);
CREATE TEMP TABLE lowered(id INTEGER PRIMARY KEY);
"""
_VIEWS = """
CREATE TEMP VIEW entries AS SELECT m.id AS id, m.name AS name, m.section AS section,
    m.aliases AS aliases, m.kind AS kind, m.summary AS summary, m.package AS package,
    m.family AS family, m.path AS path, m.verbs AS verbs, m.nouns AS nouns,
    (SELECT rank FROM applying WHERE applying.place=m.place) AS place,
    (m.hidden AND m.id NOT IN (SELECT id FROM raised)) OR m.id IN (SELECT id FROM lowered) AS hidden
    FROM main.entries m WHERE m.place IN (SELECT place FROM applying);
CREATE TEMP VIEW names AS SELECT n.rowid AS rowid, n.key AS key, n.name AS name,
    n.section AS section, n.entry AS entry, n.alias AS alias FROM main.names n
    WHERE EXISTS(SELECT 1 FROM main.entries m WHERE m.id=n.entry
        AND m.place IN (SELECT place FROM applying));
"""
_TWINS = """
SELECT DISTINCT e.id, e.name, e.section, e.place, e.hidden FROM main.entries h
    JOIN main.names o ON o.entry=h.id AND o.alias=0 JOIN main.names n ON n.key=o.key
    JOIN main.entries e ON e.id=n.entry
    WHERE h.hidden=? AND e.name=h.name AND e.section=h.section
"""


def narrow(store: Store, roots: list[str]) -> None:
    """Have the store see the entries of these manual folders alone, in their order. Raises
    Unusable.
    """
    ranks = {place: roots.index(root) for place, root in enumerate(store.roots) if root in roots}
    store.db.executescript(_TABLES)
    rows = [(NOWHERE, 0), *ranks.items()]
    store.db.executemany("INSERT INTO applying VALUES(?,?)", rows)
    _settle_twins(store, ranks)
    store.db.executescript(_VIEWS)
    store.is_narrowed = True


def _settle_twins(store: Store, ranks: dict[int, int]) -> None:
    """Of several pages with one name and section the first in this order of search is shown."""
    twins: dict[tuple[str, str], list[tuple[int, int, bool]]] = {}
    for number, name, section, place, hidden in store.rows(_TWINS, (SHADOWED,)):
        if place in ranks and hidden != GONE:
            twins.setdefault((name, section), []).append((ranks[place], number, bool(hidden)))
    for group in twins.values():
        first, *others = sorted(group)
        if first[2]:
            store.db.execute("INSERT INTO raised VALUES(?)", (first[1],))
        store.db.executemany(
            "INSERT INTO lowered VALUES(?)",
            [(number,) for _, number, hidden in others if not hidden],
        )
