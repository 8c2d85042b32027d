"""Builds the index: reads all pages on all cores and writes a new file, which then takes the old one's place."""

from __future__ import annotations

import contextlib
import json
import os
import sqlite3
import time
from collections.abc import Callable, Generator, Iterator

from dowsing.index import schema
from dowsing.index.schema import COMMON_TEXT
from dowsing.ingest.entries import Entry, crowded_pages, make_entries
from dowsing.ingest.non_pages import take_others
from dowsing.ingest.page_reading import Reading, Task, read_many
from dowsing.ingest.postings import (
    SearchedEntry,
    insert_language,
    insert_postings,
    referrals,
    set_common_apart,
)
from dowsing.ingest.scan import Found, Scan, scan
from dowsing.ingest.terms import Postings, task_terms, with_tasks
from dowsing.knowledge.conventions import read_files
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
FEW = 150  # so few pages are read in this process

Work = Generator[list[Reading], None, None]

#: Called with the pages done and the pages in all.
Progress = Callable[[int, int], None]


def build(path: str, settings: Settings, roots: list[str], progress: Progress | None = None) -> None:
    """Build the index of the manual folders `roots`, and what else the settings lead to, into the file `path`.

    The file is complete or not there: it is written beside and renamed. KeyboardInterrupt and errors leave
    an index that was there before as it was. Raises CannotBuild.
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


def _write(path: str, found: Scan, settings: Settings, roots: list[str], progress: Progress | None) -> None:
    db = sqlite3.connect(path)
    try:
        db.executescript(schema.FAST + schema.TABLES)
        crowded = crowded_pages(found.pages)
        work = _start_reading(found.pages, crowded)
        # done while the workers read: nothing of it waits for them
        owners = dpkg.owners(("/man/man",), settings.package_lists, settings.package_root)
        stamps = {file.path: stamp(file.path) for page in found.pages for file in (page.page, *page.links)}
        insert_language(db)
        recipes = own_recipes(DEMO_RECIPES if settings.demo else "")[0]
        tasks = task_terms(recipes)
        texts, crowd = Postings(), Postings()

        def terms_of(reading: Reading) -> dict[str, int]:
            page = found.pages[reading.number].page
            return (
                reading.terms
                if page.section[:1] not in ("1", "8", "6")
                else with_tasks(reading.terms, tasks.get(page.name))
            )

        readings = _take_readings(
            db, work, len(found.pages), lambda number: crowd if number in crowded else texts, terms_of, progress
        )
        entries = make_entries(readings, found.pages)
        for entry in entries:
            entry.package = owners.get(entry.found.page.path)
        insert_entries(db, entries, readings)
        insert_postings(db, searched_entries(entries, readings, dpkg.priorities(settings.package_lists)), texts)
        crowd.write(db, COMMON_TEXT, lambda number: 0.0)
        insert_files(db, found, stamps, readings, entries)
        rows = ((stored(path), modified) for path, modified in found.folders.items())
        db.executemany("INSERT INTO folders VALUES(?,?,'manual')", rows)
        examples = examples_of_pages(entries, readings)
        meta = {
            "version": str(schema.VERSION),
            "roots": stored("\n".join(roots)),
            "built": str(int(time.time())),
            "pages": str(len(found.pages)),
            "conventions": json.dumps(read_files()),
            "recipes": packed_recipes(recipes),
            "recipes rows": packed_rows(recipes),
            "examples": packed_recipes(examples),
            "examples rows": packed_rows(examples),
            "ordinary words": ordinary_words(recipes),
            "never names": never_names(),
        }
        db.executemany("INSERT INTO meta VALUES(?,?)", meta.items())
        db.executescript(schema.INDEXES)
        take_others(db, settings)
        set_common_apart(db)
        db.commit()
    finally:
        db.close()


def _start_reading(pages: list[Found], crowded: set[int]) -> Work:
    """Begin to read the pages; the readings come in portions, in no order. Of `crowded` ones less is searched."""
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
    """The readings of workers. What one that died did not give back is read once more, a page at a time."""
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
    db: sqlite3.Connection,
    work: Work,
    total: int,
    texts_of: Callable[[int], Postings],
    terms_of: Callable[[Reading], dict[str, int]],
    progress: Progress | None,
) -> dict[int, Reading]:
    """Write the texts and options as they come, collect the terms; what else was read is kept."""
    readings: dict[int, Reading] = {}
    try:
        for portion in work:
            bodies = ((reading.number, reading.text) for reading in portion if reading.text)
            db.executemany("INSERT INTO bodies(rowid, text) VALUES(?,?)", bodies)
            options = (
                (one.number, one.options, one.command or None) for one in portion if one.options or one.command
            )
            db.executemany("INSERT INTO options VALUES(?,?,?)", options)
            for reading in portion:
                texts_of(reading.number).add(reading.number, terms_of(reading))
                readings[reading.number] = reading._replace(text="", terms={}, options="", command=b"")
            if progress:
                progress(len(readings), total)
    finally:
        work.close()  # ends the workers at once if this is left early
    return readings


def searched_entries(
    entries: list[Entry], readings: dict[int, Reading], priorities: dict[str, str], first: int = 0
) -> list[SearchedEntry]:
    """What is known of entries for their aids. `first` is what entry numbers are ahead of the readings' numbers."""
    shown = [entry for entry in entries if not entry.hidden]
    number_of = {f"{name}({section})": entry.number for entry in shown for name, section in _names(entry)}
    families = {entry.number: entry.family for entry in shown}
    references = {entry.number: readings[entry.number - first].references for entry in shown}
    referred = referrals(references, number_of, families)
    return [
        SearchedEntry(
            entry.number,
            [name for name, _ in _names(entry)],
            [f"{name}({section})" for name, section in _names(entry)],
            entry.summary,
            entry.family,
            priorities.get(entry.package or "", ""),
            readings[entry.number - first].verbs,
            readings[entry.number - first].nouns,
            referred[entry.number],
        )
        for entry in shown
    ]


