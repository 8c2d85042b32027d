"""Taking up the pages that came, went or changed since the index was made."""

from __future__ import annotations

import os

from dowsing.index.schema import Meta
from dowsing.ingest.all_pages import FEW, PageReader
from dowsing.ingest.entries import make_entries
from dowsing.ingest.meanings import Meanings
from dowsing.ingest.page_reading import Reading, read_for_index
from dowsing.ingest.pages_written import (
    entry_numbers,
    file_rows,
    insert_texts,
    searched_entries,
    stamp,
)
from dowsing.ingest.postings import insert_postings
from dowsing.ingest.scan import FoundPage, Scan, scan
from dowsing.ingest.terms import Postings
from dowsing.machine.packages import dpkg
from dowsing.model.paths import is_within, stored
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.rows import FileRow
    from dowsing.index.writer import IndexWriter
    from dowsing.machine.settings import Settings

MOST_CHANGES = 1500  # beyond that the index is built anew


class TakenUp(Record):
    """How many files came, went or changed, and whether any went."""

    files: int
    any_gone: bool


class Scope:
    """The manual folders whose pages are brought up to date: those `concerned`, and those that are
    no more. Pages of other folders stay as they are.

    `every`: all manual folders that the index has been made of or is now, each in its place, "" for
    one that is no more; `within`: the paths of those in scope.
    """

    def __init__(self, known: list[str], roots: list[str], concerned: list[str]) -> None:
        self.concerned = concerned
        self.every = [root if os.path.isdir(root) else "" for root in known]
        self.every += [root for root in roots if root not in self.every]
        gone = {place for place, root in enumerate(self.every) if not root}
        self.places = {*(self.every.index(root) for root in concerned), *gone}
        self.within = [*concerned, *(root for root in known if root not in self.every)]

    def scan(self, language: str) -> Scan:
        """Their pages, each with the place of its folder among all."""
        found = scan(self.concerned, language)
        for page in found.pages:
            page.place = self.every.index(self.concerned[page.place])
        return found


def take_up_pages(
    writer: IndexWriter,
    settings: Settings,
    known_roots: list[str],
    roots: list[str],
    concerned: list[str],
) -> TakenUp | None:
    """Make the entries of all pages of the manual folders `concerned` that are not as the index has
    them, and of those that these stand for or hide. `known_roots`: the manual folders that it has
    been made of; `roots`: those of now.

    None if there are too many.
    """
    scope = Scope(known_roots, roots, concerned)
    found = scope.scan(settings.language)
    if not all(is_within(page.page.path, concerned) for page in found.pages):
        # a link leads to where another manual folder may have its page
        scope = Scope(known_roots, roots, roots)
        found = scope.scan(settings.language)
    now = {file.path for page in found.pages for file in page.files}
    known = writer.page_files(scope.places, scope.within)
    gone = [path for path in known if path not in now]
    came = {
        path
        for path in now
        if path not in known or (known[path].modified, known[path].size) != stamp(path)
    }
    if len(came) + len(gone) > MOST_CHANGES:
        return None
    changed = [page for page in found.pages if any(file.path in came for file in page.files)]
    read = _read_all(changed)
    touched = _touched_entries(writer, known, gone, changed, read, scope.places)
    pages = [
        page for page in found.pages if page.page.path in read or _stands_for(page, known, touched)
    ]
    labels = {label for number in touched for label in writer.labels_of(number)}
    writer.hide(touched)
    writer.forget_files([*gone, *(file.path for page in pages for file in page.files)])
    readings = {
        number: read[page.page.path]._replace(number=number)
        if page.page.path in read
        else _read(page, number)
        for number, page in enumerate(pages)
    }
    _insert_pages(writer, settings, Scan(roots, pages, {}, found.problems), readings)
    writer.settle_twins(labels | {(page.page.name, page.page.section) for page in pages})
    writer.set_manual_folders(found.folders, scope.within)
    writer.set_meta(Meta.ROOTS, stored("\n".join(scope.every)))
    writer.set_meta(Meta.PAGES, str(writer.count_pages()))
    writer.hide(writer.paged_now())
    return TakenUp(len(came) + len(gone), bool(gone))


def _stands_for(page: FoundPage, known: dict[str, FileRow], entries: set[int]) -> bool:
    """Whether one of these entries has a file of the page."""
    rows = (known.get(file.path) for file in page.files)
    return any(row.entry in entries for row in rows if row is not None)


def _read(page: FoundPage, number: int = 0) -> Reading:
    return read_for_index((number, page.page.path, page.page.name, page.page.section, False))


def _read_all(pages: list[FoundPage]) -> dict[str, Reading]:
    """What is read of these pages, by their files; of many on all cores."""
    if len(pages) <= FEW:
        return {page.page.path: _read(page) for page in pages}
    reader = PageReader(pages, set(), set())
    return {pages[one.number].page.path: one for portion in reader.work for one in portion}


def _touched_entries(
    writer: IndexWriter,
    known: dict[str, FileRow],
    gone: list[str],
    changed: list[FoundPage],
    read: dict[str, Reading],
    places: set[int],
) -> set[int]:
    """The entries to be made anew as a whole: an entry has all files that stand for it, and hides
    others of its name in manual folders of these numbers.
    """
    concerned = {*gone, *(file.path for page in changed for file in page.files)}
    concerned |= {reading.target for reading in read.values()}
    entries = {known[path].entry for path in concerned if path in known}
    touched = {number for number in entries if number is not None}
    labels = {(page.page.name, page.page.section) for page in changed}
    for number in touched:
        labels |= set(writer.labels_of(number))
    for name, section in labels:
        touched |= writer.entries_named(name, section, places)
    return touched


def _insert_pages(
    writer: IndexWriter, settings: Settings, found: Scan, readings: dict[int, Reading]
) -> None:
    """Write the entries of pages with all that is searched in them."""
    first = writer.next_number()
    entries = make_entries(readings, found.pages)
    owners = (
        dpkg.owners(("/man/man",), settings.package_lists, settings.package_root) if entries else {}
    )
    programs = writer.families()
    texts = Postings()
    read: dict[int, Reading] = {}  # by the numbers of entries
    for entry in entries:
        reading = readings[entry.number]
        entry.package = owners.get(entry.found.page.path)
        head = entry.name.split("-")[0].split("_")[0]
        if not entry.family and head in programs:
            entry.family = head
        entry.number += first
        entry.referring = [number + first for number in entry.referring]
        read[entry.number] = reading
        texts.add(entry.number, reading.terms)
    meanings = Meanings.kept(writer)
    meanings.put_into(entries, read)
    insert_texts(writer, list(read.items()))
    writer.insert_entries(entry.row(read[entry.number]) for entry in entries)
    priorities = dpkg.priorities(settings.package_lists) if entries else {}
    insert_postings(writer, searched_entries(entries, read, priorities), texts, meanings.phrases)
    stamps = {file.path: stamp(file.path) for page in found.pages for file in page.files}
    writer.insert_files(file_rows(found, stamps, readings, entry_numbers(entries, first)))
