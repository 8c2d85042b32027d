"""Writing the index: nothing else does. What a row means is said in schema.py and rows.py."""

from __future__ import annotations

import os
import shutil
import sqlite3

from dowsing.index import schema
from dowsing.index.orders import keep_orders
from dowsing.index.rows import NO_PAGE, EntryRow, FileRow, PlaceKind, SearchRow
from dowsing.index.schema import COMMON_TEXT, GONE, HEADS, SHADOWED, TEXT
from dowsing.model.entry import ShellRow
from dowsing.model.paths import is_within, restored, stored

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable
    from typing import Self


class IndexWriter:
    """An index that is being written. Nobody reads it yet: see index_file.py."""

    def __init__(self, path: str) -> None:
        self.path = path
        self.db = sqlite3.connect(path)

    @classmethod
    def new(cls, path: str, prepared: str = "") -> Self:
        """A new file, which begins as a copy of the file `prepared`, if there is one. Raises
        sqlite3.Error, OSError.
        """
        if prepared:
            shutil.copyfile(prepared, path)
        writer = cls(path)
        writer.db.executescript(schema.FAST if prepared else schema.FAST + schema.TABLES)
        return writer

    @classmethod
    def opened(cls, path: str) -> Self:
        """A file that is there. Raises sqlite3.Error."""
        writer = cls(path)
        writer.db.executescript(schema.FAST)
        return writer

    def commit(self) -> None:
        """Have what was written hold."""
        self.db.commit()

    def close(self) -> None:
        """Close the file."""
        self.db.close()

    def finish_pages(self) -> None:
        """Make what speeds up look-ups, once the rows of a new file are in."""
        for statement in schema.INDEXES.split(";"):  # a script would commit what is not whole
            self.db.execute(statement)

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
                "UPDATE entries SET hidden=?, name='', aliases='' WHERE id=?", (GONE, number)
            )
            self.db.execute("DELETE FROM names WHERE entry=?", (number,))

    def insert_bodies(self, rows: Iterable[tuple[int, str]]) -> None:
        """Write the full texts of entries."""
        self.db.executemany("INSERT INTO bodies(rowid, text) VALUES(?,?)", rows)

    def insert_options(self, rows: Iterable[tuple[int, str, bytes | None]]) -> None:
        """Write the option lines of entries, and the packed tables of those that are commands."""
        self.db.executemany("INSERT INTO options VALUES(?,?,?)", rows)

    def option_lines(self, number: int) -> list[str]:
        """The option lines of an entry."""
        rows = self.db.execute("SELECT lines FROM options WHERE entry=?", (number,)).fetchall()
        return [line for (lines,) in rows for line in str(lines or "").split("\n") if line]

    def insert_defined(self, rows: Iterable[tuple[str, int, str, str]]) -> None:
        """Write the variables and files that entries define: name, entry, as it is written, what is
        said.
        """
        self.db.executemany("INSERT INTO defined VALUES(?,?,?,?)", rows)

    def insert_cards(self, rows: Iterable[tuple[int, bytes]]) -> None:
        """Write what cards show of the pages of entries, packed (model/page_facts.py)."""
        self.db.executemany("INSERT INTO cards VALUES(?,?)", rows)

    def labels_of(self, number: int) -> list[tuple[str, str]]:
        """The own name of an entry with its section."""
        return self.db.execute("SELECT name, section FROM entries WHERE id=?", (number,)).fetchall()

    def entries_named(self, name: str, section: str, places: Iterable[int]) -> set[int]:
        """The entries of manual folders of these numbers whose own name that is."""
        marks = ",".join(map(str, places))
        rows = self.db.execute(
            "SELECT n.entry FROM names n JOIN entries e ON e.id=n.entry WHERE n.key=? AND n.name=? "
            f"AND n.section=? AND n.alias=0 AND e.place IN ({marks})",
            (name.casefold(), name, section),
        )
        return {row[0] for row in rows}

    def settle_twins(self, labels: Iterable[tuple[str, str]]) -> None:
        """Of several entries with one of these names and sections have the first be shown."""
        sql = (
            "SELECT e.id FROM names n JOIN entries e ON e.id=n.entry WHERE n.key=? AND n.alias=0 "
            "AND e.name=? AND e.section=? ORDER BY e.place, e.id"
        )
        for name, section in labels:
            numbers = [row[0] for row in self.db.execute(sql, (name.casefold(), name, section))]
            self.db.executemany(
                "UPDATE entries SET hidden=? WHERE id=?",
                [(SHADOWED if n else 0, number) for n, number in enumerate(numbers)],
            )

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
            "SELECT name, section, kind, summary, package, family, path, id FROM entries "
            "WHERE section IN ('', 'builtin') AND name<>''"
        )
        return [
            (
                EntryRow(
                    0, [(name, section)], kind, summary, "", "", package, family, restored(path)
                ),
                number,
            )
            for name, section, kind, summary, package, family, path, number in rows.fetchall()
        ]

    def commands_in(self, folders: set[str]) -> list[str]:
        """The names of the commands without a page that are in these folders."""
        return [name for name, folder in self._pageless_commands() if folder in folders]

    def commands_outside(self, folders: set[str]) -> set[str]:
        """The names of those that are not in these folders."""
        return {name for name, folder in self._pageless_commands() if folder not in folders}

    def _pageless_commands(self) -> list[tuple[str, str]]:
        rows = self.db.execute(
            "SELECT name, path FROM entries WHERE section='' AND kind='command' AND name<>''"
        )
        return [(name, os.path.dirname(restored(path))) for name, path in rows]

    def paged_now(self) -> list[int]:
        """The entries without a page of commands that have one now."""
        rows = self.db.execute(
            "SELECT e.id FROM entries e JOIN names o ON o.entry=e.id JOIN names n ON n.key=o.key "
            "AND n.name=o.name AND substr(n.section,1,1) IN ('1','6','8') "
            "WHERE e.section='' AND NOT e.hidden"
        )
        return [row[0] for row in rows]

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

    def insert_doings(self, rows: Iterable[tuple[str, str, bytes, bytes]]) -> None:
        """Write which entries do something, or do it to something: verbs or nouns, the word, the
        numbers of the entries, and the place of the word among those of each (0 the first).
        """
        self.db.executemany("INSERT INTO doings VALUES(?,?,?,?)", rows)

    def insert_search_rows(self, rows: Iterable[SearchRow]) -> None:
        """Write what is said of entries in summaries and tasks."""
        self.db.executemany(
            "INSERT INTO said VALUES(?,?,?,?,?)",
            (
                (
                    one.number,
                    one.summary_terms,
                    "\n".join(one.tasks),
                    "\n".join(one.task_terms),
                    int(one.special),
                )
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

    def page_files(self, places: set[int], within: list[str]) -> dict[str, FileRow]:
        """The files of pages by their paths: those of entries of manual folders of these numbers,
        and those `within` these folders that have no entry.
        """
        rows = self.db.execute(
            "SELECT f.path, f.modified, f.size, f.entry, f.problem, e.place FROM files f "
            "LEFT JOIN entries e ON e.id=f.entry WHERE f.modified"
        )
        found = {}
        for path, modified, size, entry, problem, place in rows:
            file = restored(path)
            if is_within(file, within) if place is None else place in places:
                found[file] = FileRow(file, modified, size, entry, problem)
        return found

    def count_pages(self) -> int:
        """How many pages there are, with those that could not be read."""
        return self._value(
            "SELECT count(DISTINCT entry) + count(*) - count(entry) FROM files WHERE modified"
        )

    def forget_files(self, paths: Iterable[str]) -> None:
        """Take files out, and all that only told of trouble with pages, which is told anew."""
        self.db.executemany("DELETE FROM files WHERE path=?", ((stored(path),) for path in paths))
        self.db.execute("DELETE FROM files WHERE modified=0 AND size=0")

    def insert_trouble(self, kind: PlaceKind, path: str, folder: str, says: str) -> None:
        """Note what could not be taken up."""
        row = (stored(path), stored(folder), NO_PAGE[kind], says)
        self.db.execute("INSERT OR REPLACE INTO files VALUES(?,?,0,?,NULL,?)", row)

    def keep_orders(self, known: list[str], roots: list[str]) -> None:
        """Keep what the order of the manual folders `roots` changes (see orders.py). `known`:
        those that the index is made of.
        """
        keep_orders(self.db, known, roots)

    def set_manual_folders(self, folders: dict[str, int], within: list[str] | None = None) -> None:
        """The manual folders that were looked through, with their modification times (ns): all, or
        those `within` these.
        """
        sql = "SELECT path FROM folders WHERE kind=?"
        known = [row[0] for row in self.db.execute(sql, (PlaceKind.MANUAL,))]
        gone = [path for path in known if within is None or is_within(restored(path), within)]
        self.db.executemany("DELETE FROM folders WHERE path=?", ((path,) for path in gone))
        rows = ((stored(path), modified, PlaceKind.MANUAL) for path, modified in folders.items())
        self.db.executemany("INSERT OR REPLACE INTO folders VALUES(?,?,?)", rows)

    def other_places(self) -> dict[str, tuple[int, PlaceKind]]:
        """The other places that were looked at, with their modification times (ns) and kinds."""
        kinds = [kind for kind in PlaceKind if kind != PlaceKind.MANUAL]
        of_kinds = ",".join("?" * len(kinds))
        rows = self.db.execute(
            f"SELECT path, modified, kind FROM folders WHERE kind IN ({of_kinds})", kinds
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
        self.db.execute("DELETE FROM files WHERE size=?", (NO_PAGE[PlaceKind.SHELL],))

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
        self.db.execute("DELETE FROM files WHERE size=?", (NO_PAGE[PlaceKind.INFO],))

    def insert_info_names(
        self, path: str, manual: str, rows: Iterable[tuple[str, str, int]]
    ) -> None:
        """Write names with the node of a manual that each leads to, and how sure that is."""
        self.db.executemany(
            "INSERT INTO info_names VALUES(?,?,?,?,?)",
            ((name, stored(path), manual, node, rank) for name, node, rank in rows),
        )

    def info_manuals(self) -> dict[str, str]:
        """The Info manuals that no page has the name of, each with its file."""
        rows = self.db.execute(
            "SELECT manual, path FROM info_names WHERE name = manual AND lower(manual) NOT IN "
            "(SELECT key FROM names WHERE section <> '') ORDER BY rank, rowid DESC"
        )
        return {manual: restored(path) for manual, path in rows}

    def set_programs(self, folders: Iterable[str], owned: Iterable[tuple[str, str]]) -> None:
        """The programs in folders of PATH with their packages, in the place of those known."""
        for folder in folders:
            begin = stored(os.path.join(folder, ""))
            self.db.execute(
                "DELETE FROM programs WHERE path>=? AND path<?", (begin, begin + "\U0010ffff")
            )
        rows = ((stored(path), package) for path, package in owned)
        self.db.executemany("INSERT OR IGNORE INTO programs VALUES(?,?)", rows)

    # --- the index itself
    # ----------------------------------------------------------------------------

    def meta_value(self, key: schema.Meta) -> str:
        """A value that the index keeps beside its entries, "" for none."""
        row = self.db.execute("SELECT value FROM meta WHERE key=?", (key,)).fetchone()
        return str(row[0]) if row else ""

    def roots(self) -> list[str]:
        """The manual folders that it is made of (Store.roots)."""
        kept = self.meta_value(schema.Meta.ROOTS)
        return restored(kept).split("\n") if kept else []

    def set_meta(self, key: schema.Meta, value: str) -> None:
        """A value that the index keeps beside its entries."""
        self.db.execute("INSERT OR REPLACE INTO meta VALUES(?,?)", (key, value))

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
        SHADOWED if one.hidden else 0,
        one.verbs,
        one.nouns,
    )


def _name_rows(one: EntryRow) -> list[tuple[object, ...]]:
    return [
        (name.casefold(), name, section, one.number, int(n > 0))
        for n, (name, section) in enumerate(one.names)
    ]
