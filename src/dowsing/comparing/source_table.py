"""The sources of a name as a table: present or not and why, where, how long, the same text as
another.
"""

from __future__ import annotations

import re

from dowsing.machine.packages import dpkg
from dowsing.model.document import Document, block_texts, document_text
from dowsing.model.errors import Unreadable
from dowsing.model.markup import plain
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName
from dowsing.sources import catalogue
from dowsing.sources.source import Availability, Subject

USUAL_WIDTH = 80
SAME = 0.97  # so much of the words in common, in order, makes two texts the same


class SourceRow(Record):
    """One text, or a source without one. `present` is None where the program was not asked.

    `same_as` is the source of an earlier row that has the same text.
    """

    source: str
    present: bool | None
    where: str
    words: int
    lines: int
    same_as: str | None
    note: str


class Compared:
    """The rows, with the documents of those that are there."""

    def __init__(self, rows: list[SourceRow], documents: list[tuple[str, Document]]) -> None:
        self.rows = rows
        self.documents = documents


def compare(subject: Subject, sources: tuple[str, ...] = catalogue.SOURCES) -> Compared:
    """Read every source of the subject. What cannot be read is not there, with the reason."""
    rows: list[SourceRow] = []
    documents: list[tuple[str, Document]] = []
    texts: list[tuple[str, list[str]]] = []
    for source in sources:
        for held in catalogue.availability_of(subject, source):
            document, note = _read(subject, held)
            if document is None:
                present = None if held.present is None else False
                rows.append(SourceRow(source, present, held.where, 0, 0, None, note))
                continue
            if source == SourceName.INFO and subject.program_package and not note:
                note = _of_another_package(subject, held.path)
            words = _words(document)
            same = next((other for other, theirs in texts if _alike(words, theirs)), None)
            rows.append(
                SourceRow(source, True, held.where, len(words), _lines(document), same, note)
            )
            documents.append((source, document))
            texts.append((source, words))
    return Compared(rows, documents)


def _read(subject: Subject, held: Availability) -> tuple[Document | None, str]:
    if not held.present:
        return None, held.note
    try:
        return catalogue.read(subject, held), held.note
    except Unreadable as error:
        return None, str(error)


def _of_another_package(subject: Subject, path: str) -> str:
    """A remark where an Info manual is not of the package whose program would run."""
    owners = subject.store.memory.setdefault(
        "owners of Info manuals", {}
    )  # few manuals have the nodes of many names
    if path not in owners:
        owners[path] = dpkg.owner(
            path, subject.settings.package_lists, subject.settings.package_root
        )
    owner = owners[path]
    if owner is None or owner.name == subject.program_package:
        return ""
    return f"of the package {owner.name}; the program is of {subject.program_package}"


def _words(document: Document) -> list[str]:
    """The words of the text, without the name line and headings, which differ by source."""
    texts: list[str] = []
    for section in document.sections:
        if section.title.upper() != "NAME":
            block_texts(section.blocks, texts)
    return re.findall(r"[\w-]+", plain("\n".join(texts)).casefold())


def _lines(document: Document) -> int:
    """The lines that the text fills at the usual width."""
    lines = document_text(document.sections).split("\n")
    return sum(-(-len(line) // USUAL_WIDTH) for line in lines if line.strip())


def _alike(one: list[str], other: list[str]) -> bool:
    if one == other:
        return True
    longer = max(len(one), len(other))
    if not longer or min(len(one), len(other)) < SAME * longer or longer > 20_000:
        return False
    import difflib

    blocks = difflib.SequenceMatcher(None, one, other, autojunk=False).get_matching_blocks()
    return sum(block.size for block in blocks) >= SAME * longer
