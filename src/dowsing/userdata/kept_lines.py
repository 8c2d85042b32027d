"""The user's kept lines, to be asked: all, those with certain words, those of a command.

A small file is read as it is. Of a large one a small database beside the index remembers what was
read; lines that were added at the end are added to it, any other change of the file has it made
anew. It can be thrown away at any time.
"""

from __future__ import annotations

import contextlib
import os
import sqlite3
import zlib

from dowsing.knowledge.recipe_terms import packed_row
from dowsing.knowledge.recipes import FileFault, Recipe, parse_recipes, with_values
from dowsing.knowledge.stems import stems
from dowsing.model.errors import CannotKeep
from dowsing.tasks.retrieval import recipe_of
from dowsing.userdata import SAVED
from dowsing.userdata.user_files import read_text

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable, Collection, Iterable

SMALL = 100_000  # bytes of a file that is read at each look-up: some 800 lines, 0.1 s
VERSION = 1
_TABLES = """
CREATE TABLE state(
    version INTEGER, modified INTEGER, size INTEGER, length INTEGER, sum INTEGER, lines INTEGER
);
CREATE TABLE kept(id INTEGER PRIMARY KEY, shown TEXT, row TEXT);
CREATE TABLE words(stem TEXT, id INTEGER, PRIMARY KEY(stem, id)) WITHOUT ROWID;
CREATE TABLE commands(word TEXT, id INTEGER, PRIMARY KEY(word, id)) WITHOUT ROWID;
CREATE TABLE faults(line INTEGER, says TEXT);
"""


class KeptLines:
    """The kept lines below `folder`; `cache` is where what was read of a large file may be
    remembered.

    Raises CannotKeep when made, if the file cannot be read.
    """

    def __init__(self, folder: str, cache: str) -> None:
        self.path = os.path.join(folder, SAVED)
        self.faults: list[FileFault] = []
        self._db: sqlite3.Connection | None = None
        self._lines: list[Recipe] = []
        size = os.path.getsize(self.path) if os.path.isfile(self.path) else 0
        self._place = os.path.join(
            cache, f"kept-{zlib.crc32(os.fsencode(os.path.realpath(self.path))):08x}.sqlite"
        )
        if size > SMALL:
            self._db = _opened(self.path, self._place)
        if self._db is not None:
            rows = self._db.execute("SELECT line, says FROM faults ORDER BY line")
            self.faults = [FileFault(self.path, line, says) for line, says in rows]
        elif size:
            self._lines, self.faults = _parsed(self.path, read_text(self.path))

    def all(self) -> list[Recipe]:
        """Every line."""
        return self._asked("SELECT row FROM kept ORDER BY id", (), lambda _: True)

    def having(self, wanted: set[str]) -> list[Recipe]:
        """The lines that have all of these stems, in themselves or in what they are for."""
        if not wanted:
            return self.all()
        same = " INTERSECT ".join(["SELECT id FROM words WHERE stem=?"] * len(wanted))
        sql = f"SELECT row FROM kept WHERE id IN ({same}) ORDER BY id"
        return self._asked(sql, wanted, lambda one: wanted <= _stems_of(one))

    def sharing(self, some: set[str], most: int) -> list[Recipe]:
        """The lines that share most of these stems, at most so many of a large file; all of a small
        one.
        """
        marks = ",".join("?" * len(some))
        ids = (
            f"SELECT id FROM words WHERE stem IN ({marks}) GROUP BY id ORDER BY count(*) DESC, "
            f"id DESC LIMIT {most}"
        )
        return self._asked(
            f"SELECT row FROM kept WHERE id IN ({ids}) ORDER BY id", some, lambda _: True
        )

    def about(self, names: Iterable[str]) -> list[Recipe]:
        """The lines of a command by one of its names, or with such a name as a word in them."""
        wanted = set(names)
        ids = f"SELECT id FROM commands WHERE word IN ({','.join('?' * len(wanted))})"
        sql = f"SELECT row FROM kept WHERE id IN ({ids}) ORDER BY id"
        return self._asked(sql, wanted, lambda one: bool(wanted & _commands_of(one)))

    def shown_as(self, line: str) -> str:
        """The line as it is kept that a list shows so, "" if there is none."""
        sql = "SELECT row FROM kept WHERE shown=? LIMIT 1"
        found = self._asked(sql, (line,), lambda one: with_values(one.line, {}) == line)
        return found[0].line if found else ""

    def _asked(
        self, sql: str, values: Collection[str], fits: Callable[[Recipe], bool]
    ) -> list[Recipe]:
        """The lines that the statement gives or, where there is no database, those that fit."""
        if self._db is not None:
            try:
                return [recipe_of(row) for (row,) in self._db.execute(sql, tuple(values))]
            except (sqlite3.Error, ValueError, TypeError):  # damaged: it is made anew the next time
                self._forget()
        return [one for one in self._lines if fits(one)]

    def _forget(self) -> None:
        self._db = None
        with contextlib.suppress(OSError):
            os.unlink(self._place)
        self._lines, self.faults = _parsed(self.path, read_text(self.path))


