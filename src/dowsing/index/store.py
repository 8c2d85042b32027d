"""Opening the index and asking it: the only place that reads it."""

from __future__ import annotations

import os
import sqlite3

from dowsing.index import schema
from dowsing.index.index_file import address, damage_of, is_own_file
from dowsing.index.narrowing import ALL, Narrowing, listed
from dowsing.index.schema import Meta
from dowsing.model.entry import Candidate, Entry, InfoPlace, Match, Problem, ShellRow
from dowsing.model.errors import Unusable
from dowsing.model.paths import as_text, restored, stored

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable, Sequence
    from typing import Any

    from dowsing.index.applying import Applying
    from dowsing.index.pending import Pending

MOST_MATCHES = 4000
SHORTEST_PIECE = 3  # characters; shorter pieces of names have no index


COLUMNS = (
    "e.name, e.section, e.aliases, e.kind, e.summary, e.package, e.family, e.path, e.verbs, e.nouns"
)


class Store:
    """An open index. Raises Unusable when opened if the file is missing, damaged, of another layout
    or not one's own.

    `path`: the file. `memory`: what sources keep for the time of a run. `applying`: what of it
    applies to the run, None for all; `pending`: what came and went since it was made, None for
    nothing.
    """

    def __init__(self, path: str) -> None:
        self.path = path
        self.memory: dict[str, Any] = {}
        self.applying: Applying | None = None
        self.pending: Pending | None = None
        try:
            if not is_own_file(path):
                raise Unusable("the index is not a file of your own")
        except OSError:
            raise Unusable("there is no index yet") from None
        try:
            # nobody writes into this very file, so no lock is needed and nothing beside it counts
            self.db = sqlite3.connect(f"{address(path)}&immutable=1", uri=True)
            version = self.db.execute("PRAGMA user_version").fetchone()[0]
            self.db.execute("SELECT 1 FROM meta").fetchone()
        except (sqlite3.Error, UnicodeDecodeError) as error:
            raise Unusable(f"the index is damaged ({error})") from None
        if version != schema.VERSION:
            raise Unusable("the index is of another version")

    def close(self) -> None:
        """Close the file."""
        self.db.close()

    def rows(self, sql: str, values: Sequence[object] = ()) -> list[tuple]:  # type: ignore[type-arg]
        """The rows that the statement gives; only for this package. Raises Unusable if the file is
        damaged.
        """
        try:
            return self.db.execute(sql, tuple(values)).fetchall()
        except UnicodeEncodeError:  # bytes that are no text: nothing in the index has them
            return self.rows(
                sql, [as_text(value) if isinstance(value, str) else value for value in values]
            )
        except (sqlite3.DatabaseError, UnicodeDecodeError) as error:
            if _says_damaged(error) or damage_of(self.path):
                raise Unusable(f"the index is damaged ({error})") from None
            raise  # a fault of ours: the file is as it was written

    @property
    def shown(self) -> str:
        """The condition of SQL that an entry `e` is shown."""
        return self.applying.shown if self.applying else "NOT e.hidden"

    @property
    def applies(self) -> str:
        """The condition of SQL, which goes on from another, that an entry `e` applies to this
        run.
        """
        return self.applying.applies if self.applying else ""

    # --- entries by name
    # -----------------------------------------------------------------------------

    def named(self, name: str, section: str = "") -> list[Entry]:
        """The entries of that name or alias, exact case first; those of a section if one is given.

        `3` as a section takes in `3pm`.
        """
        rows = self.rows(
            f"SELECT {COLUMNS}, n.name, n.section, n.alias, e.place FROM names n JOIN entries e ON "
            "e.id=n.entry "
            "WHERE n.key=? AND (?='' OR n.section=? OR substr(n.section,1,length(?))=?)"
            f"{self.applies}",
            (name.casefold(), section, section, section, section),
        )
        exact = [row for row in rows if row[10] == name] or rows
        rank = self.applying.ranks.get if self.applying else dict[int, int]().get
        exact.sort(
            key=lambda row: (
                section != "" and row[11] != section,
                rank(row[13], row[13]),
                row[12],
            )
        )
        found = [entry_of(row) for row in exact]
        return self.pending.corrected(name, section, found) if self.pending else found

    def entries(self, numbers: list[int]) -> list[Entry]:
        """The entries of these numbers, in their order."""
        rows: dict[int, tuple] = {}  # type: ignore[type-arg]
        for start in range(0, len(numbers), 500):
            part = numbers[start : start + 500]
            marks = ",".join("?" * len(part))
            for row in self.rows(
                f"SELECT {COLUMNS}, e.id FROM entries e WHERE e.id IN ({marks}){self.applies}", part
            ):
                rows[row[10]] = row
        return [entry_of(rows[number]) for number in numbers if number in rows]

    def of_package(self, package: str) -> list[Entry]:
        """The entries of a package."""
        return self._entries("e.package=?", package)

    def of_family(self, family: str) -> list[Entry]:
        """The entries of a family, the program itself first."""
        return self._entries("e.family=?", family)

    def _entries(self, condition: str, value: str) -> list[Entry]:
        sql = (
            f"SELECT {COLUMNS} FROM entries e WHERE {condition} AND {self.shown} ORDER BY "
            "length(e.name), e.name"
        )
        return [entry_of(row) for row in self.rows(sql, (value,))]

    def all_names(self) -> list[tuple[str, str]]:
        """Every name and alias with its section."""
        if not self.applying:
            rows = self.rows("SELECT DISTINCT name, section FROM names")
            return [(row[0], row[1]) for row in rows]
        elsewhere = self._elsewhere()
        rows = self.rows("SELECT name, section, entry FROM names")
        return list(dict.fromkeys((row[0], row[1]) for row in rows if row[2] not in elsewhere))

    def candidates(self, numbers: Iterable[int]) -> list[Candidate]:
        """The entries of these numbers that are shown, in no order."""
        rows = self.rows(
            "SELECT id, name, section, family, summary FROM entries e WHERE id IN (SELECT value "
            f"FROM json_each(?)) AND {self.shown}",
            (listed(numbers),),
        )
        return [Candidate(*row) for row in rows]

    def hidden(self) -> set[int]:
        """The numbers of entries that are not shown: others stand before them, their pages are
        gone, or they do not apply.
        """
        rows = self.rows("SELECT id FROM entries INDEXED BY hidden_entries WHERE hidden")
        found = {row[0] for row in rows}
        if self.applying:
            found = (found - self.applying.raised) | self.applying.lowered | self._elsewhere()
        return found

    def _elsewhere(self) -> set[int]:
        """The numbers of the entries that do not apply to this run."""
        others = self.applying.others if self.applying else ""
        return {row[0] for row in self.rows(f"SELECT id FROM entries WHERE place IN ({others})")}

    def tally(self, column: str, numbers: Iterable[int]) -> list[tuple[str, int]]:
        """The values of a column among entries of these numbers, counted as in `vocabulary`."""
        return self._tallied(column, "e.id IN (SELECT value FROM json_each(?))", [listed(numbers)])

    def all_matches(self, within: Narrowing = ALL) -> list[Match]:
        """All entries."""
        rows = self.rows(
            "SELECT e.id, 0, e.name, e.section, e.family FROM entries e WHERE "
            f"{self.shown}{within.condition}",
            within.values,
        )
        return [Match(*row) for row in rows]

    def places(self, within: Narrowing = ALL) -> list[tuple[str, str, str, str]]:
        """Label, kind, package and family ("" for none) of all entries."""
        rows = self.rows(
            "SELECT CASE e.section WHEN '' THEN e.name ELSE e.name||'('||e.section||')' END, "
            "e.kind, ifnull(e.package,''), ifnull(e.family,'') FROM entries e WHERE "
            f"{self.shown}{within.condition} ORDER BY e.id",
            within.values,
        )
        return [(row[0], row[1], row[2], row[3]) for row in rows]

    def vocabulary(self, column: str, within: Narrowing = ALL) -> list[tuple[str, int]]:
        """The values of a column with the number of entries, the most frequent first.

        The columns are `package`, `family`, `kind`, and `verbs` and `nouns`, of which each word
        counts.
        """
        return self._tallied(column, f"{self.shown}{within.condition}", within.values)

    def _tallied(self, column: str, condition: str, values: list[str]) -> list[tuple[str, int]]:
        found: dict[str, int] = {}
        sql = (
            f"SELECT e.{column}, count(*) FROM entries e WHERE e.{column}<>'' AND {condition} "
            "GROUP BY 1"
        )
        for value, count in self.rows(sql, values):
            for one in value.split() if column in ("verbs", "nouns") else [value]:
                found[one] = found.get(one, 0) + count
        return sorted(found.items(), key=lambda pair: (-pair[1], pair[0]))

    def matching_names(self, pattern: str, within: Narrowing = ALL) -> list[Match]:
        """The entries with a name that the shell pattern (`*`, `?`, `[…]`) matches, whole and
        without case.

        Where the pattern has three plain characters in a row, only names with these are tried.
        """
        return self._names(
            "n.key GLOB ?",
            pattern.casefold(),
            max(_plain_runs(pattern), key=len, default=""),
            within,
        )

    def numbers_named(self, names: list[str]) -> list[int]:
        """The numbers of the entries that have one of these names (in lower case)."""
        marks = ",".join("?" * len(names))
        return [
            row[0]
            for row in self.rows(f"SELECT DISTINCT entry FROM names WHERE key IN ({marks})", names)
        ]

    def numbers_holding(self, piece: str) -> list[int]:
        """The numbers of the entries with a name that has `piece` in it."""
        piece = piece.casefold()
        if len(piece) < SHORTEST_PIECE:
            return [
                row[0] for row in self.rows("SELECT entry FROM names WHERE instr(key, ?)", (piece,))
            ]
        rows = self.rows(
            "SELECT entry FROM names WHERE rowid IN (SELECT rowid FROM pieces WHERE pieces "
            "MATCH ?)",
            (_quoted(piece),),
        )
        return [row[0] for row in rows]

    def _names(self, condition: str, value: str, run: str, within: Narrowing) -> list[Match]:
        if len(run) >= SHORTEST_PIECE:
            condition += " AND n.rowid IN (SELECT rowid FROM pieces WHERE pieces MATCH ?)"
        rows = self.rows(
            "SELECT e.id, min(n.alias), e.name, e.section, e.family FROM names n JOIN entries e ON "
            "e.id=n.entry "
            f"WHERE {condition} AND {self.shown}{within.condition} GROUP BY e.id",
            [
                value,
                *([_quoted(run.casefold())] if len(run) >= SHORTEST_PIECE else []),
                *within.values,
            ],
        )
        return [Match(*row) for row in rows]

    # --- what is not a page
    # --------------------------------------------------------------------------

    def in_shells(self, name: str) -> list[ShellRow]:
        """What the shells know of the name."""
        return self._shell_rows("WHERE name=? ORDER BY rowid", (name,))

    def shell_names(self, shell: str) -> list[ShellRow]:
        """All names of a shell."""
        return self._shell_rows("WHERE shell=? ORDER BY rowid", (shell,))

    def names_in_shell(self, shell: str) -> set[str]:
        """The names that a shell knows, without what it says of them."""
        return {row[0] for row in self.rows("SELECT name FROM shell_names WHERE shell=?", (shell,))}

    def shell_keywords(self, shell: str) -> list[ShellRow]:
        """The keywords of a shell."""
        return self._shell_rows("WHERE shell=? AND kind='keyword' ORDER BY rowid", (shell,))

    def _shell_rows(self, condition: str, values: tuple[str, ...]) -> list[ShellRow]:
        rows = self.rows(
            f"SELECT shell, path, name, kind, summary, text, manual FROM shell_names {condition}",
            values,
        )
        return [
            ShellRow(
                shell,
                restored(path),
                name,
                kind,
                summary,
                text,
                manual.split("\n") if manual else [],
            )
            for shell, path, name, kind, summary, text, manual in rows
        ]

    def shells(self) -> list[str]:
        """The names of the shells that were asked, in order."""
        return [
            row[0]
            for row in self.rows("SELECT shell FROM shell_names GROUP BY shell ORDER BY min(rowid)")
        ]

    def package_of(self, path: str) -> str | None:
        """The package of a program on PATH, None if none is known."""
        rows = self.rows("SELECT package FROM programs WHERE path=?", (stored(path),))
        return str(rows[0][0]) if rows else None

    def labelled(self, label: str) -> Entry | None:
        """The entry of a label (`tar(1)`), None if there is none."""
        name, _, section = label.rstrip(")").rpartition("(")
        return next((one for one in self.named(name, section) if one.label == label), None)

    def info_places(self, name: str) -> list[InfoPlace]:
        """The nodes that the name leads to, the surest first."""
        rows = self.rows(
            "SELECT path, manual, node FROM info_names WHERE name=? ORDER BY rank, manual<>name, "
            "rowid",
            (name,),
        )
        return [InfoPlace(restored(row[0]), row[1], row[2]) for row in rows]

    # --- words
    # ---------------------------------------------------------------------------------------

    def in_bodies(self, words: list[str], within: Narrowing = ALL) -> list[Match]:
        """Entries with all words in their text."""
        most = -1 if within else MOST_MATCHES  # what is narrowed to may be far down
        rows = self.rows(
            "SELECT t.rowid, t.score, e.name, e.section, e.family FROM (SELECT rowid, bm25(bodies) "
            "AS score "
            f"FROM bodies WHERE bodies MATCH ? ORDER BY score LIMIT {most}) t "
            f"JOIN entries e ON e.id=t.rowid WHERE {self.shown}{within.condition}",
            [match_expression(words), *within.values],
        )
        return [Match(*row) for row in rows]

    # --- the index itself
    # ----------------------------------------------------------------------------

    def meta_value(self, key: Meta) -> str:
        """One of the values that the index keeps beside its entries, "" if it has none of that
        name.
        """
        rows = self.rows("SELECT value FROM meta WHERE key=?", (key,))
        return str(rows[0][0]) if rows else ""

    @property
    def roots(self) -> list[str]:
        """The manual folders that it was made of, in the order in which it came to know them; ""
        for one that is no more.
        """
        kept = self.meta_value(Meta.ROOTS)
        return restored(kept).split("\n") if kept else []

    @property
    def is_whole(self) -> bool:
        """Whether it has all of the pages, and not their heads alone."""
        return self.meta_value(Meta.DEPTH) == schema.Depth.WHOLE

    @property
    def built(self) -> int:
        """When it was built, in seconds since 1970."""
        return int(self.meta_value(Meta.BUILT) or 0)

    @property
    def pages(self) -> int:
        """How many pages it was made of, of those that apply."""
        if self.applying:
            sql = f"SELECT count(*) FROM entries e WHERE e.place>=0 AND e.path<>''{self.applies}"
            return int(self.rows(sql)[0][0])
        return int(self.meta_value(Meta.PAGES) or 0)

    def folders(self) -> dict[str, int]:
        """The manual folders looked through, with their modification times (ns) then."""
        rows = self.rows("SELECT path, modified FROM folders WHERE kind='manual'")
        return {restored(path): modified for path, modified in rows}

    def files_in(self, folder: str) -> list[str]:
        """The files of pages in a folder, without those in folders within it."""
        begin = stored(os.path.join(folder, ""))
        rows = self.rows(
            "SELECT path FROM files WHERE path>? AND path<? AND modified",
            (begin, begin + "\U0010ffff"),
        )
        found = (restored(row[0]) for row in rows)
        return [path for path in found if os.path.dirname(path) == folder]

    def stamp_of(self, path: str) -> tuple[int, int] | None:
        """The modification time (ns) and size that a page's file had when it was read, None if it
        was not.
        """
        rows = self.rows("SELECT modified, size FROM files WHERE path=?", (stored(path),))
        return (rows[0][0], rows[0][1]) if rows else None

    def watched(self) -> list[tuple[str, int, str]]:
        """Every place that was looked at: its path, modification time (ns, 0 if it was not there)
        and kind.
        """
        rows = self.rows("SELECT path, modified, kind FROM folders")
        return [(restored(path), modified, kind) for path, modified, kind in rows]

    def counts(self) -> dict[str, int]:
        """Numbers of entries, names, names in Info manuals and files, and of files that could not
        be read.
        """
        return {
            "entries": self.rows("SELECT count(*) FROM entries")[0][0],
            "info_names": self.rows("SELECT count(*) FROM info_names")[0][0],
            "names": self.rows("SELECT count(*) FROM names")[0][0],
            "files": self.rows("SELECT count(*) FROM files")[0][0],
            "problems": self.rows("SELECT count(*) FROM files WHERE problem IS NOT NULL")[0][0],
        }

    def problems(self) -> list[Problem]:
        """The files and folders that could not be taken up."""
        rows = self.rows("SELECT path, problem FROM files WHERE problem IS NOT NULL ORDER BY path")
        return [Problem(restored(path), says) for path, says in rows]

    def problem_of(self, name: str, section: str = "") -> Problem | None:
        """The trouble with a page file of that name, if there is any."""
        for problem in self.problems():
            file = os.path.basename(problem.path)
            if file.startswith(f"{name}.{section}"):
                return problem
        return None


