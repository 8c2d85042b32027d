"""Builds the index: reads all pages on all cores and writes a new file, which then takes the old
one's place.
"""

from __future__ import annotations

import contextlib
import json
import os
import sqlite3
import time
from collections.abc import Callable, Generator, Iterator

from dowsing.index.schema import COMMON_TEXT, VERSION, Meta
from dowsing.index.writer import IndexWriter
from dowsing.ingest.entries import crowded_pages, make_entries
from dowsing.ingest.non_pages import take_others
from dowsing.ingest.page_reading import Reading, Task, read_many
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
from dowsing.ingest.terms import Postings, task_terms, with_tasks
from dowsing.knowledge.conventions import facts_by_words, read_files
from dowsing.knowledge.lexicon import NEAR
from dowsing.knowledge.recipe_terms import (
    never_names,
    ordinary_words,
    packed_recipes,
    packed_rows,
)
from dowsing.knowledge.recipes import Recipe, own_recipes
from dowsing.machine.packages import dpkg
from dowsing.machine.settings import DEMO_LIBRARY, Settings
from dowsing.model.errors import CannotBuild
from dowsing.model.paths import stored

DEMO_RECIPES = os.path.join(DEMO_LIBRARY, "recipes")
PORTION = 48
ENDED = "its reader ended before it was read; it may be too large"
COMMON_SPREAD = 100  # entries; a term that more have in their heads is very common
FEW = 150  # so few pages are read in this process

Work = Generator[list[Reading], None, None]

#: Called with the pages done and the pages in all.
Progress = Callable[[int, int], None]


def build(
    path: str, settings: Settings, roots: list[str], progress: Progress | None = None
) -> None:
    """Build the index of the manual folders `roots`, and what else the settings lead to, into the
    file `path`.

    The file is complete or not there: it is written beside and renamed. KeyboardInterrupt and
    errors leave an index that was there before as it was. Raises CannotBuild.
    """
    folder = os.path.dirname(path)
    try:
        os.makedirs(folder, exist_ok=True)
    except OSError as error:
        raise CannotBuild(f"the index folder {folder} cannot be made ({error.strerror})") from None
    new = f"{path}.{os.getpid()}.new"
    asked = time.time()
    try:
        with _lock(path):
            if os.path.exists(path) and os.path.getmtime(path) > asked:
                return  # another process built it while this one waited
            _write(new, scan(roots), settings, roots, progress)
            os.replace(new, path)
    except (sqlite3.Error, OSError) as error:
        raise CannotBuild(f"the index cannot be written to {folder} ({_reason(error)})") from None
    finally:
        for leftover in (new, new + "-journal"):
            with contextlib.suppress(OSError):
                os.unlink(leftover)


def _reason(error: Exception) -> str:
    text = getattr(error, "strerror", None) or str(error)
    return "the disk is full" if "full" in text or "No space" in text else text.lower()


@contextlib.contextmanager
def _lock(path: str) -> Iterator[None]:
    """Only one build at a time; the next waits until the one before is done."""
    try:
        import fcntl
    except ImportError:  # no such locks on this system: the rename is enough to stay whole
        yield
        return
    with open(path + ".lock", "w") as file:
        fcntl.flock(file, fcntl.LOCK_EX)
        yield


def _write(
    path: str, found: Scan, settings: Settings, roots: list[str], progress: Progress | None
) -> None:
    writer = IndexWriter.new(path)
    try:
        crowded = crowded_pages(found.pages)
        work = _start_reading(found.pages, crowded)
        # done while the workers read: nothing of it waits for them
        owners = dpkg.owners(("/man/man",), settings.package_lists, settings.package_root)
        stamps = {file.path: stamp(file.path) for page in found.pages for file in page.files}
        insert_language(writer)
        recipes = own_recipes(DEMO_RECIPES if settings.demo else "")[0]
        terms = _PageTerms(found.pages, crowded, task_terms(recipes))
        readings = _take_readings(writer, work, len(found.pages), terms, progress)
        entries = make_entries(readings, found.pages)
        for entry in entries:
            entry.package = owners.get(entry.found.page.path)
        writer.insert_entries(entry.row(readings[entry.number]) for entry in entries)
        priorities = dpkg.priorities(settings.package_lists)
        insert_postings(writer, searched_entries(entries, readings, priorities), terms.texts)
        terms.crowd.write(writer, COMMON_TEXT, lambda number: 0.0)
        writer.insert_files(file_rows(found, stamps, readings, entry_numbers(entries, 0)))
        writer.set_manual_folders(found.folders)
        writer.set_meta(Meta.VERSION, str(VERSION))
        writer.set_meta(Meta.ROOTS, stored("\n".join(roots)))
        writer.set_meta(Meta.BUILT, str(int(time.time())))
        writer.set_meta(Meta.PAGES, str(len(found.pages)))
        examples = examples_of_pages(entries, readings)
        _insert_knowledge(writer, recipes, examples, settings.demo)
        writer.finish_pages()
        take_others(writer, settings)
        writer.set_common_apart(COMMON_SPREAD, NEAR)
        writer.commit()
    finally:
        writer.close()


