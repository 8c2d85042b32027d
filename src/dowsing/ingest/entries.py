"""Entries out of what was read: names and aliases, families, kinds."""

from __future__ import annotations

import re
from collections import Counter

from dowsing.index.rows import EntryRow
from dowsing.model.entry import EntryKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.ingest.page_reading import Reading
    from dowsing.ingest.scan import FoundPage

_KINDS = {
    "1": EntryKind.COMMAND,
    "8": EntryKind.COMMAND,
    "6": EntryKind.COMMAND,
    "2": EntryKind.SYSTEM_CALL,
    "3": EntryKind.FUNCTION,
    "4": EntryKind.DEVICE,
    "5": EntryKind.FILE_FORMAT,
    "7": EntryKind.TOPIC,
    "9": EntryKind.FUNCTION,
    "n": EntryKind.FUNCTION,
    "l": EntryKind.COMMAND,
}
_PROGRAM_SECTIONS = ("1", "8", "6")
_FIRST_PART = re.compile(r"([^-_. ]+)[-_. ]")


CROWD = 1000


class MadeEntry:
    """An entry in the making."""

    __slots__ = (
        "aliases",
        "family",
        "found",
        "hidden",
        "kind",
        "name",
        "number",
        "package",
        "referring",
        "section",
        "summary",
    )

    def __init__(self, number: int, found: FoundPage, summary: str) -> None:
        self.number = number
        self.found = found
        self.name = found.page.name
        self.section = found.page.section
        self.summary = summary
        self.aliases: list[tuple[str, str]] = []
        self.family = ""
        self.kind = _KINDS.get(self.section[:1], EntryKind.OTHER)
        self.package: str | None = None
        self.hidden = False
        self.referring: list[int] = []  # the pages that are only a reference to this one

    def add_alias(self, name: str, section: str) -> None:
        """One more name, unless it is there already."""
        if (
            name
            and (name, section) != (self.name, self.section)
            and (name, section) not in self.aliases
        ):
            self.aliases.append((name, section))

    @property
    def names(self) -> list[tuple[str, str]]:
        """All names with their sections, its own first."""
        return [(self.name, self.section), *self.aliases]

    def row(self, reading: Reading) -> EntryRow:
        """The entry as the index has it. `reading`: that of its page."""
        return EntryRow(
            self.number,
            self.names,
            self.kind,
            self.summary,
            reading.verbs,
            reading.nouns,
            self.package,
            self.family or None,
            self.found.page.path,
            self.found.place,
            self.hidden,
        )


def make_entries(readings: dict[int, Reading], pages: list[FoundPage]) -> list[MadeEntry]:
    """The entries of all pages that could be read; pages that only refer to another become its
    aliases.
    """
    files = {(found.page.name, found.page.section) for found in pages}
    by_path: dict[str, MadeEntry] = {}
    redirects: list[tuple[int, FoundPage, str]] = []
    for number, found in enumerate(pages):
        reading = readings.get(number)
        if reading is None or reading.problem:
            continue
        if reading.target:
            redirects.append((number, found, reading.target))
        else:
            by_path[found.page.path] = _made_entry(number, found, reading, files)
    entries = list(by_path.values())
    _follow(redirects, by_path)
    _assign_families(entries)
    _hide_shadowed(entries)
    return entries


def _made_entry(
    number: int, found: FoundPage, reading: Reading, files: set[tuple[str, str]]
) -> MadeEntry:
    """The entry of one page, with the further names that links and the page itself give it."""
    entry = MadeEntry(number, found, reading.summary)
    for link in found.links:
        entry.add_alias(link.name, link.section)
    for name in reading.names:
        if (name, entry.section) not in files and not name.startswith("-"):
            entry.add_alias(name, entry.section)
    if reading.subcommand:
        entry.kind = EntryKind.SUBCOMMAND
    return entry


def _follow(redirects: list[tuple[int, FoundPage, str]], by_path: dict[str, MadeEntry]) -> None:
    """Give the names of pages that only refer to another to the entry where the chain ends."""
    by_target = {found.page.path: target for _, found, target in redirects}
    for number, found, target in redirects:
        seen: set[str] = set()
        while by_target.get(target) and target not in seen:
            seen.add(target)
            target = by_target[target]
        holder = by_path.get(target)
        if holder is not None:
            holder.referring.append(number)
            for page in (found.page, *found.links):
                holder.add_alias(page.name, page.section)


def _assign_families(entries: list[MadeEntry]) -> None:
    """The family of an entry: the program whose name its own begins with, itself included."""
    programs = {entry.name for entry in entries if entry.section[:1] in _PROGRAM_SECTIONS}
    programs |= {
        name
        for entry in entries
        for name, section in entry.aliases
        if section[:1] in _PROGRAM_SECTIONS
    }
    members: dict[str, list[MadeEntry]] = {}
    for entry in entries:
        head = entry.name
        match = _FIRST_PART.match(entry.name)
        if match and match[1] in programs:
            head = match[1]
        elif entry.name not in programs:
            continue
        members.setdefault(head, []).append(entry)
    for head, group in members.items():
        if len(group) > 1:
            for entry in group:
                entry.family = head


def _hide_shadowed(entries: list[MadeEntry]) -> None:
    """Of several pages with one name and section the first in the order of search is shown."""
    first: dict[tuple[str, str], MadeEntry] = {}
    for entry in sorted(entries, key=lambda entry: (entry.found.place, entry.number)):
        if first.setdefault((entry.name, entry.section), entry) is not entry:
            entry.hidden = True


def crowded_pages(pages: list[FoundPage]) -> set[int]:
    """The pages whose names begin as very many others do: they say little that is not said in their
    heads.
    """
    heads = [match[1] if (match := _FIRST_PART.match(found.page.name)) else "" for found in pages]
    counts = Counter(heads)
    return {number for number, head in enumerate(heads) if head and counts[head] > CROWD}
