"""What the index keeps of a page, read in the worker processes of a build."""

from __future__ import annotations

import os

from dowsing.core.document import Document, block_texts, document_text
from dowsing.core.markup import clean_line, plain
from dowsing.core.sources import manual
from dowsing.core.sources.pagefile import Unreadable, read_text

MOST_TEXT = 2_000_000

#: (number, path, name, section)
Task = tuple[int, str, str, str]
#: (number, names, summary, form, text, problem, target of a page that only refers to another)
Reading = tuple[int, list[str], str, str, str, str, str]


def read_for_index(task: Task) -> Reading:
    """Read one page. Never raises: what goes wrong is the reading's problem."""
    number, path, name, section = task
    try:
        text = read_text(path)
        target = manual.redirect(text)
        if target is not None:
            found = manual.locate(target, path)
            if found is None:
                return _problem(number, f"it refers to {clean_line(target)}, which is not in its manual folder")
            if found == os.path.realpath(path):
                return _problem(number, "it refers to itself")
            return number, [], "", "", "", "", found
        page = manual.document(text, path, name, section)
        return number, page.names, page.summary[:400], _form(page), _text(page), "", ""
    except Unreadable as error:
        return _problem(number, str(error))
    except Exception as error:  # a page must never end a build
        return _problem(number, f"the reader failed on it: {type(error).__name__}: {error}")


def read_many(tasks: list[Task]) -> list[Reading]:
    """Read the pages of one portion of the work."""
    return [read_for_index(task) for task in tasks]


def _problem(number: int, says: str) -> Reading:
    return number, [], "", "", "", says, ""


def _text(page: Document) -> str:
    return document_text(page.sections)[:MOST_TEXT]


def _form(page: Document) -> str:
    for section in page.sections:
        if section.title.upper().startswith("SYNOPSIS"):
            texts: list[str] = []
            block_texts(section.blocks[:1], texts)
            return plain(" ".join(texts))[:200]
    return ""