def _says_damaged(error: Exception) -> bool:
    """Whether SQLite itself says that the file is damaged, or none of its own."""
    code = getattr(error, "sqlite_errorcode", 0) & 0xFF
    return code in (sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB)


def match_expression(words: list[str]) -> str:
    """A full-text expression that wants every word, as a whole word or as a beginning."""
    return " AND ".join(_quoted(word) + "*" for word in words)


def _quoted(text: str) -> str:
    return '"' + text.replace('"', '""').replace("\x00", " ") + '"'


def _plain_runs(pattern: str) -> list[str]:
    """The parts of a shell pattern that stand for themselves."""
    runs, current, in_set = [], "", False
    for char in pattern:
        if in_set or char in "*?[":
            runs.append(current)
            current = ""
            in_set = (in_set or char == "[") and char != "]"
        else:
            current += char
    return [*runs, current]


def entry_of(row: tuple) -> Entry:  # type: ignore[type-arg]
    aliases = row[2].split("\n") if row[2] else []
    verbs, nouns = (row[8] or "").split(), (row[9] or "").split()
    return Entry(
        row[0],
        row[1],
        aliases,
        row[3],
        row[4],
        row[5],
        row[6],
        restored(row[7]),
        verbs,
        nouns,
        _sources(row[1], row[4]),
    )


def _sources(section: str, summary: str) -> list[str]:
    """The source that an entry was made from; which others there are is found when the name is
    looked up.
    """
    if section == "builtin":
        return ["builtin" if summary else "shell-manual"]
    if not section:
        return []
    return ["standard" if section.endswith("posix") else "manual"]
