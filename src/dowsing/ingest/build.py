"""Builds the index: a first one of the heads of pages, which answers within seconds, or the whole
one. Each is written to a new file, which then takes the old one's place.
"""

from __future__ import annotations

import contextlib
import hashlib
import json
import os
import shutil
import sqlite3
import time

from dowsing.index.begun_index import BegunIndex
from dowsing.index.index_file import being_written, identity, publish, remove, work_folder
from dowsing.index.schema import VERSION, Depth, Meta
from dowsing.index.store import Store
from dowsing.index.writer import IndexWriter
from dowsing.ingest import progress_file
from dowsing.ingest.all_pages import FEW, PageReader, PageTerms, Progress, unpacked
from dowsing.ingest.changes import stamp
from dowsing.ingest.entries import crowded_pages, make_entries
from dowsing.ingest.locks import Work, alone
from dowsing.ingest.meanings import Meanings
from dowsing.ingest.non_pages import take_others
from dowsing.ingest.page_reading import Reading
from dowsing.ingest.pages_written import (
    entry_numbers,
    examples_of_pages,
    file_rows,
    searched_entries,
)
from dowsing.ingest.postings import insert_postings
from dowsing.ingest.prepared import insert_knowledge, prepared_file
from dowsing.ingest.scan import FoundPage, Scan, scan
from dowsing.knowledge.lexicon import NEAR
from dowsing.knowledge.recipe_terms import packed_recipes, packed_rows
from dowsing.knowledge.recipes import own_recipes, recipes_of_folder
from dowsing.machine.packages import dpkg
from dowsing.machine.settings import DEMO_RECIPES, Settings
from dowsing.model.errors import CannotBuild, Unusable
from dowsing.model.names import is_typed
from dowsing.model.paths import stored

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

COMMON_SPREAD = 100  # entries; a term that more have in their heads is very common


def build(
    path: str,
    settings: Settings,
    roots: list[str],
    progress: Progress | None = None,
    depth: Depth = Depth.WHOLE,
) -> None:
    """Build the index of the manual folders `roots`, and what else the settings lead to, as the
    file `path`: of the heads of pages alone if that is the `depth` and there are many.

    The file is complete or not there: it is written beside and renamed. KeyboardInterrupt and
    errors leave an index that was there before as it was. What was read of a whole one that was
    ended is not read again. Raises CannotBuild.
    """
    folder = os.path.dirname(path)
    try:
        os.makedirs(folder, mode=0o700, exist_ok=True)
    except OSError as error:
        raise CannotBuild(f"the index folder {folder} cannot be made ({error.strerror})") from None
    before = identity(path)
    try:
        if depth == Depth.HEADS:
            with alone(path, Work.HEADS):
                if identity(path) == before:  # nobody built one while this one waited
                    _build_first(path, roots, settings, progress)
            return
        with alone(path, Work.UPKEEP):
            if identity(path) == before or not _is_whole(path):
                build_whole(path, roots, settings, progress)
            shutil.rmtree(work_folder(path), ignore_errors=True)
    except (sqlite3.Error, OSError) as error:
        raise CannotBuild(f"the index cannot be written to {folder} ({reason_of(error)})") from None


def reason_of(error: Exception) -> str:
    """Why something could not be written, in a few words."""
    text = getattr(error, "strerror", None) or str(error)
    return "the disk is full" if "full" in text or "No space" in text else text.lower()


def _is_whole(path: str) -> bool:
    try:
        store = Store(path)
    except Unusable:
        return False
    whole = store.is_whole
    store.close()
    return whole


def _build_first(
    path: str, roots: list[str], settings: Settings, progress: Progress | None
) -> None:
    """The first index, which is waited for: whole where there are few pages."""
    prepared = _prepared(settings)
    found = scan(roots, settings.language)
    few = len(found.pages) <= FEW
    new = f"{path}.heads"
    remove(new)  # of a build that was ended: nobody else is at it
    before = identity(path)
    try:
        if few:
            _write_whole(BegunIndex.begun(new, "", prepared), [], found, settings, progress)
        else:
            _write_heads(IndexWriter.new(new, prepared), found, settings, progress)
        if identity(path) == before:  # a whole one may have come meanwhile
            publish(new, path)
    finally:
        remove(new)


def _prepared(settings: Settings) -> str:
    """The file that an index begins as: one for the demo, which knows its own recipes alone, is
    made from nothing.
    """
    return "" if settings.demo else prepared_file()


def _write_heads(
    writer: IndexWriter, found: Scan, settings: Settings, progress: Progress | None
) -> None:
    """Write, and close, the index of the names and summaries of pages. Of the members of very large
    families only the names are taken.
    """
    crowded = crowded_pages(found.pages)
    with contextlib.closing(writer):
        reader = PageReader(found.pages, set(), crowded, heads=True)
        making = _Making(writer, found, settings, crowded)  # while the workers read
        readings = reader.heads(progress) | {
            number: _named_only(found.pages[number], number) for number in crowded
        }
        making.insert_pages(readings, Depth.HEADS)
        making.finish(Depth.HEADS)


