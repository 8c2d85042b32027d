"""Writing the index: the only place that does. What a row means is said in schema.py and at the
records here.
"""

from __future__ import annotations

import contextlib
import os
import sqlite3
from enum import StrEnum

from dowsing.index import schema
from dowsing.index.schema import COMMON_TEXT, HEADS, TEXT
from dowsing.index.store import Store
from dowsing.model.entry import ShellRow
from dowsing.model.errors import Unusable
from dowsing.model.paths import restored, stored
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable


class EntryRow(Record):
    """An entry as it is written. `names` are all its names with their sections, its own first;
    `path` its file, "" without; `place` that of the file in the order of search; `hidden`: others
    stand before it.
    """

    number: int
    names: list[tuple[str, str]]
    kind: str
    summary: str
    verbs: str
    nouns: str
    package: str | None = None
    family: str | None = None
    path: str = ""
    place: int = 0
    hidden: bool = False

    @property
    def alias_labels(self) -> list[str]:
        """The other names; those of another section with it."""
        own = self.names[0][1]
        return [
            name if section == own else f"{name}({section})" for name, section in self.names[1:]
        ]


class FileRow(Record):
    """A file of pages: modification time (ns) and size of itself, the number of its entry, what is
    wrong with it.
    """

    path: str
    modified: int
    size: int
    entry: int | None
    problem: str | None


class SearchRow(Record):
    """The terms of an entry's summary, its tasks in words, and the terms of each."""

    number: int
    summary_terms: str
    tasks: list[str]
    task_terms: list[str]


class PlaceKind(StrEnum):
    """What a watched folder or file holds."""

    MANUAL = "manual"
    PATH = "path"
    INFO = "info"
    SHELL = "shell"


#: What stands as the size of what could not be taken up and is no page, to tell it from pages.
_NO_PAGE = {PlaceKind.SHELL: -1, PlaceKind.INFO: -2}


