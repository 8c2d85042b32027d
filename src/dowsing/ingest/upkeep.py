"""Keeps the index in step with the machine: a look-up sees by the times of folders whether anything
came or went; what did is taken up into a copy, which then takes the index's place.
"""

from __future__ import annotations

import contextlib
import errno
import os
import sqlite3
import time

from dowsing.index.index_file import (
    being_written,
    index_path,
    publish,
    remove,
    work_folder,
)
from dowsing.index.store import Store
from dowsing.ingest.changes import Changes, changed_folders
from dowsing.ingest.locks import Lock, Work, alone, is_at_work
from dowsing.model.errors import CannotBuild, Unusable
from dowsing.model.paths import is_within
from dowsing.model.record import Record
from dowsing.sources import manual_folders

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.index.writer import IndexWriter
    from dowsing.ingest.all_pages import Progress
    from dowsing.ingest.taking_up import Changed
    from dowsing.machine.settings import Settings

    #: Has a file that is written be the index of a path.
    Put = Callable[[str, str], None]

KEEP_FILES = 6  # indexes of the present layout
#: Days for which an index of another layout is left to the version of the program that made it.
KEEP_OTHERS = 30
_TURNS = 3  # how often what changes meanwhile is gone after
#: Seconds of work after which what is done is put in the index's place.
PUBLISHED_AFTER = 2.0
_COPY = "copy"


def open_as_it_is(settings: Settings) -> tuple[Store, Changes]:
    """The index as it is, which sees the present manual folders alone, and what came and went since
    it was made; the pages that did are found by their names. Raises Unusable if there is none.
    """
    roots = manual_folders.roots(settings)
    store = Store(index_path(settings.cache, settings.indexed_too))
    changes = _changes(store, settings, roots)
    if changes.manual or changes.others:
        from dowsing.ingest.newcomers import Newcomers

        store.pending = Newcomers(store, changes, settings)
    return store, changes


def _changes(store: Store, settings: Settings, roots: list[str]) -> Changes:
    """What is not as the index saw it; has the store see these manual folders alone."""
    changes = changed_folders(store, settings, roots)
    if roots == store.roots:
        return changes
    from dowsing.index.orders import narrow

    return changes.changed(order=not narrow(store, roots))


def open_index(settings: Settings) -> tuple[Store, list[str]]:
    """The index of the present manual folders, in step with them. Raises Unusable if there is none,
    CannotBuild.
    """
    store, changes = open_as_it_is(settings)
    if changes.any:
        store.close()
        with contextlib.suppress(CannotBuild):  # look-ups go on with what it holds
            bring_up_to_date(settings)
        store, _ = open_as_it_is(settings)
        store.pending = None
    return store, manual_folders.roots(settings)


def is_due(store: Store, changes: Changes) -> bool:
    """Whether there is anything for the upkeep of an index to do, and nobody is at it."""
    if store.is_whole and not changes.any and not os.path.lexists(work_folder(store.path)):
        return False
    return not is_at_work(store.path)


def bring_up_to_date(
    settings: Settings, progress: Progress | None = None, anew: bool = False
) -> None:
    """Have the index be whole and in step with the machine; `anew`: read every page again. What was
    done is kept when this is ended. Raises CannotBuild, KeyboardInterrupt.
    """
    from dowsing.ingest.build import reason_of

    path = index_path(settings.cache, settings.indexed_too)
    before = made_at(path)
    try:
        os.makedirs(settings.cache, mode=0o700, exist_ok=True)
        _watch(path, progress)
        with alone(path, Work.UPKEEP) as lock:
            # if it is another one by now, somebody made it while this one waited
            _do_all(path, settings, lock, progress, anew and made_at(path) == before)
    except (sqlite3.Error, OSError) as error:
        raise CannotBuild(
            f"the index cannot be written to {settings.cache} ({reason_of(error)})"
        ) from None
    _remove_what_heads_left(path)
    remove_old_indexes(settings.cache)


def _watch(path: str, progress: Progress | None) -> None:
    """While another process is at work, tell how far it is."""
    from dowsing.ingest.progress_file import EVERY, progress_of

    while progress is not None and is_at_work(path):
        done = progress_of(path)
        if done is not None:
            progress(*done)
        time.sleep(EVERY / 2)


def _do_all(
    path: str, settings: Settings, lock: Lock, progress: Progress | None, anew: bool
) -> None:
    """Do all that there is to do. Raises sqlite3.Error, OSError."""
    import shutil  # as all that writes, not for look-ups

    from dowsing.ingest.build import build_whole, reason_of
    from dowsing.ingest.progress_file import note_failure

    def put(new: str, place: str) -> None:
        if lock.is_lost:
            raise OSError(errno.ECANCELED, "somebody has removed it meanwhile")
        publish(new, place)

    try:
        if anew:
            build_whole(path, roots_to_build(settings), settings, progress, put)
        for _ in range(_TURNS):
            if not _take_turn(path, settings, progress, put):
                break
    except (sqlite3.Error, OSError) as error:
        if not lock.is_lost:  # else what is there is another's
            # noted, or one look-up after another would begin it again; the space may be the reason
            note_failure(path, reason_of(error))
            shutil.rmtree(work_folder(path), ignore_errors=True)
        raise
    if not lock.is_lost:
        note_failure(path, "")
        shutil.rmtree(work_folder(path), ignore_errors=True)


