"""Builds the index: a first one of the heads of pages, which answers within seconds, or the whole
one. Each is written to a new file, which then takes the old one's place.
"""

from __future__ import annotations

import contextlib
import hashlib
import json
import os
import sqlite3
import time
from collections.abc import Iterator

from dowsing.index.begun_index import BegunIndex, remove, remove_beside
from dowsing.index.schema import VERSION, Depth, Meta
from dowsing.index.store import Store
from dowsing.index.writer import IndexWriter
from dowsing.ingest import progress_file
from dowsing.ingest.all_pages import FEW, PageReader, PageTerms, Progress, unpacked
from dowsing.ingest.entries import crowded_pages, make_entries
from dowsing.ingest.meanings import Meanings, tasks_of_commands
from dowsing.ingest.non_pages import take_others
from dowsing.ingest.page_reading import Reading
from dowsing.ingest.pages_written import (
    entry_numbers,
    examples_of_pages,
    file_rows,
    searched_entries,
    stamp,
)
from dowsing.ingest.postings import insert_language, insert_postings
from dowsing.ingest.recipe_choice import insert_choice
from dowsing.ingest.scan import FoundPage, Scan, scan
from dowsing.ingest.terms import task_terms
from dowsing.knowledge.conventions import facts_by_words, read_files
from dowsing.knowledge.lexicon import NEAR
from dowsing.knowledge.page_phrases import purposes
from dowsing.knowledge.recipe_terms import (
    never_names,
    ordinary_words,
    packed_recipes,
    packed_rows,
)
from dowsing.knowledge.recipes import Recipe, own_recipes
from dowsing.machine.packages import dpkg
from dowsing.machine.settings import DEMO_RECIPES, Settings
from dowsing.model.errors import CannotBuild, Unusable
from dowsing.model.names import is_typed
from dowsing.model.paths import stored

COMMON_SPREAD = 100  # entries; a term that more have in their heads is very common


def build(
    path: str,
    settings: Settings,
    roots: list[str],
    progress: Progress | None = None,
    depth: Depth = Depth.WHOLE,
) -> None:
    """Build the index of the manual folders `roots`, and what else the settings lead to, into the
    file `path`: of the heads of pages alone if that is the `depth` and there are many.

    The file is complete or not there: it is written beside and renamed. KeyboardInterrupt and
    errors leave an index that was there before as it was. What was read of a whole one that was
    ended is not read again. Raises CannotBuild.
    """
    folder = os.path.dirname(path)
    try:
        os.makedirs(folder, exist_ok=True)
    except OSError as error:
        raise CannotBuild(f"the index folder {folder} cannot be made ({error.strerror})") from None
    asked = time.time()
    try:
        with _lock(path, depth):
            if _is_built(path, depth, asked):
                return  # another process built it while this one waited
            found = scan(roots, settings.language)
            if depth == Depth.HEADS and len(found.pages) > FEW:
                _build_heads(path, found, settings, progress)
            else:
                _build_noted(path, found, settings, progress)
    except (sqlite3.Error, OSError) as error:
        raise CannotBuild(f"the index cannot be written to {folder} ({_reason(error)})") from None


def is_being_built(path: str) -> bool:
    """Whether a process is at work on the whole index of that path."""
    try:
        import fcntl

        with open(_lock_file(path, Depth.WHOLE), "w") as file:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
            return False
    except (ImportError, BlockingIOError):
        return True
    except OSError:
        return False


def _reason(error: Exception) -> str:
    text = getattr(error, "strerror", None) or str(error)
    return "the disk is full" if "full" in text or "No space" in text else text.lower()


def _is_built(path: str, depth: Depth, asked: float) -> bool:
    """Whether an index of this depth has been there since that time."""
    try:
        if os.path.getmtime(path) <= asked:
            return False
        if depth == Depth.HEADS:
            return True
        store = Store(path)
        is_whole = store.is_whole
        store.close()
        return is_whole
    except (OSError, Unusable):
        return False


def _lock_file(path: str, depth: Depth) -> str:
    return f"{path}.lock" if depth == Depth.HEADS else f"{path}.whole"


@contextlib.contextmanager
def _lock(path: str, depth: Depth) -> Iterator[None]:
    """Only one build of a depth at a time; the next waits until the one before is done."""
    try:
        import fcntl
    except ImportError:  # no such locks on this system: the rename is enough to stay whole
        yield
        return
    with open(_lock_file(path, depth), "w") as file:
        fcntl.flock(file, fcntl.LOCK_EX)
        yield


def _build_heads(path: str, found: Scan, settings: Settings, progress: Progress | None) -> None:
    """The index of the names and summaries of pages. Of the members of very large families only
    the names are taken.
    """
    new = f"{path}.heads.new"
    remove(new)  # of a build that was ended: nobody else is at it
    crowded = crowded_pages(found.pages)
    try:
        with contextlib.closing(IndexWriter.new(new)) as writer:
            reader = PageReader(found.pages, set(), crowded, heads=True)
            making = _Making(writer, found, settings, crowded)
            making.insert_knowledge([])  # while the workers read
            readings = reader.heads(progress) | {
                number: _named_only(found.pages[number], number) for number in crowded
            }
            making.insert_pages(readings, Depth.HEADS)
            making.finish(Depth.HEADS)
        os.replace(new, path)
    finally:
        remove(new)


