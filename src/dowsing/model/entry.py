"""What the index holds, as look-ups hand it out."""

from __future__ import annotations

from enum import StrEnum

from dowsing.model.record import Record

#: What stands behind the summary of a command that only its package tells of.
NO_PAGE_REMARK = " (no manual page)"


class EntryKind(StrEnum):
    """What an entry is; the values are those of the JSON contract, in the order in which they are
    offered.
    """

    COMMAND = "command"
    SUBCOMMAND = "subcommand"
    BUILTIN = "builtin"
    KEYWORD = "keyword"
    FUNCTION = "function"
    SYSTEM_CALL = "system-call"
    FILE_FORMAT = "file-format"
    DEVICE = "device"
    TOPIC = "topic"
    OTHER = "other"


class Entry(Record):
    """An entry of the index, as answers carry it."""

    name: str
    section: str
    aliases: list[str]
    kind: str
    summary: str
    package: str | None
    family: str | None
    path: str
    verbs: list[str] = []  # noqa: RUF012 - a record is immutable
    nouns: list[str] = []  # noqa: RUF012
    sources: list[str] = ["manual"]  # noqa: RUF012

    @property
    def label(self) -> str:
        """Name and section: `tar(1)`."""
        return f"{self.name}({self.section})" if self.section else self.name

    @property
    def all_names(self) -> list[str]:
        """The name and those that the page has besides, without sections."""
        return [self.name, *(alias.partition("(")[0] for alias in self.aliases)]


class Match(Record):
    """An entry that words were found in: its number, how well (smaller is better) and what ranking
    needs.
    """

    number: int
    score: float
    name: str
    section: str
    family: str | None


class Candidate:
    """What ranking looks at of an entry that words brought up. No record, for a search makes
    hundreds of them.
    """

    __slots__ = ("family", "name", "number", "section", "summary")

    def __init__(
        self, number: int, name: str, section: str, family: str | None, summary: str
    ) -> None:
        self.number, self.name, self.section, self.family, self.summary = (
            number,
            name,
            section,
            family,
            summary,
        )


class ShellRow(Record):
    """What a shell says of one of its names. `manual`: the pages of its manual; `text`: its help,
    "" without.
    """

    shell: str
    path: str
    name: str
    kind: str
    summary: str
    text: str
    manual: list[str]


class InfoPlace(Record):
    """The node of an Info manual that a name leads to."""

    path: str
    manual: str
    node: str


class Problem(Record):
    """A file or folder that could not be taken up, and why."""

    path: str
    says: str
