"""Manual pages: where they are, which file a page is, and a page file as a Document."""

from __future__ import annotations

import os
import re

from dowsing.facts import with_facts
from dowsing.model.errors import Unreadable
from dowsing.model.paths import as_text
from dowsing.model.record import Record
from dowsing.readers.decoding import SUFFIXES, is_formatted, packed_or_not, read_text, unpacked_name
from dowsing.sources import manual_folders

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.machine.settings import Settings
    from dowsing.model.document import Document

_SECTION = re.compile(r"(?:[0-9][0-9a-zA-Z_+-]*|[nlop])\Z")
_REDIRECT = re.compile(
    r"(?:[.'](?:\\\".*)?\n|\s*\n)*[.']\s*so\s+(\S+)\s*(?:\n(?:[.']\s*\\\".*\n?|\s*\n)*)?\Z"
)


class PageFile(Record):
    """A file in a manual folder that is named like a page."""

    path: str
    name: str
    section: str


def languages(root: str) -> list[str]:
    """The languages that a manual folder has translations for."""
    try:
        return sorted(
            entry.name
            for entry in os.scandir(root)
            if entry.is_dir() and os.path.isdir(os.path.join(entry.path, "man1"))
        )
    except OSError:
        return []


def split_file_name(file: str) -> tuple[str, str] | None:
    """Name and section of a page file, `ls.1.gz` → `("ls", "1")`; None if it is not named like a
    page.
    """
    name, dot, section = unpacked_name(file).rpartition(".")
    if not dot or not name or not _SECTION.match(section):
        return None
    return as_text(name), section


def page_at(path: str) -> PageFile | None:
    """The page file of that path; None if it is not named like a page. One that is laid out already
    may have 0 for its section, which its folder tells then: `cat1/ls.0`.
    """
    folder, file = os.path.split(path)
    parts = split_file_name(file)
    if parts is None:
        return None
    name, section = parts
    above = os.path.basename(folder)
    if section == "0" and above.startswith("cat") and len(above) > len("cat"):
        section = above.removeprefix("cat")
    return PageFile(path, name, section)


def page_files(folder: str) -> Iterator[PageFile]:
    """The page files of one section folder. Raises OSError."""
    for entry in os.scandir(folder):
        page = page_at(entry.path)
        if page is not None:
            yield page


def redirect(text: str) -> str | None:
    """The file that a page which is only `.so file` stands for, or None."""
    if len(text) > 4000 or "so" not in text:
        return None
    match = _REDIRECT.match(text)
    return match[1] if match else None


def locate(target: str, page: str) -> str | None:
    """The file that `.so target` in `page` means, or None.

    Only files inside the manual folder of the page are found, whatever `target` says.
    """
    folder = os.path.dirname(page)
    root = os.path.dirname(folder)
    for base in (os.path.join(root, target), os.path.join(folder, target)):
        for suffix in ("", *SUFFIXES):
            candidate = os.path.realpath(base + suffix)
            inside = candidate.startswith(os.path.realpath(root) + os.sep)
            if inside and os.path.isfile(candidate):
                return candidate
    return None


def read_page_file(
    path: str, name: str, section: str, *, package: str | None = None, language: str = ""
) -> Document:
    """The page in the file `path`. Raises Unreadable if the file cannot be read or holds no
    text.
    """
    visited = {os.path.realpath(path)}
    text = read_text(path)
    for _ in range(10):
        target = redirect(text)
        if target is None:
            break
        found = locate(target, path)
        if found is None:
            raise Unreadable(f"it refers to {target}, which is not in its manual folder")
        if found in visited:
            raise Unreadable("it refers to itself")
        visited.add(found)
        path, text = found, read_text(found)
    return document(text, path, name, section, visited, package=package, language=language)


def document(  # noqa: PLR0913 - the last two by keyword
    text: str,
    path: str,
    name: str,
    section: str,
    visited: set[str] | None = None,
    *,
    package: str | None = None,
    language: str = "",
) -> Document:
    """The page whose source is `text`. Raises Unreadable if nothing in it is text to read."""
    included: set[str] = visited or set()

    def include(target: str) -> str | None:
        included.add(os.path.realpath(path))
        found = locate(target, path)
        if found is None or found in included:
            return None
        included.add(found)
        try:
            return read_text(found)
        except Unreadable:
            return None

    if is_formatted(text):
        from dowsing.readers.roff.formatted import read_formatted

        page = read_formatted(text, name, section, path=path, package=package, language=language)
    else:
        from dowsing.readers.roff.page import read_page

        page = read_page(
            text, name, section, path=path, package=package, language=language, include=include
        )
    if page.cut:
        raise Unreadable(f"it is too large: {page.cut}")
    if not any(part.blocks for part in page.sections):
        raise Unreadable("there is no text in it")
    return with_facts(page)


def translation(settings: Settings, path: str, language: str) -> str | None:
    """The translated file of the page at `path`, or None. `de_DE` falls back to `de`."""
    folder, file = os.path.split(path)
    root, section_folder = os.path.split(folder)
    stem = unpacked_name(file)
    for code in dict.fromkeys((language, language.split("_")[0])):
        for base in dict.fromkeys((root, *manual_folders.roots(settings))):
            for place in (code, f"{code}.UTF-8"):
                candidate = packed_or_not(os.path.join(base, place, section_folder, stem))
                if candidate:
                    return candidate
    return None
