"""A file that becomes an index: what was read into it before its build was ended is not lost."""

from __future__ import annotations

import os
import sqlite3

from dowsing.index import schema
from dowsing.index.index_file import remove
from dowsing.index.writer import IndexWriter

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable
    from typing import Self


class BegunIndex(IndexWriter):
    """A new index with what was read of pages, until all are."""

    @classmethod
    def begun(cls, path: str, mark: str, prepared: str = "") -> Self:
        """A new file for what `mark` stands for, which begins as a copy of `prepared`; one that is
        there for the same goes on.
        """
        found = cls._begun_before(path, mark)
        if found is not None:
            return found
        remove(path)
        try:
            writer = cls.new(path, prepared)
            writer.db.execute(schema.DONE)
            writer.set_meta(schema.Meta.BEGUN, mark)
            writer.commit()
        except (sqlite3.Error, OSError):
            remove(path)
            raise
        return writer

    @classmethod
    def _begun_before(cls, path: str, mark: str) -> Self | None:
        if not os.path.isfile(path):
            return None
        writer = cls(path)
        try:
            writer.db.executescript(schema.FAST)
            if writer.meta_value(schema.Meta.BEGUN) == mark:
                writer.db.execute("SELECT count(*) FROM done")
                return writer
        except (sqlite3.Error, UnicodeDecodeError):
            pass
        writer.close()
        return None

    def keep_read(self, rows: Iterable[tuple[int, str]]) -> None:
        """Keep what was read of pages, by their numbers, until all are read."""
        self.db.executemany("INSERT INTO done VALUES(?,?)", rows)

    def were_read(self) -> list[str]:
        """What is kept of pages that were read before."""
        return [row[0] for row in self.db.execute("SELECT reading FROM done ORDER BY number")]

    def forget_read(self) -> None:
        """Nothing needs to be kept any more, once what is written from here on holds."""
        self.db.execute("BEGIN")
        self.db.execute("DROP TABLE done")
