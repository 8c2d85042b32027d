"""Keeps the index in step with the manual folders: each look-up takes up the pages that came and
went.
"""

from __future__ import annotations

import contextlib
import os
import sqlite3
import time

from dowsing.index.store import Store
from dowsing.model.errors import Unusable
from dowsing.model.paths import is_within
from dowsing.model.record import Record
from dowsing.sources import manual_folders

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.writer import IndexWriter
    from dowsing.machine.settings import Settings

KEEP_FILES = 6
#: Seconds that a build does not let pass without writing.
UNTOUCHED = 300


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
        if kind == "manual" and not is_within(place, roots):
            continue  # of another terminal, which takes up what changed there
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
    # what writes is loaded here, for most look-ups find nothing changed
    from dowsing.index.writer import IndexWriter

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
    from dowsing.ingest.taking_up import take_up_pages

    changed = changed_folders(store, settings, roots)
    if not changed.any:
        return 0
    files, others = 0, bool(changed.others)
    if changed.manual:
        concerned = [one for one in roots if any(is_within(path, [one]) for path in changed.manual)]
        taken = take_up_pages(writer, settings, store.roots, roots, concerned)
        if taken is None:
            return None
        files, others = taken.files, others or taken.any_gone
    if others:  # a command whose page is gone is there without it
        take_others(writer, settings)
    return files


def open_index(settings: Settings) -> tuple[Store, list[str]]:
    """The index of the present manual folders, in step with them. Raises Unusable if it has to be
    built.
    """
    from dowsing.index.store import index_path

    roots = manual_folders.roots(settings)
    store = Store(index_path(settings.cache, settings.indexed_too))
    if refresh(settings, store, roots) is None:
        store.close()
        raise Unusable("many pages came or went")
    if roots != store.roots:
        from dowsing.index.applying import narrow

        narrow(store, roots)
    return store, roots


def roots_to_build(settings: Settings) -> list[str]:
    """The manual folders of a new index: those of now, and those that the one before had been made
    of, which other terminals may have in use.
    """
    from dowsing.index.store import index_path

    roots = manual_folders.roots(settings)
    try:
        store = Store(index_path(settings.cache, settings.indexed_too))
        before = store.roots
        store.close()
    except Unusable:
        before = []
    return [*roots, *(one for one in before if one not in roots and os.path.isdir(one))]


def remove_old_indexes(cache: str) -> None:
    """Remove indexes that this version cannot read, all but the newest few, and what builds left
    that were ended before they could tidy up.
    """
    from dowsing.knowledge.units import DAY

    try:
        files = [
            e
            for e in os.scandir(cache)
            if e.name.startswith("index") and e.name.endswith(".sqlite")
        ]
        files.sort(key=lambda entry: entry.stat().st_mtime, reverse=True)
        for n, entry in enumerate(files):
            if n >= KEEP_FILES or not _is_readable(entry.path):
                for ending in ("", ".lock", ".whole"):
                    with contextlib.suppress(FileNotFoundError):
                        os.unlink(entry.path + ending)
        kept = {entry.name for entry in os.scandir(cache)}
        for left in os.scandir(cache):
            name, new, _ = left.name.partition(".sqlite.")
            if name.startswith("index") and new and ".new" in left.name:
                # what belongs to an index may be gone on from
                wait = DAY if f"{name}.sqlite" in kept else UNTOUCHED
                if time.time() - left.stat().st_mtime > wait:
                    os.unlink(left.path)
    except OSError:
        pass


def _is_readable(path: str) -> bool:
    try:
        Store(path).close()
    except Unusable:
        return False
    return True
