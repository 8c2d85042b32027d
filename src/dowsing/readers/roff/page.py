"""A manual page's source text to a Document."""

from __future__ import annotations

import re

from dowsing.model.document import Document, Section, block_texts, document_text, replace_texts
from dowsing.model.markup import clean, plain
from dowsing.readers.roff import man, preprocessors, requests
from dowsing.readers.roff.bounds import OutOfBounds
from dowsing.readers.roff.leftovers import take_out_leftovers
from dowsing.readers.roff.machine import Include, LeaveLoop, LeaveMacro, Machine

_DASH = re.compile(r"(?:\s[-–—−]+|\s*[–—]|\s*-[-–—]|:)\s+|\s[-–—−]+$")
_NAME = re.compile(r"[^\s,]+(?: [^\s,]+){0,5}")

#: The marks of marks.py: no other control character passes the cleaning before.
_MARKS = "\x06\x07\x08\x12\x13\x14\x15\x16"

#: Titles of the NAME section: the first section is taken where none of them occurs.
_NAME_TITLES = frozenset(
    ("NAME", "NAMES", "名前", "NOM", "NOMBRE", "BEZEICHNUNG", "NOME", "NAZWA", "ИМЯ")
)

_PLAIN = {**requests.PLAIN, **man.PLAIN}
_RAW = {**requests.RAW, **preprocessors.RAW}


def machine_for(source: str, include: Include | None = None) -> Machine:
    """An interpreter with the macro package that `source` is written in."""
    if "\n.Sh" in source or "\n.Dd" in source or source.startswith((".Dd", ".Sh")):
        from dowsing.readers.roff import mdoc

        machine = Machine({**requests.PLAIN, **mdoc.PLAIN}, {**requests.RAW, **mdoc.RAW}, include)
        machine.mdoc = mdoc.MdocState()  # from the beginning: a page may have any macro first
        return machine
    return Machine(_PLAIN, _RAW, include)


def read_sections(source: str, include: Include | None = None) -> tuple[list[Section], Machine]:
    """The sections of a page, and the interpreter that read them."""
    source = clean(source)
    machine = machine_for(source, include)
    try:
        machine.run_source(source)
    except OutOfBounds as error:  # what was read up to here is kept, and that it is not all is told
        machine.exceeded = str(error)
    except (RecursionError, LeaveLoop, LeaveMacro):
        pass  # what was read up to here is kept
    sections = machine.builder.close()
    _take_out_marks(sections)
    take_out_leftovers(source, sections)
    return sections, machine


def _take_out_marks(sections: list[Section]) -> None:
    """Leave no mark of the reader in the text, wherever an odd page may have put one: the gate of
    this reader.
    """
    whole = document_text(sections, marked=True)
    if not any(mark in whole for mark in _MARKS):  # so it is with all but the oddest pages
        return
    for section in sections:
        section.title = plain(section.title)
        replace_texts(section.blocks, _without_marks)


def _without_marks(text: str) -> str:
    for mark in _MARKS:
        text = text.replace(mark, "")
    return text


def read_page(  # noqa: PLR0913 - all but three by keyword
    source: str,
    name: str = "",
    section: str = "",
    *,
    path: str = "",
    package: str | None = None,
    language: str = "",
    include: Include | None = None,
) -> Document:
    """Read a manual page.

    `name` and `section` are those of the file; where they are missing the page's own title is
    taken. `include` answers `.so` requests with a text or None. Never raises for what the page
    contains.
    """
    sections, machine = read_sections(source, include)
    title = [plain(part) for part in machine.title]
    name = name or (title[0].lower() if title else "")
    section = section or (title[1] if len(title) > 1 else "")
    names, summary = read_name_line(sections)
    document = Document(
        name,
        section,
        "manual",
        sections,
        names=names or [name],
        summary=summary,
        path=path,
        package=package,
        language=language,
        date=_date(machine.date),
        origin=" ".join(title[3:4]).strip(" ."),
    )
    document.cut = machine.exceeded
    return document


def _date(said: str) -> str:
    """The date of a page, as it is written; a title without quotes may have a word in its place."""
    return said.strip() if any(char.isdigit() for char in said) else ""


def read_name_line(sections: list[Section]) -> tuple[list[str], str]:
    """The names and the summary of the NAME section: `([], "")` if there is none to read."""
    section = next((s for s in sections if s.title.upper() in _NAME_TITLES), None)
    if section is None:
        section = next((s for s in sections if s.title), None)
    if section is None or not section.blocks:
        return [], ""
    texts: list[str] = []
    block_texts(section.blocks[:1], texts)
    if not any(_has_dash(plain(text)) for text in texts) and len(section.blocks) > 1:
        block_texts(section.blocks[1:2], texts)
    lines = plain("\n".join(texts)).split("\n")
    said = [line.strip() for line in lines if _has_dash(line)] if len(lines) > 1 else []
    if len(said) < 2:  # one statement, whatever its line breaks; otherwise one a line
        said = [" ".join(" ".join(lines).split())]
    statements = [_halves(line) for line in said]
    parts = statements[0]
    if len(parts) < 2:
        return [], said[0] if len(said[0]) < 300 else ""
    names: list[str] = []
    for part in ",".join(statement[0] for statement in statements).split(","):
        part = part.strip().rstrip("()")
        if part and len(part) < 80 and part not in names and _NAME.fullmatch(part):
            names.append(part)
    return names, parts[1].strip()


def _has_dash(line: str) -> bool:
    return " - " in line or _DASH.search(line) is not None


def _halves(line: str) -> list[str]:
    """What stands before and after the dash; the plain case without a search for the others."""
    before, dash, after = line.partition(" - ")
    if dash and before.isascii() and ":" not in before:
        return [before, after]
    return _DASH.split(line, maxsplit=1)