def _parsed(path: str, text: str) -> tuple[list[Recipe], list[FileFault]]:
    if "[[recipe]]" not in text:
        return [], []
    recipes, faults = parse_recipes(path, text)
    return [recipe.changed(where="saved") for recipe in recipes], faults


def _stems_of(recipe: Recipe) -> set[str]:
    return set(stems(" ".join([recipe.task, *recipe.also, recipe.line])))


def _commands_of(recipe: Recipe) -> set[str]:
    return {recipe.command, *recipe.line.split()}


def _opened(path: str, place: str) -> sqlite3.Connection | None:
    """The database of what was read of the file, in step with it; None where there cannot be
    one.
    """
    for again in (False, True):
        try:
            os.makedirs(os.path.dirname(place), exist_ok=True)
            db = sqlite3.connect(place, timeout=5.0)
            _bring_in_step(db, path)
            return db
        except CannotKeep:
            raise
        except (sqlite3.Error, OSError):
            if again:
                return None
            try:  # damaged: it is only a memory
                os.unlink(place)
            except OSError:
                return None
    return None


def _bring_in_step(db: sqlite3.Connection, path: str) -> None:
    """Raises sqlite3.Error, OSError or CannotKeep."""
    stat = os.stat(path)
    known = _state(db)
    if known is not None and known[:3] == (VERSION, stat.st_mtime_ns, stat.st_size):
        return
    if known is not None:
        db.execute("BEGIN IMMEDIATE")
    text = read_text(path)
    length, lines = (known[3], known[5]) if known is not None else (0, 0)
    same = (
        known is not None
        and known[0] == VERSION
        and 0 < length <= len(text)
        and _sum(text[:length]) == known[4]
    )
    if same and text[length:].lstrip("\n")[:10] not in ("[[recipe]]", ""):
        same = False  # what was added belongs to the block before
    if not same:
        db.rollback()
        names = [row[0] for row in db.execute("SELECT name FROM sqlite_master WHERE type='table'")]
        db.executescript("".join(f"DROP TABLE {name};" for name in names) + _TABLES)
        length = lines = 0
    _add(db, path, text[length:], lines)
    db.execute("DELETE FROM state")
    row = (VERSION, stat.st_mtime_ns, stat.st_size, len(text), _sum(text), text.count("\n"))
    db.execute("INSERT INTO state VALUES(?,?,?,?,?,?)", row)
    db.commit()


def _state(db: sqlite3.Connection) -> tuple[int, ...] | None:
    try:
        found: tuple[int, ...] | None = db.execute("SELECT * FROM state").fetchone()
    except sqlite3.OperationalError:  # there is no table yet
        return None
    return found


def _sum(text: str) -> int:
    return zlib.crc32(text.encode("utf-8", "surrogateescape"))


def _add(db: sqlite3.Connection, path: str, text: str, lines_before: int) -> None:
    """Take up the lines of a text, which begins behind so many lines of the file."""
    recipes, faults = _parsed(path, text)
    first = (db.execute("SELECT max(id) FROM kept").fetchone()[0] or 0) + 1
    numbered = list(enumerate(recipes, first))
    db.executemany(
        "INSERT INTO kept VALUES(?,?,?)",
        ((n, with_values(one.line, {}), packed_row(one)) for n, one in numbered),
    )
    db.executemany(
        "INSERT INTO words VALUES(?,?)",
        ((stem, n) for n, one in numbered for stem in _stems_of(one)),
    )
    db.executemany(
        "INSERT INTO commands VALUES(?,?)",
        ((word, n) for n, one in numbered for word in _commands_of(one)),
    )
    db.executemany(
        "INSERT INTO faults VALUES(?,?)", ((one.line + lines_before, one.says) for one in faults)
    )
