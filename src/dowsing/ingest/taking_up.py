"""Taking up the pages that came, went or changed since the index was made."""

from __future__ import annotations

from dowsing.index.schema import Meta
from dowsing.ingest.entries import make_entries
from dowsing.ingest.page_reading import Reading, read_for_index
from dowsing.ingest.pages_written import entry_numbers, file_rows, searched_entries, stamp
from dowsing.ingest.postings import insert_postings
from dowsing.ingest.scan import FoundPage, Scan, scan
from dowsing.ingest.terms import Postings
from dowsing.machine.packages import dpkg

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.writer import FileRow, IndexWriter
    from dowsing.machine.settings import Settings

MOST_CHANGES = 400  # beyond that the index is built anew


def take_up_pages(writer: IndexWriter, settings: Settings, roots: list[str]) -> int | None:
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
