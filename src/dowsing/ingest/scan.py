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
    """What the manual folders `roots` hold. `folders`: their modification times (ns); `problems`:
    files and folders that cannot be used, with the reason.
    """

    roots: list[str]
    pages: list[FoundPage]
    folders: dict[str, int]
    problems: dict[str, str]


def folder_times(
    roots: list[str],
) -> tuple[dict[str, list[str]], dict[str, int], dict[str, str]]:
    """The section folders of each manual folder; the modification times (ns) of all; and the manual
    folders in trouble.
    """
    sections: dict[str, list[str]] = {}
    times: dict[str, int] = {}
    problems: dict[str, str] = {}
    for root in roots:
        try:
            times[root] = settled(os.stat(root).st_mtime_ns)
            for folder in manual_folders.section_folders(root):
                times[folder] = settled(os.stat(folder).st_mtime_ns)
                sections.setdefault(root, []).append(folder)
        except OSError as error:
            problems[root] = (error.strerror or "cannot be read").lower()
    return sections, times, problems


def settled(modified: int) -> int:
    """A modification time (ns) to be kept: one that no folder has if it is so young that more may
    come at the same time.

    The system's clock for files moves by some milliseconds: what comes to a folder within the same
    one would not be seen.
    """
    return modified if abs(time.time_ns() - modified) > CLOCK_STEP else modified - 1


def scan(roots: list[str], language: str = "") -> Scan:
    """Look through the manual folders. Pages of a name that only translations have are taken in the
    user's `language`, else in the first there is.
    """
    sections, times, problems = folder_times(roots)
    by_file: dict[str, FoundPage] = {}
    for place, root in enumerate(roots):
        for folder in sections.get(root, []):
            real_folder = os.path.realpath(folder)
            for page in _pages_in(folder, problems):
                _add(by_file, problems, page, place, real_folder)
    known = {page.name for one in by_file.values() for page in one.files}
    for place, root in enumerate(roots):
        for folders in _translations(root, language):
            taken: set[str] = set()
            for folder in folders:
                real_folder = os.path.realpath(folder)
                only = [page for page in _pages_in(folder, problems) if page.name not in known]
                for page in only:
                    _add(by_file, problems, page, place, real_folder)
                if only:
                    times[folder] = settled(os.stat(folder).st_mtime_ns)
                    taken |= {page.name for page in only}
            known |= taken
    return Scan(roots, list(by_file.values()), times, problems)


def _pages_in(folder: str, problems: dict[str, str]) -> list[PageFile]:
    """The page files of a folder, in order; that it cannot be read is put into `problems`."""
    try:
        return sorted(page_files.page_files(folder), key=lambda page: page.path)
    except OSError as error:
        problems[folder] = (error.strerror or "cannot be read").lower()
        return []


def _translations(root: str, language: str) -> list[list[str]]:
    """The section folders of each language of a manual folder, those of `language` first; what
    cannot be read has none.
    """
    try:
        folders = manual_folders.language_folders(root, language)
        return [manual_folders.section_folders(folder) for folder in folders]
    except OSError:
        return []


def _beside(link: str, real_folder: str) -> str:
    """The file of the same folder that a link leads to at once, as most do; "" if it does not."""
    target = os.readlink(link)
    if "/" in target or target in (".", ".."):
        return ""
    real = os.path.join(real_folder, target)
    return "" if os.path.islink(real) else real


def _add(
    by_file: dict[str, FoundPage],
    problems: dict[str, str],
    page: PageFile,
    place: int,
    real_folder: str,
) -> None:
    linked = os.path.islink(page.path)
    if linked:
        real = _beside(page.path, real_folder) or os.path.realpath(page.path)
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
            own = page_files.page_at(real)
            found.page = own or PageFile(real, page.name, page.section)
        return
    if page.path == real:
        found.page = page
        found.place = place
    else:
        found.links.append(page)