def _names(entry: Entry) -> list[tuple[str, str]]:
    return [(entry.name, entry.section), *entry.aliases]


def examples_of_pages(entries: list[Entry], readings: dict[int, Reading]) -> list[Recipe]:
    """What the pages give as examples, as recipes without slots."""
    return [
        Recipe(task, [], line, [], entry.name, where=f"{entry.name}({entry.section})")
        for entry in entries
        for task, line in readings[entry.number].examples
    ]


def insert_entries(
    db: sqlite3.Connection, entries: list[Entry], readings: dict[int, Reading], first: int = 0
) -> None:
    """Write entries with their names. `first` is what entry numbers are ahead of the readings' numbers."""
    db.executemany(
        "INSERT INTO entries VALUES(?,?,?,?,?,?,?,?,?,?,?,?,?)",
        (
            (
                entry.number, entry.name, entry.section, "\n".join(entry.alias_labels), entry.kind, entry.summary,
                entry.package, entry.family or None, stored(entry.found.page.path), entry.found.place, int(entry.hidden),
                readings[entry.number - first].verbs, readings[entry.number - first].nouns,
            )
            for entry in entries
        ),
    )  # fmt: skip
    last = db.execute("SELECT coalesce(max(rowid), 0) FROM names").fetchone()[0]
    db.executemany(
        "INSERT INTO names VALUES(?,?,?,?,?)",
        (
            (name.casefold(), name, section, entry.number, int(n > 0))
            for entry in entries
            for n, (name, section) in enumerate(_names(entry))
        ),
    )
    db.execute("INSERT INTO pieces(rowid, key) SELECT rowid, key FROM names WHERE rowid>?", (last,))


def stamp(path: str) -> tuple[int, int]:
    """Modification time (ns) and size of a file or link itself; zeros if there is none."""
    try:
        state = os.lstat(path)
    except OSError:
        return 0, 0
    return state.st_mtime_ns, state.st_size


def insert_files(
    db: sqlite3.Connection,
    found: Scan,
    stamps: dict[str, tuple[int, int]],
    readings: dict[int, Reading],
    entries: list[Entry],
    first: int = 0,
) -> None:
    """Write which files there are, what entry each belongs to and what is wrong with it.

    `first` is what entry numbers are ahead of the numbers of the scan.
    """
    numbers = {n: entry.number for entry in entries for n in (entry.number - first, *entry.referring)}
    rows = []
    for number, page in enumerate(found.pages):
        problem = readings[number].problem if number in readings else "it was not read"
        for file in (page.page, *page.links):
            path = stored(file.path)
            rows.append((path, os.path.dirname(path), *stamps[file.path], numbers.get(number), problem or None))
    told = ((stored(path), says) for path, says in found.problems.items())
    rows += [(path, os.path.dirname(path), 0, 0, None, says) for path, says in told]
    db.executemany("INSERT OR REPLACE INTO files VALUES(?,?,?,?,?,?)", rows)
