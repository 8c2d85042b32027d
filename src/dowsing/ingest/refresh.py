"""Keeps the index in step with the manual folders: each look-up takes up the pages that came and
went.
"""

from __future__ import annotations

import os
import sqlite3
import time

from dowsing.index.schema import Meta
from dowsing.index.store import Store
from dowsing.index.writer import FileRow, IndexWriter
from dowsing.ingest.entries import make_entries
from dowsing.ingest.page_reading import Reading, read_for_index
from dowsing.ingest.pages_written import entry_numbers, file_rows, searched_entries, stamp
from dowsing.ingest.postings import insert_postings
from dowsing.ingest.scan import FoundPage, Scan, scan
from dowsing.ingest.terms import Postings
from dowsing.knowledge.units import DAY
from dowsing.machine.packages import dpkg
from dowsing.machine.settings import Settings
from dowsing.model.errors import Unusable
from dowsing.model.record import Record
from dowsing.sources import manual_folders

MOST_CHANGES = 400  # beyond that the index is built anew
KEEP_FILES = 6


class Changes(Record):
    """What is not as the index saw it: folders of manual pages, and folders and files of other
    things.
    """

    manual: list[str]
    others: list[str]

    @property
    def any(self) -> bool:
        """Whether there is anything."""
        return bool(self.manual or self.others)


def changed_folders(store: Store, settings: Settings, roots: list[str]) -> Changes:
    """The places whose contents are not what the index saw. Costs one `stat` a place."""
    changed = Changes([], [])
    known = store.watched()
    for place, modified, kind in known:
        try:
            same = os.stat(place).st_mtime_ns == modified
        except OSError:
            same = not modified
        if not same:
            (changed.manual if kind == "manual" else changed.others).append(place)
    paths = {row[0] for row in known}
    changed.manual.extend(
        root for root in roots if root not in paths and os.access(root, os.R_OK | os.X_OK)
    )
    changed.others.extend(
        folder
        for folder in settings.search_path
        if folder not in paths and folder.startswith("/") and os.path.normpath(folder) not in paths
    )
    return changed


def refresh(settings: Settings, store: Store, roots: list[str]) -> int | None:
    """Take up the pages that came, went or changed in folders that changed, and what else changed.

    Returns how many pages, or None if there is so much to do that the index should be built anew.
    If the index cannot be written the answer is 0 and look-ups go on with what it holds.
    """
    changed = changed_folders(store, settings, roots)
    if not changed.any:
        return 0
    try:
        # others may be at the same work: what is new is worked out when nobody else can write
        writer = IndexWriter.locked(store)
    except (Unusable, sqlite3.Error):
        return 0
    try:
        done = _take_up_changes(writer, store, settings, roots)
        if done is None:
            writer.undo()
        else:
            writer.commit()
        return done
    except (sqlite3.Error, OSError):
        writer.undo()
        return 0
    finally:
        writer.close()


def _take_up_changes(
    writer: IndexWriter, store: Store, settings: Settings, roots: list[str]
) -> int | None:
    """What `refresh` does while it holds the lock; another process may just have done it."""
    from dowsing.ingest.non_pages import take_others

    changed = changed_folders(store, settings, roots)
    if not changed.any:
        return 0
    done = _take_up_pages(writer, settings, roots) if changed.manual else 0
    if done is not None:
        take_others(writer, settings)
    return done


