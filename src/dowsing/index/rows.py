"""What is written to the index, as records: what a row means is said here and in schema.py."""

from __future__ import annotations

from enum import StrEnum

from dowsing.index.schema import NOWHERE
from dowsing.model.record import Record


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
    place: int = NOWHERE
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
    """The terms of an entry's summary, its tasks in words, and the terms of each; whether it is one
    that few people look for.
    """

    number: int
    summary_terms: str
    tasks: list[str]
    task_terms: list[str]
    special: bool = False


class PlaceKind(StrEnum):
    """What a watched folder or file holds."""

    MANUAL = "manual"
    PATH = "path"
    INFO = "info"
    SHELL = "shell"
    USAGE = "usage"  # answers of programs that were asked


#: What stands as the size of what could not be taken up and is no page, to tell it from pages.
NO_PAGE = {PlaceKind.SHELL: -1, PlaceKind.INFO: -2}
