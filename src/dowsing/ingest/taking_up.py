"""Taking up the pages that came, went or changed since the index was made."""

from __future__ import annotations

import os
from functools import cached_property

from dowsing.index.schema import Meta
from dowsing.ingest.all_pages import FEW, PORTION, PageReader
from dowsing.ingest.changes import stamp
from dowsing.ingest.entries import make_entries
from dowsing.ingest.meanings import Meanings
from dowsing.ingest.page_reading import Reading, read_for_index
from dowsing.ingest.pages_written import (
    entry_numbers,
    file_rows,
    insert_texts,
    searched_entries,
)
from dowsing.ingest.postings import insert_postings
from dowsing.ingest.scan import FoundPage, Scan, scan
from dowsing.ingest.terms import Postings
from dowsing.machine.packages import dpkg
from dowsing.model.paths import is_within, stored

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.index.rows import FileRow
    from dowsing.index.writer import IndexWriter
    from dowsing.machine.settings import Settings

MOST_CHANGES = 1500  # beyond that the index is built anew
#: Bytes of a file that may be no more than a reference to another page.
REFERENCE = 400


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


def find_changed(
    writer: IndexWriter,
    settings: Settings,
    known_roots: list[str],
    roots: list[str],
    concerned: list[str],
) -> Changed:
    """What is not as the index has it in the manual folders `concerned`. `known_roots`: the manual
    folders that it has been made of; `roots`: those of now.
    """
    scope = Scope(known_roots, roots, concerned)
    found = scope.scan(settings.language)
    if not all(is_within(page.page.path, concerned) for page in found.pages):
        # a link leads to where another manual folder may have its page
        scope = Scope(known_roots, roots, roots)
        found = scope.scan(settings.language)
    return Changed(writer, settings, roots, scope, found)


class Changed:
    """The pages that are not as the index has them. `gone`: the files of those that went; `pages`:
    those that came or changed; `count`: of files of both.
    """

    def __init__(
        self,
        writer: IndexWriter,
        settings: Settings,
        roots: list[str],
        scope: Scope,
        found: Scan,
    ) -> None:
        self.writer, self.settings, self.roots = writer, settings, roots
        self.scope, self.found = scope, found
        now = {file.path for page in found.pages for file in page.files}
        known = self._known()
        self.gone = [path for path in known if path not in now]
        came = {
            path
            for path in now
            if path not in known or (known[path].modified, known[path].size) != stamp(path)
        }
        self.count = len(came) + len(self.gone)
        self.pages = [page for page in found.pages if any(file.path in came for file in page.files)]

    def _known(self) -> dict[str, FileRow]:
        return self.writer.page_files(self.scope.places, self.scope.within)

    def taken_up(self) -> Iterator[int]:
        """Make the entries of all these pages, and of those that they stand for or hide, in
        portions; the number of files done after each. After the last the folders are as they were
        looked at.
        """
        done = 0
        gone = self.gone
        for portion in self._portions():
            done += len(gone) + sum(len(page.files) for page, _ in portion)
            self._take_up(gone, portion)
            gone = []
            yield min(done, self.count - 1)
        self.writer.set_manual_folders(self.found.folders, self.scope.within)
        yield self.count

    def _portions(self) -> Iterator[list[tuple[FoundPage, Reading]]]:
        """What is read of the changed pages, in portions: a page that is only a reference to
        another comes with that one.
        """
        short = [page for page in self.pages if stamp(page.page.path)[1] <= REFERENCE]
        readings = [(page, _read(page)) for page in short]
        referring: dict[str, list[tuple[FoundPage, Reading]]] = {}
        others = [page for page in self.pages if page not in short]
        to_read = {os.path.realpath(page.page.path) for page in others}
        at_once: list[tuple[FoundPage, Reading]] = []
        targets = {page.page.path: reading.target for page, reading in readings}
        for page, reading in readings:
            end = _end_of(reading.target, targets)
            (referring.setdefault(end, []) if end in to_read else at_once).append((page, reading))
        yield at_once
        for portion in _read_all(others):
            with_references = list(portion)
            for page, _ in portion:
                with_references += referring.get(os.path.realpath(page.page.path), [])
            yield with_references

    @cached_property
    def _owners(self) -> dict[str, str]:
        settings = self.settings
        return dpkg.owners(("/man/man",), settings.package_lists, settings.package_root)

    @cached_property
    def _priorities(self) -> dict[str, str]:
        return dpkg.priorities(self.settings.package_lists)

    def _take_up(self, gone: list[str], portion: list[tuple[FoundPage, Reading]]) -> None:
        """Make the entries of the pages of one portion."""
        writer, found, places = self.writer, self.found, self.scope.places
        known = self._known()
        changed = [page for page, _ in portion]
        read = {page.page.path: reading for page, reading in portion}
        touched = _touched_entries(writer, known, gone, changed, read, places)
        pages = [
            page
            for page in found.pages
            if page.page.path in read or _stands_for(page, known, touched)
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
        self._insert(Scan(self.roots, pages, {}, found.problems), readings)
        writer.settle_twins(labels | {(page.page.name, page.page.section) for page in pages})
        writer.set_meta(Meta.ROOTS, stored("\n".join(self.scope.every)))
        writer.set_meta(Meta.PAGES, str(writer.count_pages()))
        writer.hide(writer.paged_now())

    def _insert(self, found: Scan, readings: dict[int, Reading]) -> None:
        """Write the entries of pages with all that is searched in them."""
        writer = self.writer
        first = writer.next_number()
        entries = make_entries(readings, found.pages)
        programs = writer.families()
        texts = Postings()
        read: dict[int, Reading] = {}  # by the numbers of entries
        for entry in entries:
            reading = readings[entry.number]
            entry.package = self._owners.get(entry.found.page.path)
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
        priorities = self._priorities if entries else {}
        searched = searched_entries(entries, read, priorities)
        insert_postings(writer, searched, texts, meanings)
        stamps = {file.path: stamp(file.path) for page in found.pages for file in page.files}
        writer.insert_files(file_rows(found, stamps, readings, entry_numbers(entries, first)))


def _end_of(target: str, targets: dict[str, str]) -> str:
    """Where a chain of references ends, "" for none."""
    seen: set[str] = set()
    while targets.get(target) and target not in seen:
        seen.add(target)
        target = targets[target]
    return target


def _stands_for(page: FoundPage, known: dict[str, FileRow], entries: set[int]) -> bool:
    """Whether one of these entries has a file of the page."""
    rows = (known.get(file.path) for file in page.files)
    return any(row.entry in entries for row in rows if row is not None)


def _read(page: FoundPage, number: int = 0) -> Reading:
    return read_for_index((number, page.page.path, page.page.name, page.page.section, False))


def _read_all(pages: list[FoundPage]) -> Iterator[list[tuple[FoundPage, Reading]]]:
    """What is read of these pages, in portions; of many on all cores."""
    if len(pages) <= FEW:
        for start in range(0, len(pages), PORTION):
            yield [(page, _read(page)) for page in pages[start : start + PORTION]]
        return
    for portion in PageReader(pages, set(), set()).work:
        yield [(pages[one.number], one) for one in portion]


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