def _insert_knowledge(
    writer: IndexWriter, recipes: list[Recipe], examples: list[Recipe], demo: bool
) -> None:
    """What we know beside the pages, which look-ups read quicker from here than from its files."""
    writer.set_meta(Meta.CONVENTIONS, json.dumps(read_files()))
    writer.insert_facts(facts_by_words())
    fitted = frozenset() if demo else insert_choice(writer, recipes)
    unfitted = [one for one in recipes if one.line not in fitted]
    # the numbers of what is found by its wordings alone are those of the first rows
    others = [one for one in recipes if one.line in fitted]
    writer.set_meta(Meta.RECIPES, packed_recipes(unfitted, others))
    writer.set_meta(Meta.RECIPE_ROWS, packed_rows([*unfitted, *others]))
    writer.set_meta(Meta.EXAMPLES, packed_recipes(examples))
    writer.set_meta(Meta.EXAMPLE_ROWS, packed_rows(examples))
    writer.set_meta(Meta.ORDINARY_WORDS, ordinary_words(recipes))
    writer.set_meta(Meta.NEVER_NAMES, never_names())


class _PageTerms:
    """The terms of pages as they are read: those of `crowded` pages apart, those of commands with
    what recipes say.
    """

    def __init__(
        self, pages: list[FoundPage], crowded: set[int], tasks: dict[str, set[str]]
    ) -> None:
        self.pages = pages
        self.crowded = crowded
        self.tasks = tasks
        self.texts, self.crowd = Postings(), Postings()

    def add(self, reading: Reading) -> None:
        """The terms of one page."""
        page = self.pages[reading.number].page
        terms = reading.terms
        if page.section[:1] in ("1", "8", "6"):
            terms = with_tasks(terms, self.tasks.get(page.name))
        (self.crowd if reading.number in self.crowded else self.texts).add(reading.number, terms)


def _start_reading(pages: list[FoundPage], crowded: set[int]) -> Work:
    """Begin to read the pages; the readings come in portions, in no order. Of `crowded` ones less
    is searched.
    """
    tasks: list[Task] = [
        (number, found.page.path, found.page.name, found.page.section, number in crowded)
        for number, found in enumerate(pages)
    ]
    # neighbours in a folder are often of one kind and length: deal them out evenly
    count = max(1, (len(tasks) + PORTION - 1) // PORTION)
    portions = [tasks[start::count] for start in range(count)]
    if len(tasks) <= FEW:
        return (read_many(portion) for portion in portions)
    return _read_by_workers(portions)


def _read_by_workers(portions: list[list[Task]]) -> Work:
    """The readings of workers. What one that died did not give back is read once more, a page at a
    time.
    """
    from dowsing.ingest.workers import Workers

    for again in (False, True):
        left = {task[0]: task for portion in portions for task in portion}
        work = Workers(portions).results()
        try:
            for readings in work:
                for reading in readings:
                    del left[reading.number]
                yield readings
        finally:
            work.close()
        if not left or again:
            break
        portions = [[task] for task in left.values()]
    if left:
        yield [Reading(number, [], "", False, "", problem=ENDED) for number in left]


def _take_readings(
    writer: IndexWriter, work: Work, total: int, terms: _PageTerms, progress: Progress | None
) -> dict[int, Reading]:
    """Write the texts and options as they come, collect the terms; what else was read is kept."""
    readings: dict[int, Reading] = {}
    try:
        for portion in work:
            writer.insert_bodies((one.number, one.text) for one in portion if one.text)
            writer.insert_options(
                (one.number, one.options, one.command or None)
                for one in portion
                if one.options or one.command
            )
            for reading in portion:
                terms.add(reading)
                readings[reading.number] = reading._replace(
                    text="", terms={}, options="", command=b""
                )
            if progress:
                progress(len(readings), total)
    finally:
        work.close()  # ends the workers at once if this is left early
    return readings
