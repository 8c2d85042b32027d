"""Keeps the index in step with the manual folders: each look-up takes up the pages that came and went."""

from __future__ import annotations

import os
import sqlite3
import time

from dowsing.index.store import Store
from dowsing.machine.settings import Settings
from dowsing.model.errors import Unusable
from dowsing.model.paths import restored, stored
from dowsing.model.record import Record
from dowsing.sources import manual_folders

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.ingest.entries import Entry as MadeEntry
    from dowsing.ingest.page_reading import Reading
    from dowsing.ingest.scan import Found, Scan
    from dowsing.sources.page_files import PageFile

MOST_CHANGES = 400  # beyond that the index is built anew
DAY = 86_400  # seconds
KEEP_FILES = 6


class Changes(Record):
    """What is not as the index saw it: folders of manual pages, and folders and files of other things."""

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
    changed.manual.extend(root for root in roots if root not in paths and os.access(root, os.R_OK | os.X_OK))
    changed.others.extend(
        folder
        for folder in settings.search_path
        if folder not in paths and folder.startswith("/") and os.path.normpath(folder) not in paths
    )
    return changed


def refresh(settings: Settings, store: Store, roots: list[str]) -> int | None:
    """Take up the pages that came, went or changed in folders that changed, and what else changed.

    Returns how many pages, or None if there is so much to do that the index should be built anew. If the index
    cannot be written the answer is 0 and look-ups go on with what it holds.
    """
    changed = changed_folders(store, settings, roots)
    if not changed.any:
        return 0
    try:
        writer = Store(store.path, writable=True)
    except Unusable:
        return 0
    try:
        # others may be at the same work: what is new is worked out when nobody else can write
        writer.db.execute("BEGIN IMMEDIATE")
        done = _take_up_changes(writer, settings, roots)
        if done is None:
            writer.db.rollback()
        else:
            writer.db.commit()
        return done
    except (sqlite3.Error, OSError):
        writer.db.rollback()
        return 0
    finally:
        writer.close()


def _take_up_changes(writer: Store, settings: Settings, roots: list[str]) -> int | None:
    """What `refresh` does while it holds the lock; another process may just have done it."""
    from dowsing.ingest.non_pages import take_others

    changed = changed_folders(writer, settings, roots)
    if not changed.any:
        return 0
    done = _take_up_pages(writer.db, settings, roots) if changed.manual else 0
    if done is not None:
        take_others(writer.db, settings)
    return done


def _take_up_pages(db: sqlite3.Connection, settings: Settings, roots: list[str]) -> int | None:
    """Make the entries of all pages that are not as the index has them, and of those that these stand for or hide."""
    from dowsing.ingest.build import stamp
    from dowsing.ingest.scan import Scan, scan

    found = scan(roots)
    now = {file.path for page in found.pages for file in _files(page)}
    known = _known_files(db)
    gone = [path for path in known if path not in now]
    came = {path for path in now if path not in known or known[path][:2] != stamp(path)}
    if len(came) + len(gone) > MOST_CHANGES:
        return None
    changed = [page for page in found.pages if any(file.path in came for file in _files(page))]
    read = {page.page.path: _read(page) for page in changed}
    touched = _touched_entries(db, known, gone, changed, read)
    pages = [
        page
        for page in found.pages
        if page.page.path in read or any(known.get(file.path, _UNKNOWN)[2] in touched for file in _files(page))
    ]
    _forget(db, touched, [*gone, *(file.path for page in pages for file in _files(page))])
    readings = {
        number: read[page.page.path]._replace(number=number) if page.page.path in read else _read(page, number)
        for number, page in enumerate(pages)
    }
    _insert_pages(db, settings, Scan(pages, {}, found.problems), readings)
    db.execute("DELETE FROM folders WHERE kind='manual'")
    rows = ((stored(path), modified) for path, modified in found.folders.items())
    db.executemany("INSERT OR REPLACE INTO folders VALUES(?,?,'manual')", rows)
    db.execute("UPDATE meta SET value=? WHERE key='pages'", (str(len(found.pages)),))
    return len(came) + len(gone)


#: What is known of a file that is not in the index: its modification time, its size, its entry.
_UNKNOWN: tuple[int, int, int | None] = (0, 0, None)


def _files(page: Found) -> list[PageFile]:
    return [page.page, *page.links]


