"""What the index knows of commands: how they are written, those that begin so, their
subcommands.
"""

from __future__ import annotations

from dowsing.index.store import COLUMNS, Store, entry_of
from dowsing.index.word_reader import static_ranks
from dowsing.model.paths import restored, stored

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.entry import Entry


def command_table(store: Store, path: str) -> bytes:
    """The packed table of the command that the page of that path documents, b"" if none is kept."""
    if store.pending and store.pending.is_outdated(path):
        return b""
    rows = store.rows(
        "SELECT o.command FROM files f JOIN options o ON o.entry=f.entry WHERE f.path=? AND "
        "o.command IS NOT NULL",
        (stored(path),),
    )
    return bytes(rows[0][0]) if rows else b""


def card_facts(store: Store, path: str) -> bytes:
    """What a card shows of the page of that path, packed; b"" if none is kept."""
    if store.pending and store.pending.is_outdated(path):
        return b""
    rows = store.rows(
        "SELECT c.facts FROM files f JOIN cards c ON c.entry=f.entry WHERE f.path=?",
        (stored(path),),
    )
    return bytes(rows[0][0]) if rows else b""


def has_subcommands(store: Store, program: str) -> bool:
    """Whether there is a page of a subcommand of the program."""
    key = program.casefold()
    rows = store.rows(
        "SELECT 1 FROM names n JOIN entries e ON e.id=n.entry WHERE n.key>? AND n.key<? AND "
        f"e.family=? AND e.kind='subcommand' AND {store.shown} LIMIT 1",
        (key, key + "\U0010ffff", program),
    )
    return bool(rows)


def commands_beginning(store: Store, beginning: str, most: int) -> list[Entry]:
    """Commands, builtins and keywords whose name begins so, those that rank best first."""
    key = beginning.casefold()
    rows = store.rows(
        f"SELECT {COLUMNS}, n.name, e.id FROM names n JOIN entries e ON e.id=n.entry WHERE "
        f"n.key>=? AND n.key<? AND {store.shown} AND e.kind IN ('command','builtin','keyword') "
        "AND (e.section='builtin' OR e.section='' OR substr(e.section,1,1) IN ('1','6','8'))",
        (key, key + "\U0010ffff"),
    )
    marks = static_ranks(store)
    found: dict[str, tuple[int, Entry]] = {}
    for row in rows:
        if row[10].startswith(beginning):
            mark = marks[row[11]] if row[11] < len(marks) else 0
            entry = entry_of(row).changed(name=row[10])
            if row[10] not in found or mark > found[row[10]][0]:
                found[row[10]] = (mark, entry)
    ranked = sorted(
        found.values(), key=lambda pair: (pair[1].name != beginning, -pair[0], pair[1].name)
    )
    return [entry for _, entry in ranked[:most]]


def subcommands_of(store: Store, program: str) -> list[Entry]:
    """The pages of the subcommands directly below a program, `git-add` below `git`."""
    found = []
    for joint in "-_":
        key = (program + joint).casefold()
        rows = store.rows(
            f"SELECT {COLUMNS} FROM names n JOIN entries e ON e.id=n.entry WHERE n.key>=? AND "
            f"n.key<? AND n.alias=0 AND e.kind='subcommand' AND {store.shown} ORDER BY n.key",
            (key, key + "\U0010ffff"),
        )
        found += [entry_of(row) for row in rows if joint not in row[0][len(key) :] or joint == "-"]
    return found


def names_beginning(store: Store, beginning: str, most: int) -> list[tuple[str, str]]:
    """Names of any kind that begin so, shortest first, each with the summary of its entry."""
    key = beginning.casefold()
    rows = store.rows(
        "SELECT n.name, e.summary FROM names n JOIN entries e ON e.id=n.entry WHERE n.key>=? AND "
        f"n.key<? AND {store.shown} ORDER BY length(n.name), n.name LIMIT ?",
        (key, key + "\U0010ffff", 2 * most),
    )
    return [(name, summary) for name, summary in dict(rows).items() if name.startswith(beginning)][
        :most
    ]


#: Commands that have no page, in SQL.
_PAGELESS = "entries WHERE section='' AND kind='command' AND name<>''"


def pageless_programs(store: Store) -> list[str]:
    """The files of the commands that have no page."""
    return [restored(str(path)) for (path,) in store.rows(f"SELECT path FROM {_PAGELESS}")]


def programs_of(store: Store, package: str) -> list[str]:
    """The files of a package's programs on PATH, by path."""
    rows = store.rows(
        "SELECT path FROM programs WHERE package=? UNION SELECT path FROM "
        f"{_PAGELESS} AND package=? ORDER BY path",
        (package, package),
    )
    return [restored(str(path)) for (path,) in rows]
