"""The source `package`: the texts in the documentation folder of the package that a name comes
from.
"""

from __future__ import annotations

import os
import re

from dowsing.facts import with_facts
from dowsing.model.document import Block, Document, Item, Literal, Paragraph, Section
from dowsing.model.errors import Unreadable
from dowsing.model.markup import clean, clean_line
from dowsing.model.source_name import SourceName
from dowsing.readers.decoding import read_text, unpacked_name
from dowsing.sources.source import Availability, Subject, nothing

NAME = SourceName.PACKAGE
MOST_FILES = 400
MOST_TEXT = 200_000  # characters that are shown of all texts together; the others are listed
_TEXT = re.compile(
    r"(?:\.(?:txt|md|markdown|rst|text|org|adoc|conf|cfg|ini|toml|yaml|yml|sh|example|sample))?\Z",
    re.IGNORECASE,
)
_ORDER = (
    "readme",
    "faq",
    "usage",
    "tutorial",
    "manual",
    "guide",
    "intro",
    "news",
    "notes",
    "todo",
    "bugs",
)
_LAST = (
    "changelog",
    "changes",
    "history",
    "copyright",
    "license",
    "licence",
    "copying",
    "authors",
    "thanks",
    "contributors",
)


def availability(subject: Subject) -> list[Availability]:
    """The folders of the packages that the name comes from, if they hold texts that say more than
    who made it.
    """
    if not subject.packages:
        return nothing(NAME, "no package is known to own it")
    found: list[Availability] = []
    notes: list[str] = []
    for package in subject.packages:
        place = os.path.join(subject.settings.doc_folder, package.split(":")[0])
        if not os.path.isdir(place):
            notes.append(f"the package {package} has no folder in {subject.settings.doc_folder}")
            continue
        telling = [file for file in doc_files(place) if _rank(file)[0] != 3]
        if telling:
            listed = ", ".join(telling[:4]) + (
                f" and {len(telling) - 4} more" if len(telling) > 4 else ""
            )
            found.append(
                Availability(NAME, True, where=place, path=place, detail=package, note=listed)
            )
        else:
            notes.append(f"{place} has only licences and change logs")
    return found or nothing(NAME, "; ".join(notes))


def read(subject: Subject, held: Availability) -> Document:
    """The texts, each a section of its own; those beyond the limit are only listed."""
    sections: list[Section] = []
    left = MOST_TEXT
    unread: list[str] = []
    for file in doc_files(held.path):
        try:
            text = read_text(os.path.join(held.path, file))
        except Unreadable as error:
            unread.append(f"{file} ({error})")
            continue
        if len(text) > left or _rank(file)[0] == 3:
            unread.append(f"{file} ({len(text) // 1000 + 1} kB)")
            continue
        left -= len(text)
        sections += text_sections(text, file)
    if unread:
        listing = Section("OTHER FILES")
        listing.blocks = [Paragraph("Not shown here; --part FILE reads one of them.")]
        listing.blocks += [Item(clean_line(name), compact=True) for name in unread]
        sections.append(listing)
    if not sections:
        raise Unreadable("there is no text in it")
    return _document(subject, held, sections)


def read_file(subject: Subject, held: Availability, wanted: str) -> Document | None:
    """One file of the folder by its name or a part of it; None if there is none."""
    key = wanted.casefold()
    files = doc_files(held.path)
    chosen = [f for f in files if f.casefold() == key] or [f for f in files if key in f.casefold()]
    if not chosen:
        return None
    sections = text_sections(read_text(os.path.join(held.path, chosen[0])), chosen[0])
    return _document(subject, held, sections)


def _document(subject: Subject, held: Availability, sections: list[Section]) -> Document:
    document = Document(
        held.detail, "package", NAME, sections, summary=f"texts of the package {held.detail}",
        path=held.path, package=held.detail,
    )  # fmt: skip
    return with_facts(document)


def _rank(file: str) -> tuple[int, int, str]:
    """Texts to read first come first, those about rights and changes last."""
    stem = os.path.basename(file).casefold()
    for n, word in enumerate(_ORDER):
        if stem.startswith(word):
            return 0, n, file
    if any(word in stem for word in _LAST):
        return 3, 0, file
    return (2 if "/" in file else 1), 0, file


def doc_files(folder: str) -> list[str]:
    """The text files below the folder, by their paths in it, in the order of reading."""
    found: list[str] = []
    for base, folders, files in os.walk(folder):
        folders[:] = sorted(name for name in folders if name not in ("html", "images", "api"))
        for name in files:
            stem = unpacked_name(name)
            extension = os.path.splitext(stem)[1]
            is_version = extension[1:].isdigit() or extension in (
                ".Debian",
                ".debian",
                ".upstream",
                ".Devel",
            )
            if (
                _TEXT.fullmatch(extension)
                or is_version
                or (extension and stem.split(".")[0].isupper())
            ):
                found.append(os.path.relpath(os.path.join(base, name), folder))
        if len(found) > MOST_FILES:
            break
    return sorted(found, key=_rank)[:MOST_FILES]


def text_sections(text: str, title: str) -> list[Section]:
    """A text file as sections: Markdown by its structure, other text as it stands."""
    title = clean_line(title)
    if unpacked_name(title).casefold().endswith((".md", ".markdown")):
        from dowsing.readers.markdown import markdown_sections

        return markdown_sections(text, title)
    section = Section(title)
    section.blocks = plain_blocks(clean(text.expandtabs()))
    return [section]


def plain_blocks(text: str) -> list[Block]:
    """Plain text as blocks of lines, an empty line between them."""
    blocks: list[Block] = []
    for part in re.split(r"\n[ \t]*\n", text.strip("\n")):
        lines = [line.rstrip() for line in part.split("\n")]
        if any(lines):
            blocks.append(Literal("\n".join(lines).strip("\n")))
    return blocks