def _read(page: Found, number: int = 0) -> Reading:
    from dowsing.ingest.page_reading import read_for_index

    return read_for_index((number, page.page.path, page.page.name, page.page.section, False))


def _known_files(db: sqlite3.Connection) -> dict[str, tuple[int, int, int | None]]:
    """The page files of the index: modification time (ns), size and the number of the entry of each."""
    rows = db.execute("SELECT path, modified, size, entry FROM files WHERE modified")
    return {restored(path): (modified, size, entry) for path, modified, size, entry in rows}


def _touched_entries(
    db: sqlite3.Connection,
    known: dict[str, tuple[int, int, int | None]],
    gone: list[str],
    changed: list[Found],
    read: dict[str, Reading],
) -> set[int]:
    """The entries to be made anew as a whole: an entry has all files that stand for it, and hides others of its name."""
    concerned = {*gone, *(file.path for page in changed for file in _files(page))}
    concerned |= {reading.target for reading in read.values()}
    touched = {known[path][2] for path in concerned if path in known} - {None}
    labels = {(page.page.name, page.page.section) for page in changed}
    for number in touched:
        labels |= set(db.execute("SELECT name, section FROM entries WHERE id=?", (number,)).fetchall())
    for name, section in labels:
        rows = db.execute(
            "SELECT entry FROM names WHERE key=? AND name=? AND section=? AND alias=0",
            (name.casefold(), name, section),
        )
        touched |= {row[0] for row in rows}
    return touched  # type: ignore[return-value]


def _forget(db: sqlite3.Connection, entries: set[int], paths: list[str]) -> None:
    """Take entries and files out; the number of an entry is not used again, for its text stays in the full text."""
    for number in entries:
        db.execute("UPDATE entries SET hidden=1, name='', aliases='' WHERE id=?", (number,))
        db.execute("DELETE FROM names WHERE entry=?", (number,))
    db.executemany("DELETE FROM files WHERE path=?", ((stored(path),) for path in paths))
    db.execute("DELETE FROM files WHERE modified=0 AND size=0")  # which are told anew


def _insert_pages(db: sqlite3.Connection, settings: Settings, found: Scan, readings: dict[int, Reading]) -> None:
    """Write the entries of pages with all that is searched in them."""
    from dowsing.ingest.build import insert_entries, insert_files, searched_entries, stamp
    from dowsing.ingest.entries import make_entries
    from dowsing.ingest.postings import insert_postings
    from dowsing.ingest.terms import Postings
    from dowsing.machine.packages import dpkg

    first = (db.execute("SELECT max(id) FROM entries").fetchone()[0] or 0) + 1
    entries = make_entries(readings, found.pages)
    owners = dpkg.owners(("/man/man",), settings.package_lists, settings.package_root) if entries else {}
    programs = {row[0] for row in db.execute("SELECT DISTINCT family FROM entries WHERE family IS NOT NULL")}
    texts = Postings()
    for entry in entries:
        reading = readings[entry.number]
        entry.package = owners.get(entry.found.page.path)
        head = entry.name.split("-")[0].split("_")[0]
        if not entry.family and head in programs:
            entry.family = head
        entry.hidden = entry.hidden or _is_shadowed(db, entry)
        entry.number += first
        db.execute("INSERT INTO bodies(rowid, text) VALUES(?,?)", (entry.number, reading.text))
        db.execute("INSERT INTO options VALUES(?,?,?)", (entry.number, reading.options, reading.command or None))
        texts.add(entry.number, reading.terms)
    insert_entries(db, entries, readings, first)
    priorities = dpkg.priorities(settings.package_lists) if entries else {}
    insert_postings(db, searched_entries(entries, readings, priorities, first), texts)
    stamps = {file.path: stamp(file.path) for page in found.pages for file in _files(page)}
    insert_files(db, found, stamps, readings, entries, first)


def _is_shadowed(db: sqlite3.Connection, entry: MadeEntry) -> bool:
    """Whether another page of that name and section comes first in the order of search."""
    row = db.execute(
        "SELECT 1 FROM entries WHERE name=? AND section=? AND place<? AND NOT hidden",
        (entry.name, entry.section, entry.found.place),
    ).fetchone()
    return row is not None


def open_index(settings: Settings) -> tuple[Store, list[str]]:
    """The index of the present manual folders, in step with them. Raises Unusable if it has to be built."""
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
        files = [e for e in os.scandir(cache) if e.name.startswith("index-") and e.name.endswith(".sqlite")]
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