def _named_only(found: FoundPage, number: int) -> Reading:
    """What is known of a member of a very large family before it is read."""
    return Reading(number, [found.page.name], "", is_typed(found.page.section), "")


def build_whole(
    path: str,
    roots: list[str],
    settings: Settings,
    progress: Progress | None,
    put: Callable[[str, str], None] = publish,
) -> None:
    """The whole index; one that is interrupted leaves its file, from which the next goes on. Only
    for the one process that is at it. `put` has the file that is written be the index. Raises
    sqlite3.Error, OSError.
    """
    prepared = _prepared(settings)
    found = scan(roots, settings.language)
    new = being_written(path, "new")
    writer, before = _begun(new, _mark(found), prepared)
    with progress_file.telling(path, progress) as tell:
        _write_whole(writer, before, found, settings, tell)
    put(new, path)


def _write_whole(
    writer: BegunIndex,
    before: list[Reading],
    found: Scan,
    settings: Settings,
    progress: Progress | None,
) -> None:
    """Write the whole index, and close it. `before`: what was read before it was ended."""
    crowded = crowded_pages(found.pages)
    with contextlib.closing(writer):
        reader = PageReader(found.pages, crowded, {reading.number for reading in before})
        making = _Making(writer, found, settings, crowded)  # while the workers read
        for reading in before:
            making.terms.add(reading.number, reading.terms)
        readings = {reading.number: reading._replace(terms={}) for reading in before}
        reader.whole(writer, readings, making.terms, progress)
        writer.forget_read()
        making.insert_pages(readings, Depth.WHOLE)
        making.finish(Depth.WHOLE)


def _begun(new: str, mark: str, prepared: str) -> tuple[BegunIndex, list[Reading]]:
    """The file of a build, and what was read into it before it was ended."""
    writer = BegunIndex.begun(new, mark, prepared)
    try:
        return writer, [unpacked(text) for text in writer.were_read()]
    except (sqlite3.Error, ValueError, TypeError):  # it is damaged: from the beginning
        writer.close()
        remove(new)
        return BegunIndex.begun(new, mark, prepared), []


def _mark(found: Scan) -> str:
    """What a build is made of: the same files with the same times and sizes."""
    mark = hashlib.blake2b(str(VERSION).encode(), digest_size=16)
    for page in found.pages:
        for file in page.files:
            mark.update(f"{file.path}\0{stamp(file.path)}\0".encode("utf-8", "surrogateescape"))
    return mark.hexdigest()


class _Making:
    """What is written of pages once they are read, and what is known beside them."""

    def __init__(
        self, writer: IndexWriter, found: Scan, settings: Settings, crowded: set[int]
    ) -> None:
        self.writer = writer
        self.found = found
        self.settings = settings
        self.crowded = crowded
        # taken now, for a file may change while pages are read
        self.stamps = {file.path: stamp(file.path) for page in found.pages for file in page.files}
        if not writer.meta_value(Meta.CONVENTIONS):
            recipes = recipes_of_folder(DEMO_RECIPES) if settings.demo else own_recipes()
            insert_knowledge(writer, recipes, is_fitted=not settings.demo)
        task_terms = json.loads(writer.meta_value(Meta.TASK_TERMS))
        self.terms = PageTerms(found.pages, crowded, task_terms)

    def insert_pages(self, readings: dict[int, Reading], depth: Depth) -> None:
        """The entries of pages, with what is searched in them."""
        writer, found, settings = self.writer, self.found, self.settings
        owners = dpkg.owners(("/man/man",), settings.package_lists, settings.package_root)
        entries = make_entries(readings, found.pages)
        meanings = Meanings.kept(writer)
        if depth == Depth.WHOLE:
            meanings.put_into(entries, readings)
            known = entries
        else:  # what phrases and recipes say is worked out for the whole one
            known = [entry for entry in entries if entry.number not in self.crowded]
        for entry in entries:
            entry.package = owners.get(entry.found.page.path)
        writer.insert_entries(entry.row(readings[entry.number]) for entry in entries)
        priorities = dpkg.priorities(settings.package_lists)
        searched_now = searched_entries(known, readings, priorities)
        insert_postings(writer, searched_now, self.terms.texts, meanings)
        self.terms.write(writer)
        writer.insert_files(file_rows(found, self.stamps, readings, entry_numbers(entries, 0)))
        examples = examples_of_pages(entries, readings)
        writer.set_meta(Meta.EXAMPLES, packed_recipes(examples))
        writer.set_meta(Meta.EXAMPLE_ROWS, packed_rows(examples))

    def finish(self, depth: Depth) -> None:
        """What is told of the index itself, what is no page, and what speeds up look-ups."""
        writer, found = self.writer, self.found
        writer.set_manual_folders(found.folders)
        for key, value in (
            (Meta.DEPTH, depth),
            (Meta.ROOTS, stored("\n".join(found.roots))),
            (Meta.BUILT, str(int(time.time()))),
            (Meta.PAGES, str(len(found.pages))),
        ):
            writer.set_meta(key, value)
        writer.finish_pages()
        take_others(writer, self.settings)
        writer.keep_orders(found.roots, found.roots)
        writer.set_common_apart(COMMON_SPREAD, NEAR)
        writer.commit()
