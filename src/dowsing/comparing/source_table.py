"""The sources of a name as a table: present or not and why, where, how long, the same text as
another.
"""

from __future__ import annotations

import re
from collections.abc import Callable

from dowsing.comparing.package_texts import package_names
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

    `same_as` is the source of an earlier row that has the same text. `about` is the shell whose
    builtin a text of a shell is about; `package` the package of an Info manual, where it is known.
    """

    source: str
    present: bool | None
    where: str
    words: int
    lines: int
    same_as: str | None
    note: str
    about: str = ""
    package: str = ""


class Compared:
    """The rows, each with its document; None where there is no text, or it was not read."""

    def __init__(self, pairs: list[tuple[SourceRow, Document | None]]) -> None:
        self.pairs = pairs

    @property
    def rows(self) -> list[SourceRow]:
        """All rows."""
        return [row for row, _ in self.pairs]

    @property
    def documents(self) -> list[tuple[str, Document]]:
        """The documents with their sources."""
        return [(row.source, document) for row, document in self.pairs if document is not None]


def compare(
    subject: Subject,
    sources: tuple[str, ...] = catalogue.SOURCES,
    *,
    only: Callable[[Availability], bool] = lambda held: True,
) -> Compared:
    """Read every source of the subject. What cannot be read is not there, with the reason.

    `only` says which texts are read; of the others it is told that they are there.
    """
    pairs: list[tuple[SourceRow, Document | None]] = []
    texts: list[tuple[str, list[str]]] = []
    for source in sources:
        for held in catalogue.availability_of(subject, source):
            document, note = _read(subject, held) if only(held) else (None, held.note)
            if document is None:
                present = held.present if held.present is None or not only(held) else False
                pairs.append((_row(subject, held, present, note), None))
                continue
            if source == SourceName.PACKAGE and not package_names(subject, held):
                note = f"does not name it: {note}" if note else "does not name it"
                pairs.append((_row(subject, held, False, note), None))
                continue
            words = _words(document)
            same = next((other for other, theirs in texts if _alike(words, theirs)), None)
            row = _row(subject, held, True, note).changed(
                words=len(words), lines=_lines(document), same_as=same
            )
            pairs.append((row, document))
            texts.append((source, words))
    return Compared(pairs)


def _row(subject: Subject, held: Availability, present: bool | None, note: str) -> SourceRow:
    package = ""
    if held.source == SourceName.INFO and held.present:
        package = _info_package(subject, held.path)
        note = note or _of_another_package(subject, package)
    return SourceRow(
        held.source, present, held.where, 0, 0, None, note, about=shell_of(held), package=package
    )


def _read(subject: Subject, held: Availability) -> tuple[Document | None, str]:
    if not held.present:
        return None, held.note
    try:
        return catalogue.read(subject, held), held.note
    except Unreadable as error:
        return None, str(error)


def shell_of(held: Availability) -> str:
    """The shell whose builtin the text is about, "" for what is no shell's."""
    if held.source == SourceName.SHELL_MANUAL:
        return held.detail.partition("\n")[0]
    if held.source in (SourceName.BUILTIN, SourceName.BUILTIN_USAGE):
        return held.where.partition(":")[0]
    return ""


def _info_package(subject: Subject, path: str) -> str:
    """The package that an Info manual is of, "" if that is not known. Few manuals have the nodes of
    many names, so it is kept for the time of a run.
    """
    owners = subject.store.memory.setdefault("owners of Info manuals", {})
    if path not in owners:
        found = dpkg.owner(path, subject.settings.package_lists, subject.settings.package_root)
        owners[path] = found.name if found else ""
    return str(owners[path])


def _of_another_package(subject: Subject, package: str) -> str:
    """A remark where an Info manual is not of the package whose program would run."""
    if not package or not subject.program_package or package == subject.program_package:
        return ""
    return f"of the package {package}; the program is of {subject.program_package}"


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