class IndexWriter:
    """An index that is written: a new one, or one that others read meanwhile."""

    def __init__(self, db: sqlite3.Connection) -> None:
        self.db = db

    @classmethod
    def new(cls, path: str) -> IndexWriter:
        """A new file, which nobody reads yet."""
        db = sqlite3.connect(path)
        db.executescript(schema.FAST + schema.TABLES)
        return cls(db)

    @classmethod
    def locked(cls, store: Store) -> IndexWriter:
        """An index that is there, with nobody else writing until `commit` or `undo`. Raises
        Unusable, sqlite3.Error.
        """
        db = Store(store.path, writable=True).db
        db.execute("BEGIN IMMEDIATE")
        return cls(db)

    def commit(self) -> None:
        """Have what was written hold."""
        self.db.commit()

    def undo(self) -> None:
        """Leave everything as it was before."""
        self.db.rollback()

    def close(self) -> None:
        """Close the file."""
        self.db.close()

    def finish_pages(self) -> None:
        """Make what speeds up look-ups, once the rows of a new file are in."""
        self.db.executescript(schema.INDEXES)

    # --- entries
    # -------------------------------------------------------------------------------------

    def next_number(self) -> int:
        """The number that the next entry gets; numbers are not used again."""
        return int(self._value("SELECT coalesce(max(id), 0) FROM entries")) + 1

    def insert_entries(self, rows: Iterable[EntryRow]) -> None:
        """Write entries with their names."""
        entries = list(rows)
        last = self._value("SELECT coalesce(max(rowid), 0) FROM names")
        self.db.executemany(
            "INSERT INTO entries VALUES(?,?,?,?,?,?,?,?,?,?,?,?,?)", map(_entry_values, entries)
        )
        self.db.executemany(
            "INSERT INTO names VALUES(?,?,?,?,?)",
            (row for one in entries for row in _name_rows(one)),
        )
        self.db.execute(
            "INSERT INTO pieces(rowid, key) SELECT rowid, key FROM names WHERE rowid>?", (last,)
        )

    def hide(self, numbers: Iterable[int]) -> None:
        """Take entries out. The number of one is not used again, for its text stays in the full
        text.
        """
        for number in numbers:
            self.db.execute(
                "UPDATE entries SET hidden=1, name='', aliases='' WHERE id=?", (number,)
            )
            self.db.execute("DELETE FROM names WHERE entry=?", (number,))

    def insert_bodies(self, rows: Iterable[tuple[int, str]]) -> None:
        """Write the full texts of entries."""
        self.db.executemany("INSERT INTO bodies(rowid, text) VALUES(?,?)", rows)

    def insert_options(self, rows: Iterable[tuple[int, str, bytes | None]]) -> None:
        """Write the option lines of entries, and the packed tables of those that are commands."""
        self.db.executemany("INSERT INTO options VALUES(?,?,?)", rows)

    def labels_of(self, number: int) -> list[tuple[str, str]]:
        """The own name of an entry with its section."""
        return self.db.execute("SELECT name, section FROM entries WHERE id=?", (number,)).fetchall()

    def entries_named(self, name: str, section: str) -> set[int]:
        """The entries whose own name that is."""
        rows = self.db.execute(
            "SELECT entry FROM names WHERE key=? AND name=? AND section=? AND alias=0",
            (name.casefold(), name, section),
        )
        return {row[0] for row in rows}

    def is_shadowed(self, name: str, section: str, place: int) -> bool:
        """Whether an entry of that name and section is shown whose file comes before that place of
        the search.
        """
        sql = "SELECT 1 FROM entries WHERE name=? AND section=? AND place<? AND NOT hidden"
        return self.db.execute(sql, (name, section, place)).fetchone() is not None

    def families(self) -> set[str]:
        """The families there are."""
        return {
            row[0]
            for row in self.db.execute(
                "SELECT DISTINCT family FROM entries WHERE family IS NOT NULL"
            )
        }

    def family_sizes(self) -> dict[str, int]:
        """How many shown entries each family has."""
        sql = "SELECT family, count(*) FROM entries WHERE family<>'' AND NOT hidden GROUP BY family"
        return dict(self.db.execute(sql))

    def pageless(self) -> list[tuple[EntryRow, int]]:
        """The entries that have no page, with their numbers; without verbs and nouns."""
        rows = self.db.execute(
            "SELECT name, section, kind, summary, package, path, id FROM entries "
            "WHERE section IN ('', 'builtin') AND name<>''"
        )
        return [
            (
                EntryRow(
                    0, [(name, section)], kind, summary, "", "", package, None, restored(path)
                ),
                number,
            )
            for name, section, kind, summary, package, path, number in rows.fetchall()
        ]

    def names_in_sections(self, first: tuple[str, ...]) -> set[str]:
        """All names of pages in sections that begin so."""
        marks = ",".join("?" * len(first))
        return {
            row[0]
            for row in self.db.execute(
                f"SELECT name FROM names WHERE substr(section,1,1) IN ({marks})", first
            )
        }

    # --- words
    # ---------------------------------------------------------------------------------------

    def insert_related(self, rows: Iterable[tuple[str, str, float]]) -> None:
        """Write terms that stand for others: the term, the other, how much it counts."""
        self.db.executemany("INSERT INTO related VALUES(?,?,?)", rows)

    def insert_joined(self, rows: Iterable[tuple[str, str]]) -> None:
        """Write words said apart with the one that stands for them."""
        self.db.executemany("INSERT OR IGNORE INTO joined VALUES(?,?)", rows)

    def insert_meanings(self, rows: Iterable[tuple[str, str, str, str]]) -> None:
        """Write words of groups: verbs or nouns, the word, its term, the word that stands for the
        group.
        """
        self.db.executemany("INSERT INTO meanings VALUES(?,?,?,?)", rows)

    def insert_postings(self, part: int, rows: Iterable[tuple[str, float, bytes, bytes]]) -> None:
        """Write which entries have a term in a part: the term, how common it is, numbers and fields
        of the entries.
        """
        self.db.executemany(
            "INSERT INTO postings VALUES(?,?,?,?,?)", ((term, part, *rest) for term, *rest in rows)
        )

    def insert_search_rows(self, rows: Iterable[SearchRow]) -> None:
        """Write what is said of entries in summaries and tasks."""
        self.db.executemany(
            "INSERT INTO said VALUES(?,?,?,?)",
            (
                (one.number, one.summary_terms, "\n".join(one.tasks), "\n".join(one.task_terms))
                for one in rows
            ),
        )

    def count_words(self, rows: Iterable[tuple[str, str, int]]) -> None:
        """Add to how often words occur: the word, its term, how often more."""
        sql = (
            "INSERT INTO words VALUES(?,?,?) ON CONFLICT(word) DO UPDATE SET "
            "count=count+excluded.count"
        )
        self.db.executemany(sql, rows)

    def insert_static_ranks(self, first: int, ranks: bytes, families: bytes, weight: float) -> None:
        """Write the static ranks of entries from a number on, codes of their families, and how many
        entries they count for.
        """
        self.db.execute(
            "INSERT INTO static_ranks VALUES(?,?,?,?)", (first, ranks, families, weight)
        )

    def set_common_apart(self, spread: int, near: float) -> None:
        """Set the texts of terms apart that more than `spread` entries have in their heads, and
        drop the words that would only be near to them, which count at most `near`.
        """
        common = "SELECT term FROM postings WHERE part=? GROUP BY term HAVING sum(spread)>?"
        move = f"UPDATE postings SET part=? WHERE part=? AND term IN ({common})"
        self.db.execute(move, (COMMON_TEXT, TEXT, HEADS, spread))
        self.db.execute(
            f"DELETE FROM related WHERE weight<=? AND term IN ({common})", (near, HEADS, spread)
        )

    # --- files and folders
    # ---------------------------------------------------------------------------

    def insert_files(self, rows: Iterable[FileRow]) -> None:
        """Write which files there are."""
        paths = ((stored(one.path), one) for one in rows)
        self.db.executemany(
            "INSERT OR REPLACE INTO files VALUES(?,?,?,?,?,?)",
            (
                (path, os.path.dirname(path), one.modified, one.size, one.entry, one.problem)
                for path, one in paths
            ),
        )

    def page_files(self) -> dict[str, FileRow]:
        """The files of pages by their paths."""
        rows = self.db.execute(
            "SELECT path, modified, size, entry, problem FROM files WHERE modified"
        )
        return {restored(path): FileRow(restored(path), *rest) for path, *rest in rows}

    def forget_files(self, paths: Iterable[str]) -> None:
        """Take files out, and all that only told of trouble with pages, which is told anew."""
        self.db.executemany("DELETE FROM files WHERE path=?", ((stored(path),) for path in paths))
        self.db.execute("DELETE FROM files WHERE modified=0 AND size=0")

    def insert_trouble(self, kind: PlaceKind, path: str, folder: str, says: str) -> None:
        """Note what could not be taken up."""
        row = (stored(path), stored(folder), _NO_PAGE[kind], says)
        self.db.execute("INSERT OR REPLACE INTO files VALUES(?,?,0,?,NULL,?)", row)

    def set_manual_folders(self, folders: dict[str, int]) -> None:
        """The manual folders that were looked through, with their modification times (ns)."""
        self.db.execute("DELETE FROM folders WHERE kind=?", (PlaceKind.MANUAL,))
        rows = ((stored(path), modified, PlaceKind.MANUAL) for path, modified in folders.items())
        self.db.executemany("INSERT OR REPLACE INTO folders VALUES(?,?,?)", rows)

    def other_places(self) -> dict[str, tuple[int, PlaceKind]]:
        """The other places that were looked at, with their modification times (ns) and kinds."""
        kinds = [kind for kind in PlaceKind if kind != PlaceKind.MANUAL]
        rows = self.db.execute(
            "SELECT path, modified, kind FROM folders WHERE kind IN (?,?,?)", kinds
        )
        return {restored(path): (modified, PlaceKind(kind)) for path, modified, kind in rows}

    def set_other_places(self, places: dict[str, tuple[int, PlaceKind]]) -> None:
        """The same, written."""
        self.db.execute("DELETE FROM folders WHERE kind<>?", (PlaceKind.MANUAL,))
        rows = ((stored(path), modified, kind) for path, (modified, kind) in places.items())
        self.db.executemany("INSERT OR IGNORE INTO folders VALUES(?,?,?)", rows)

    # --- what is no page
    # -----------------------------------------------------------------------------

    def forget_shells(self) -> None:
        """Take out what shells said."""
        self.db.execute("DELETE FROM shell_names")
        self.db.execute("DELETE FROM files WHERE size=?", (_NO_PAGE[PlaceKind.SHELL],))

    def insert_shell_names(self, rows: Iterable[ShellRow]) -> None:
        """Write what shells say of their names."""
        self.db.executemany(
            "INSERT INTO shell_names VALUES(?,?,?,?,?,?,?)",
            (
                (
                    one.shell,
                    stored(one.path),
                    one.name,
                    one.kind,
                    one.summary,
                    one.text,
                    "\n".join(one.manual),
                )
                for one in rows
            ),
        )

    def shell_names(self) -> list[ShellRow]:
        """What shells say of their names, names with a summary first."""
        sql = (
            "SELECT shell, path, name, kind, summary, text FROM shell_names ORDER BY "
            "summary='', rowid"
        )
        return [
            ShellRow(shell, restored(path), name, kind, summary, text, [])
            for shell, path, name, kind, summary, text in self.db.execute(sql).fetchall()
        ]

    def forget_info(self) -> None:
        """Take out what Info manuals have."""
        self.db.execute("DELETE FROM info_names")
        self.db.execute("DELETE FROM files WHERE size=?", (_NO_PAGE[PlaceKind.INFO],))

    def insert_info_names(
        self, path: str, manual: str, rows: Iterable[tuple[str, str, int]]
    ) -> None:
        """Write names with the node of a manual that each leads to, and how sure that is."""
        self.db.executemany(
            "INSERT INTO info_names VALUES(?,?,?,?,?)",
            ((name, stored(path), manual, node, rank) for name, node, rank in rows),
        )

    def set_programs(self, owned: Iterable[tuple[str, str]]) -> None:
        """The programs on PATH with their packages."""
        self.db.execute("DELETE FROM programs")
        rows = ((stored(path), package) for path, package in owned)
        self.db.executemany("INSERT OR IGNORE INTO programs VALUES(?,?)", rows)

    # --- the choice of recipes
    # ---------------------------------------------------------------------------

    def insert_task_recipes(self, rows: Iterable[tuple[int, str, str, int]]) -> None:
        """Recipes by number: packed, their wordings, and whether it changes anything."""
        self.db.executemany("INSERT INTO task_recipes VALUES(?,?,?,?)", rows)

    def insert_task_starts(self, rows: Iterable[tuple[int, float, int]]) -> None:
        """What each recipe begins with, and whether it takes conditions on files."""
        self.db.executemany("INSERT INTO task_starts VALUES(?,?,?)", rows)

    def insert_task_stems(self, rows: Iterable[tuple[str, float, float, bytes, bytes]]) -> None:
        """What stems say: for harm, for change, and for which recipes how much."""
        self.db.executemany("INSERT INTO task_stems VALUES(?,?,?,?,?)", rows)

    def insert_task_telling(self, rows: Iterable[tuple[str, float]]) -> None:
        """How telling stems are."""
        self.db.executemany("INSERT INTO task_telling VALUES(?,?)", rows)

    def insert_task_cues(self, rows: Iterable[tuple[str, str]]) -> None:
        """What words around a place say for each slot, as JSON."""
        self.db.executemany("INSERT INTO task_cues VALUES(?,?)", rows)

    # --- the index itself
    # ----------------------------------------------------------------------------

    def set_meta(self, key: schema.Meta, value: str) -> None:
        """A value that the index keeps beside its entries."""
        self.db.execute("INSERT OR REPLACE INTO meta VALUES(?,?)", (key, value))

    def insert_facts(self, facts: dict[str, str]) -> None:
        """What we know of commands, by their words, each as JSON."""
        self.db.executemany("INSERT INTO command_facts VALUES(?,?)", facts.items())

    def _value(self, sql: str) -> int:
        return int(self.db.execute(sql).fetchone()[0])


def _entry_values(one: EntryRow) -> tuple[object, ...]:
    name, section = one.names[0]
    return (
        one.number,
        name,
        section,
        "\n".join(one.alias_labels),
        one.kind,
        one.summary,
        one.package,
        one.family,
        stored(one.path),
        one.place,
        int(one.hidden),
        one.verbs,
        one.nouns,
    )


def _name_rows(one: EntryRow) -> list[tuple[object, ...]]:
    return [
        (name.casefold(), name, section, one.number, int(n > 0))
        for n, (name, section) in enumerate(one.names)
    ]


def note_mended(path: str, error: str) -> None:
    """Have the index say that it was made anew for this error, so that this is not done again and
    again.
    """
    with contextlib.suppress(sqlite3.Error, Unusable):
        writer = IndexWriter(Store(path, writable=True).db)
        writer.set_meta(schema.Meta.MENDED, error)
        writer.commit()
        writer.close()
