"""Which pages there are: page files grouped by the file they really are."""

from __future__ import annotations

import os
import time

from dowsing.model.record import Record
from dowsing.sources import manual_folders, page_files
from dowsing.sources.page_files import PageFile

CLOCK_STEP = 40_000_000  # nanoseconds; the clocks of files move by 1 to 10 ms


class FoundPage:
    """A page: its file, and every name under which the file stands in the manual folders."""

    __slots__ = ("links", "page", "place")

    def __init__(self, page: PageFile, place: int) -> None:
        self.page = page
        self.place = place  # of its manual folder in the order of search
        self.links: list[PageFile] = []

    @property
    def files(self) -> list[PageFile]:
        """The file and all that lead to it."""
        return [self.page, *self.links]


class Scan(Record):
    """What the manual folders hold. `problems` are files and folders that cannot be used, with the
    reason.
    """

    pages: list[FoundPage]
    folders: dict[str, int]
    problems: dict[str, str]


def folder_times(roots: list[str]) -> tuple[dict[str, int], dict[str, str]]:
    """The manual folders and their section folders with their modification times (ns), and those in
    trouble.
    """
    times: dict[str, int] = {}
    problems: dict[str, str] = {}
    for root in roots:
        try:
            times[root] = settled(os.stat(root).st_mtime_ns)
            for folder in manual_folders.section_folders(root):
                times[folder] = settled(os.stat(folder).st_mtime_ns)
        except OSError as error:
            problems[root] = (error.strerror or "cannot be read").lower()
    return times, problems


def settled(modified: int) -> int:
    """A modification time (ns) to be kept: one that no folder has if it is so young that more may
    come at the same time.

    The system's clock for files moves by some milliseconds: what comes to a folder within the same
    one would not be seen.
    """
    return modified if abs(time.time_ns() - modified) > CLOCK_STEP else modified - 1


def scan(roots: list[str]) -> Scan:
    """Look through the manual folders."""
    times, problems = folder_times(roots)
    by_file: dict[str, FoundPage] = {}
    for place, root in enumerate(roots):
        for folder in [path for path in times if os.path.dirname(path) == root]:
            try:
                pages = sorted(page_files.page_files(folder), key=lambda page: page.path)
            except OSError as error:
                problems[folder] = (error.strerror or "cannot be read").lower()
                continue
            real_folder = os.path.realpath(folder)
            for page in pages:
                _add(by_file, problems, page, place, real_folder)
    return Scan(list(by_file.values()), times, problems)


def _add(
    by_file: dict[str, FoundPage],
    problems: dict[str, str],
    page: PageFile,
    place: int,
    real_folder: str,
) -> None:
    linked = os.path.islink(page.path)
    if linked:
        real = os.path.realpath(page.path)
        if not os.path.exists(real):
            circular = os.path.islink(real)
            problems[page.path] = (
                "the link goes round in a circle" if circular else "the link leads nowhere"
            )
            return
    else:
        real = os.path.join(real_folder, os.path.basename(page.path))
    found = by_file.get(real)
    if found is None:
        found = by_file[real] = FoundPage(page, place)
        if linked:
            found.links.append(page)
            parts = page_files.split_file_name(os.path.basename(real))
            if parts:
                found.page = PageFile(real, *parts)
            else:
                found.page = PageFile(real, page.name, page.section)
        return
    if page.path == real:
        found.page = page
        found.place = place
    else:
        found.links.append(page)