def _take_up_pages(writer: IndexWriter, settings: Settings, roots: list[str]) -> int | None:
    """Make the entries of all pages that are not as the index has them, and of those that these
    stand for or hide.
    """
    found = scan(roots)
    now = {file.path for page in found.pages for file in page.files}
    known = writer.page_files()
    gone = [path for path in known if path not in now]
    came = {
        path
        for path in now
        if path not in known or (known[path].modified, known[path].size) != stamp(path)
    }
    if len(came) + len(gone) > MOST_CHANGES:
        return None
    changed = [page for page in found.pages if any(file.path in came for file in page.files)]
    read = {page.page.path: _read(page) for page in changed}
    touched = _touched_entries(writer, known, gone, changed, read)
    pages = [
        page for page in found.pages if page.page.path in read or _stands_for(page, known, touched)
    ]
    writer.hide(touched)
    writer.forget_files([*gone, *(file.path for page in pages for file in page.files)])
    readings = {
        number: read[page.page.path]._replace(number=number)
        if page.page.path in read
        else _read(page, number)
        for number, page in enumerate(pages)
    }
    _insert_pages(writer, settings, Scan(pages, {}, found.problems), readings)
    writer.set_manual_folders(found.folders)
    writer.set_meta(Meta.PAGES, str(len(found.pages)))
    return len(came) + len(gone)


def _stands_for(page: FoundPage, known: dict[str, FileRow], entries: set[int]) -> bool:
    """Whether one of these entries has a file of the page."""
    rows = (known.get(file.path) for file in page.files)
    return any(row.entry in entries for row in rows if row is not None)


def _read(page: FoundPage, number: int = 0) -> Reading:
    return read_for_index((number, page.page.path, page.page.name, page.page.section, False))


def _touched_entries(
    writer: IndexWriter,
    known: dict[str, FileRow],
    gone: list[str],
    changed: list[FoundPage],
    read: dict[str, Reading],
) -> set[int]:
    """The entries to be made anew as a whole: an entry has all files that stand for it, and hides
    others of its name.
    """
    concerned = {*gone, *(file.path for page in changed for file in page.files)}
    concerned |= {reading.target for reading in read.values()}
    entries = {known[path].entry for path in concerned if path in known}
    touched = {number for number in entries if number is not None}
    labels = {(page.page.name, page.page.section) for page in changed}
    for number in touched:
        labels |= set(writer.labels_of(number))
    for name, section in labels:
        touched |= writer.entries_named(name, section)
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
        entry.hidden = entry.hidden or writer.is_shadowed(
            entry.name, entry.section, entry.found.place
        )
        entry.number += first
        entry.referring = [number + first for number in entry.referring]
        read[entry.number] = reading
        texts.add(entry.number, reading.terms)
    writer.insert_bodies((number, reading.text) for number, reading in read.items())
    writer.insert_options(
        (number, one.options, one.command or None) for number, one in read.items()
    )
    writer.insert_entries(entry.row(read[entry.number]) for entry in entries)
    priorities = dpkg.priorities(settings.package_lists) if entries else {}
    insert_postings(writer, searched_entries(entries, read, priorities), texts)
    stamps = {file.path: stamp(file.path) for page in found.pages for file in page.files}
    writer.insert_files(file_rows(found, stamps, readings, entry_numbers(entries, first)))


def open_index(settings: Settings) -> tuple[Store, list[str]]:
    """The index of the present manual folders, in step with them. Raises Unusable if it has to be
    built.
    """
    from dowsing.index.store import index_path

    roots = manual_folders.roots(settings)
    path = index_path(settings.cache, roots, settings.indexed_too)
    store = Store(path)
    if refresh(settings, store, roots) is None:
        store.close()
        raise Unusable("many pages came or went")
    return store, roots


def remove_old_indexes(cache: str) -> None:
    """Of the index files for various manual folders the newest few are kept."""
    try:
        files = [
            e
            for e in os.scandir(cache)
            if e.name.startswith("index-") and e.name.endswith(".sqlite")
        ]
        files.sort(key=lambda entry: entry.stat().st_mtime, reverse=True)
        for entry in files[KEEP_FILES:]:
            os.unlink(entry.path)
            os.unlink(entry.path + ".lock")
        # what builds left that were ended before they could tidy up
        for left in os.scandir(cache):
            if (
                left.name.startswith("index-")
                and left.name.endswith(".new")
                and left.stat().st_mtime < time.time() - DAY
            ):
                os.unlink(left.path)
    except OSError:
        pass
