"""Reads all pages of a build on all cores: whole, or their heads alone.

What was read of whole pages is kept in the file that is being written, so that a build that was
ended goes on where it was.
"""

from __future__ import annotations

import json
import time
from collections.abc import Callable, Generator

from dowsing.index.schema import COMMON_TEXT
from dowsing.ingest.head_reading import read_heads
from dowsing.ingest.page_reading import Read, Reading, Task, read_many
from dowsing.ingest.pages_written import insert_texts
from dowsing.ingest.terms import Postings, with_tasks
from dowsing.model.names import is_typed

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.begun_index import BegunIndex
    from dowsing.index.writer import IndexWriter
    from dowsing.ingest.scan import FoundPage
    from dowsing.ingest.workers import Workers

PORTION = 48
ENDED = "its reader ended before it was read; it may be too large"
FEW = 150  # so few pages are read in this process
HELD_FOR = 1.0  # seconds; what was read longer ago is kept if the build is ended

Work = Generator[list[Reading], None, None]

#: Called with the pages done and the pages in all.
Progress = Callable[[int, int], None]


class PageTerms:
    """The terms of pages as they are read: those of `crowded` pages apart, those of commands with
    what recipes say.
    """

    def __init__(
        self, pages: list[FoundPage], crowded: set[int], tasks: dict[str, list[str]]
    ) -> None:
        self.pages = pages
        self.crowded = crowded
        self.tasks = tasks
        self.texts, self.crowd = Postings(), Postings()

    def add(self, number: int, found: dict[str, int]) -> None:
        """The terms of one page."""
        page = self.pages[number].page
        terms = with_tasks(found, self.tasks.get(page.name)) if is_typed(page.section) else found
        (self.crowd if number in self.crowded else self.texts).add(number, terms)

    def write(self, writer: IndexWriter) -> None:
        """Write the terms of crowded pages; the others are written with what else is searched."""
        self.crowd.write(writer, COMMON_TEXT, lambda number: 0.0)


class PageReader:
    """Begins to read pages when it is made; `heads` or `whole` takes what comes."""

    def __init__(
        self, pages: list[FoundPage], crowded: set[int], done: set[int], heads: bool = False
    ) -> None:
        self.total = len(pages)
        tasks: list[Task] = [
            (number, found.page.path, found.page.name, found.page.section, number in crowded)
            for number, found in enumerate(pages)
            if number not in done
        ]
        # neighbours in a folder are often of one kind and length: deal them out evenly
        count = max(1, (len(tasks) + PORTION - 1) // PORTION)
        portions = [tasks[start::count] for start in range(count)]
        read: Read = read_heads if heads else read_many
        self.work: Work
        if len(tasks) <= FEW:
            self.work = (read(portion) for portion in portions)
        else:
            self.work = read_by_workers(portions, read)

    def heads(self, progress: Progress | None) -> dict[int, Reading]:
        """What comes, by number."""
        readings: dict[int, Reading] = {}
        try:
            for portion in self.work:
                readings |= {reading.number: reading for reading in portion}
                if progress:
                    progress(len(readings), self.total)
        finally:
            self.work.close()  # ends the workers at once if this is left early
        return readings

    def whole(
        self,
        writer: BegunIndex,
        readings: dict[int, Reading],
        terms: PageTerms,
        progress: Progress | None,
    ) -> None:
        """Write the texts and options as they come, collect the terms; what else was read is put
        into `readings`, and kept in the file.
        """
        held = time.monotonic()
        try:
            for portion in self.work:
                insert_texts(writer, [(one.number, one) for one in portion])
                writer.keep_read((one.number, packed(one)) for one in portion)
                for reading in portion:
                    terms.add(reading.number, reading.terms)
                    readings[reading.number] = without_texts(reading)
                if time.monotonic() - held > HELD_FOR:
                    writer.commit()
                    held = time.monotonic()
                if progress:
                    progress(len(readings), self.total)
            writer.commit()
        finally:
            self.work.close()


def without_texts(reading: Reading) -> Reading:
    """What a build needs of a page once its texts are written."""
    return reading._replace(text="", terms={}, options="", command=b"", card=b"", defined=[])


def packed(reading: Reading) -> str:
    """What a build that goes on needs of a page that was read before: its terms too."""
    kept = without_texts(reading)._replace(terms=reading.terms)
    return json.dumps({name: value for name, value in kept._asdict().items() if value})


def unpacked(text: str) -> Reading:
    """The reverse of `packed`. Raises ValueError, TypeError for what is none."""
    needed = {"number": 0, "names": [], "summary": "", "subcommand": False, "text": ""}
    reading = Reading(**{**needed, **json.loads(text)})
    return reading._replace(examples=[(task, line) for task, line in reading.examples])


def read_by_workers(portions: list[list[Task]], read: Read = read_many) -> Work:
    """The readings of workers, which begin at once. What one that died did not give back is read
    once more, a page at a time.
    """
    from dowsing.ingest.workers import Workers

    return _twice_tried(Workers(portions, read), portions, read)


def _twice_tried(first: Workers, portions: list[list[Task]], read: Read) -> Work:
    left = {task[0]: task for portion in portions for task in portion}
    yield from _given_back(first, left)
    if left:
        from dowsing.ingest.workers import Workers

        yield from _given_back(Workers([[task] for task in left.values()], read), left)
    if left:
        yield [Reading(number, [], "", False, "", problem=ENDED) for number in left]


def _given_back(workers: Workers, left: dict[int, Task]) -> Work:
    """What workers give back, which is taken out of what is `left`."""
    work = workers.results()
    try:
        for readings in work:
            for reading in readings:
                del left[reading.number]
            yield readings
    finally:
        work.close()  # ends them at once if this is left early