def _remove_what_heads_left(path: str) -> None:
    """The file of an index of names and summaries whose process was ended."""
    left = f"{path}.heads"
    if os.path.lexists(left) and not is_at_work(path, Work.HEADS):
        remove(left)


def made_at(path: str) -> int | None:
    """When the index of that path was made, in seconds since 1970; None if there is no whole one.
    What was taken up since changes nothing.
    """
    try:
        store = Store(path)
    except Unusable:
        return None
    made = store.built if store.is_whole else None
    store.close()
    return made


def _take_turn(path: str, settings: Settings, progress: Progress | None, put: Put) -> bool:
    """Do what there is to do now; whether there was anything. `put` has a file that is written be
    the index.
    """
    from dowsing.ingest.build import build_whole

    roots = manual_folders.roots(settings)
    try:
        store = Store(path)
        is_whole = store.is_whole
        changes = _changes(store, settings, roots)
        known = store.roots
        store.close()
    except Unusable:
        is_whole, known, changes = False, [], Changes([], [])
    if is_whole and not changes.any:
        return False
    place = _Place(path, progress, put)
    if not is_whole or not _take_up(place, settings, known, roots, changes):
        build_whole(path, roots_to_build(settings), settings, progress, put)
    return True


class _Place(Record):
    """Where a turn writes to, whom it tells how far it is, and how it puts what it wrote there."""

    path: str
    progress: Progress | None
    put: Put


def _take_up(
    place: _Place, settings: Settings, known: list[str], roots: list[str], changes: Changes
) -> bool:
    """Take up what changed into a copy of the index; False if there is so much of it that the index
    should be made anew. What is done is put in its place every few seconds. `known`: the manual
    folders that it is made of.
    """
    import shutil

    from dowsing.index.writer import IndexWriter
    from dowsing.ingest.non_pages import take_others
    from dowsing.ingest.progress_file import telling
    from dowsing.ingest.taking_up import MOST_CHANGES, find_changed

    copy = being_written(place.path, _COPY)
    remove(copy)  # of a process that was ended
    shutil.copyfile(place.path, copy)
    with contextlib.closing(IndexWriter.opened(copy)) as writer:
        others = set(changes.others)
        if changes.manual:
            concerned = [
                one for one in roots if any(is_within(each, [one]) for each in changes.manual)
            ]
            changed = find_changed(writer, settings, known, roots, concerned)
            if changed.count > MOST_CHANGES:
                return False
            with telling(place.path, place.progress) as tell:
                _take_up_pages(writer, place, changed, tell)
            if changed.gone:  # a command whose page is gone is there without it
                others |= set(settings.search_path)
        if others:
            take_others(writer, settings, others)
        writer.keep_orders(writer.roots(), roots)
        writer.commit()
    place.put(copy, place.path)
    return True


def _take_up_pages(writer: IndexWriter, place: _Place, changed: Changed, tell: Progress) -> None:
    """Take up pages, and show what is done every few seconds."""
    import shutil

    shown = time.monotonic()
    for done in changed.taken_up():
        writer.commit()
        tell(done, changed.count)
        if time.monotonic() - shown > PUBLISHED_AFTER and done < changed.count:
            so_far = being_written(place.path, "so-far")
            shutil.copyfile(writer.path, so_far)
            place.put(so_far, place.path)
            shown = time.monotonic()


def roots_to_build(settings: Settings) -> list[str]:
    """The manual folders of a new index: those of now, and those that the one before had been made
    of, which other terminals may have in use.
    """
    roots = manual_folders.roots(settings)
    try:
        store = Store(index_path(settings.cache, settings.indexed_too))
        before = store.roots
        store.close()
    except Unusable:
        before = []
    return [*roots, *(one for one in before if one not in roots and os.path.isdir(one))]


def remove_old_indexes(cache: str) -> None:
    """Remove all indexes of the present layout but the newest few, and those of others that have
    not been in use for a month; each with what belongs to it.
    """
    import shutil

    from dowsing.index.schema import VERSION
    from dowsing.knowledge.units import DAY

    now = time.time()
    with contextlib.suppress(OSError):
        found = [
            (max(entry.stat().st_mtime, entry.stat().st_atime), entry.name)
            for entry in os.scandir(cache)
            if entry.name.startswith("index") and entry.name.endswith(".sqlite")
        ]
        own = [name for _, name in sorted(found, reverse=True) if is_of_layout(name, VERSION)]
        gone = own[KEEP_FILES:]
        gone += [
            name
            for used, name in found
            if not is_of_layout(name, VERSION) and now - used > KEEP_OTHERS * DAY
        ]
        for entry in list(os.scandir(cache)):
            if any(entry.name == name or entry.name.startswith(f"{name}.") for name in gone):
                if entry.is_dir(follow_symlinks=False):
                    shutil.rmtree(entry.path, ignore_errors=True)
                else:
                    remove(entry.path)


def is_of_layout(name: str, version: int) -> bool:
    """Whether a file of that name is an index of that layout."""
    rest = name.removeprefix(f"index-{version}")
    return rest != name and rest[:1] in ("-", ".")
