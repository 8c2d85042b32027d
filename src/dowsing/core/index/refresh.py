"""Keeps the index in step with the manual folders: each look-up takes up the pages that came and went."""

from __future__ import annotations

import os
import sqlite3
import time

from dowsing.core.index.store import Store, Unusable
from dowsing.core.record import Record
from dowsing.core.settings import Settings
from dowsing.core.sources import folders

MOST_CHANGES = 400  # beyond that the index is built anew
DAY = 86_400  # seconds
KEEP_FILES = 6


class Changes(Record):
    """What is not as the index saw it: folders of manual pages, and folders and files of other things."""

    manual: list[str]
    others: list[str]


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
    if not changed.manual and not changed.others:
        return 0
    done = _take_up(store, settings, roots) if changed.manual else 0
    if done is not None:
        _take_up_others(store, settings)
    return done


def _take_up_others(store: Store, settings: Settings) -> None:
    from dowsing.core.index.others import take_others

    try:
        writer = Store(store.path, writable=True)
    except Unusable:
        return
    try:
        writer.db.execute("BEGIN IMMEDIATE")
        take_others(writer.db, settings)
        writer.db.commit()
    except (sqlite3.Error, OSError):
        writer.db.rollback()
    finally:
        writer.close()


def _take_up(store: Store, settings: Settings, roots: list[str]) -> int | None:
    from dowsing.core.index.aids import insert_aids
    from dowsing.core.index.build import aided, insert_entries, insert_files, stamp
    from dowsing.core.index.entries import make_entries
    from dowsing.core.index.reading import read_for_index
    from dowsing.core.index.scan import Scan, scan
    from dowsing.core.index.terms import Postings
    from dowsing.core.packages import dpkg

    found = scan(roots)
    now = {file.path: file for page in found.pages for file in (page.page, *page.links)}
    known = {row[0]: row[1:] for row in store.rows("SELECT path, modified, size, entry FROM files WHERE modified")}
    gone = [path for path in known if path not in now]
    fresh = []
    for path in now:
        state = stamp(path)
        if path not in known or known[path][:2] != state:
            fresh.append(path)
    if len(fresh) + len(gone) > MOST_CHANGES:
        return None
    try:
        writer = Store(store.path, writable=True)
    except Unusable:
        return 0
    db = writer.db
    try:
        db.execute("BEGIN IMMEDIATE")
        # an entry is made anew as a whole: with all files that stand for it, and the page that a new one refers to
        came = set(fresh)
        changed_pages = [p for p in found.pages if any(file.path in came for file in (p.page, *p.links))]
        read = {
            p.page.path: read_for_index((0, p.page.path, p.page.name, p.page.section, False)) for p in changed_pages
        }
        concerned = {*gone, *(file.path for p in changed_pages for file in (p.page, *p.links))}
        concerned |= {reading.target for reading in read.values()}
        touched = {known[path][2] for path in concerned if path in known} - {None}
        pages = [
            page
            for page in found.pages
            if page.page.path in read
            or any(known.get(file.path, (0, 0, None))[2] in touched for file in (page.page, *page.links))
        ]
        paths = [file.path for page in pages for file in (page.page, *page.links)]
        for number in touched:
            db.execute("UPDATE entries SET hidden=1, name='', aliases='' WHERE id=?", (number,))
            db.execute("DELETE FROM names WHERE entry=?", (number,))
        db.executemany("DELETE FROM files WHERE path=?", ((path,) for path in (*gone, *paths)))
        db.execute("DELETE FROM files WHERE modified=0 AND size=0")  # which are told anew
        first = (db.execute("SELECT max(id) FROM entries").fetchone()[0] or 0) + 1
        readings = {
            n: read[page.page.path]._replace(number=n)
            if page.page.path in read
            else read_for_index((n, page.page.path, page.page.name, page.page.section, False))
            for n, page in enumerate(pages)
        }
        entries = make_entries(readings, pages)
        owners = dpkg.owners(("/man/man",), settings.package_lists, settings.package_root) if entries else {}
        texts = Postings()
        programs = {row[0] for row in db.execute("SELECT DISTINCT family FROM entries WHERE family IS NOT NULL")}
        for entry in entries:
            reading = readings[entry.number]
            entry.package = owners.get(entry.found.page.path)
            head = entry.name.split("-")[0].split("_")[0]
            if not entry.family and head in programs:
                entry.family = head
            if db.execute(
                "SELECT 1 FROM entries WHERE name=? AND section=? AND place<? AND NOT hidden",
                (entry.name, entry.section, entry.found.place),
            ).fetchone():
                entry.hidden = True
            db.execute("INSERT INTO bodies(rowid, text) VALUES(?,?)", (entry.number + first, reading.text))
            row = (entry.number + first, reading.options, reading.command or None)
            db.execute("INSERT INTO options VALUES(?,?,?)", row)
            texts.add(entry.number + first, reading.terms)
        for entry in entries:
            entry.number += first
        insert_entries(db, entries, readings, first)
        priorities = dpkg.priorities(settings.package_lists) if entries else {}
        insert_aids(db, aided(entries, readings, priorities, first), texts)
        insert_files(
            db, Scan(pages, {}, found.problems), {path: stamp(path) for path in paths}, readings, entries, first
        )
        db.execute("DELETE FROM folders WHERE kind='manual'")
        db.executemany("INSERT OR REPLACE INTO folders VALUES(?,?,'manual')", found.folders.items())
        db.execute("UPDATE meta SET value=? WHERE key='pages'", (str(len(found.pages)),))
        db.commit()
    except (sqlite3.Error, OSError):
        db.rollback()
        return 0
    finally:
        writer.close()
    return len(fresh) + len(gone)


def open_index(settings: Settings) -> tuple[Store, list[str]]:
    """The index of the present manual folders, in step with them. Raises Unusable if it has to be built."""
    from dowsing.core.index.store import index_path

    roots = folders.roots(settings)
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
