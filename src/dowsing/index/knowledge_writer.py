"""Writing what we know beside the pages into an index."""

from __future__ import annotations

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable

    from dowsing.index.writer import IndexWriter
    from dowsing.knowledge.absent import AbsentCommand


class KnowledgeWriter:
    """Writes facts of commands, commands that may not be here, and the choice of recipes."""

    def __init__(self, writer: IndexWriter) -> None:
        self.db = writer.db

    def insert_facts(self, facts: dict[str, str]) -> None:
        """What we know of commands, by their words, each as JSON."""
        self.db.executemany("INSERT INTO command_facts VALUES(?,?)", facts.items())

    def insert_absent(self, rows: Iterable[tuple[AbsentCommand, list[list[str]]]]) -> None:
        """Write commands that may not be here, each with the terms of its phrases."""
        number = 0
        for one, phrases in rows:
            values = (one.name, one.section, one.package, one.does, one.usual)
            self.db.execute("INSERT INTO absent VALUES(?,?,?,?,?)", values)
            for terms in phrases:
                number += 1
                row = (number, one.name, len(terms))
                self.db.execute("INSERT INTO absent_phrases VALUES(?,?,?)", row)
                self.db.executemany(
                    "INSERT OR IGNORE INTO absent_terms VALUES(?,?)",
                    ((term, number) for term in terms),
                )

    def insert_task_recipes(self, rows: Iterable[tuple[int, str, str, int]]) -> None:
        """Recipes by number: packed, their wordings, and whether it changes anything."""
        self.db.executemany("INSERT INTO task_recipes VALUES(?,?,?,?)", rows)

    def insert_task_starts(self, rows: Iterable[tuple[int, float, int, str]]) -> None:
        """What each recipe begins with, whether it takes conditions on files, and its command."""
        self.db.executemany("INSERT INTO task_starts VALUES(?,?,?,?)", rows)

    def insert_additions(
        self, rows: Iterable[tuple[str, str]], stems: Iterable[tuple[str, float]]
    ) -> None:
        """What may be added to the lines of commands, packed, by command; how telling stems are of
        which one is asked for, "" for those that none has.
        """
        self.db.executemany("INSERT INTO additions VALUES(?,?)", rows)
        self.db.executemany("INSERT INTO addition_stems VALUES(?,?)", stems)

    def insert_task_stems(self, rows: Iterable[tuple[str, float, float, bytes, bytes]]) -> None:
        """What stems say: for harm, for change, and for which recipes how much."""
        self.db.executemany("INSERT INTO task_stems VALUES(?,?,?,?,?)", rows)

    def insert_task_telling(self, rows: Iterable[tuple[str, float]]) -> None:
        """How telling stems are."""
        self.db.executemany("INSERT INTO task_telling VALUES(?,?)", rows)

    def insert_task_cues(self, rows: Iterable[tuple[str, str]]) -> None:
        """What words around a place say for each slot, as JSON."""
        self.db.executemany("INSERT INTO task_cues VALUES(?,?)", rows)