def _named_only(found: FoundPage, number: int) -> Reading:
    """What is known of a member of a very large family before it is read."""
    return Reading(number, [found.page.name], "", is_typed(found.page.section), "")


def _build_noted(path: str, found: Scan, settings: Settings, progress: Progress | None) -> None:
    """The whole index; that it cannot be made is noted, or one look-up after another would begin it
    again.
    """
    try:
        _build_whole(path, found, settings, progress)
    except Exception as error:
        progress_file.note_failure(path, _reason(error))
        raise
    progress_file.note_failure(path, "")


def _build_whole(path: str, found: Scan, settings: Settings, progress: Progress | None) -> None:
    """The whole index. One that is interrupted leaves its file, from which the next goes on."""
    new = f"{path}.new"
    writer, before = _begun(new, _mark(found))
    crowded = crowded_pages(found.pages)
    try:
        with contextlib.closing(writer):
            reader = PageReader(found.pages, crowded, {reading.number for reading in before})
            making = _Making(writer, found, settings, crowded)  # while the workers read
            for reading in before:
                making.terms.add(reading.number, reading.terms)
            readings = {reading.number: reading._replace(terms={}) for reading in before}
            with progress_file.telling(path, progress) as tell:
                reader.whole(writer, readings, making.terms, tell)
            writer.forget_read()
            making.insert_pages(readings, Depth.WHOLE)
            making.insert_knowledge(making.examples)
            making.finish(Depth.WHOLE)
        remove_beside(new)
        os.replace(new, path)
    except (sqlite3.Error, OSError):
        remove(new)  # what is there may be the reason
        raise


def _begun(new: str, mark: str) -> tuple[BegunIndex, list[Reading]]:
    """The file of a build, and what was read into it before it was ended."""
    writer = BegunIndex.begun(new, mark)
    try:
        return writer, [unpacked(text) for text in writer.were_read()]
    except (sqlite3.Error, ValueError, TypeError):  # it is damaged: from the beginning
        writer.close()
        remove(new)
        return BegunIndex.begun(new, mark), []


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
        self.recipes = own_recipes(DEMO_RECIPES if settings.demo else "")[0]
        self.terms = PageTerms(found.pages, crowded, task_terms(self.recipes))
        self.examples: list[Recipe] = []

    def insert_pages(self, readings: dict[int, Reading], depth: Depth) -> None:
        """The entries of pages, with what is searched in them."""
        writer, found, settings = self.writer, self.found, self.settings
        owners = dpkg.owners(("/man/man",), settings.package_lists, settings.package_root)
        entries = make_entries(readings, found.pages)
        if depth == Depth.WHOLE:
            meanings = Meanings(purposes(), tasks_of_commands(self.recipes))
            meanings.put_into(entries, readings)
            known = entries
        else:  # what phrases and recipes say is worked out for the whole one
            known = [entry for entry in entries if entry.number not in self.crowded]
        for entry in entries:
            entry.package = owners.get(entry.found.page.path)
        writer.insert_entries(entry.row(readings[entry.number]) for entry in entries)
        priorities = dpkg.priorities(settings.package_lists)
        searched_now = searched_entries(known, readings, priorities)
        insert_postings(writer, searched_now, self.terms.texts, purposes())
        self.terms.write(writer)
        writer.insert_files(file_rows(found, self.stamps, readings, entry_numbers(entries, 0)))
        self.examples = examples_of_pages(entries, readings)

    def insert_knowledge(self, examples: list[Recipe]) -> None:
        """What we know beside the pages, which look-ups read quicker from here than from its
        files.
        """
        writer, recipes = self.writer, self.recipes
        insert_language(writer)
        writer.set_meta(Meta.CONVENTIONS, json.dumps(read_files()))
        writer.insert_facts(facts_by_words())
        fitted = frozenset() if self.settings.demo else insert_choice(writer, recipes)
        unfitted = [one for one in recipes if one.line not in fitted]
        # the numbers of what is found by its wordings alone are those of the first rows
        others = [one for one in recipes if one.line in fitted]
        writer.set_meta(Meta.RECIPES, packed_recipes(unfitted, others))
        writer.set_meta(Meta.RECIPE_ROWS, packed_rows([*unfitted, *others]))
        writer.set_meta(Meta.EXAMPLES, packed_recipes(examples))
        writer.set_meta(Meta.EXAMPLE_ROWS, packed_rows(examples))
        writer.set_meta(Meta.PHRASES, json.dumps(purposes()))
        writer.set_meta(Meta.COMMAND_TASKS, json.dumps(tasks_of_commands(recipes)))
        writer.set_meta(Meta.ORDINARY_WORDS, ordinary_words(recipes))
        writer.set_meta(Meta.NEVER_NAMES, never_names())

    def finish(self, depth: Depth) -> None:
        """What is told of the index itself, what is no page, and what speeds up look-ups."""
        writer, found = self.writer, self.found
        writer.set_manual_folders(found.folders)
        for key, value in (
            (Meta.VERSION, str(VERSION)),
            (Meta.DEPTH, depth),
            (Meta.ROOTS, stored("\n".join(found.roots))),
            (Meta.BUILT, str(int(time.time()))),
            (Meta.PAGES, str(len(found.pages))),
        ):
            writer.set_meta(key, value)
        writer.finish_pages()
        take_others(writer, self.settings)
        writer.set_common_apart(COMMON_SPREAD, NEAR)
        writer.commit()
