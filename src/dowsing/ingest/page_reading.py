"""What the index keeps of a page, read in the worker processes of a build."""

from __future__ import annotations

import os
import re
from typing import NamedTuple

from dowsing.facts.command_table import make_table, pack
from dowsing.ingest.terms import flag_terms, option_lines, text_terms
from dowsing.knowledge.verbs_and_nouns import meaning
from dowsing.model.document import Document, Example, block_texts, document_text
from dowsing.model.errors import Unreadable
from dowsing.model.markup import clean_line, plain
from dowsing.readers.decoding import read_text
from dowsing.sources import page_files

MOST_TEXT = 2_000_000
MOST_TASK = 24  # words

#: (number, path, name, section, whether only its heads and flags are to be searched)
Task = tuple[int, str, str, str, bool]

_SPACED = str.maketrans("-_", "  ")
_UNQUOTED = str.maketrans("\"'", "  ")


class Reading(NamedTuple):
    """What was read of the page of that number.

    `terms`: in which fields of its text a term stands (see terms.py); `options`: a line for each,
    its flags, a tab and what is said of it; `command`: the table of how it is written (see
    commandline/table.py), packed, b"" for what is no command; `examples`: tasks and lines that it
    gives; `references`: the pages it sends to, as labels; `verbs` and `nouns`: what it does, to
    what. `problem` says why it could not be read; `target` is the file of a page that only refers
    to another; `subcommand`: it is the page of a subcommand, whose form writes the name as several
    words.
    """

    number: int
    names: list[str]
    summary: str
    subcommand: bool
    text: str
    problem: str = ""
    target: str = ""
    terms: dict[str, int] = {}  # noqa: RUF012 - never written to
    options: str = ""
    references: list[str] = []  # noqa: RUF012
    verbs: str = ""
    nouns: str = ""
    command: bytes = b""
    examples: list[tuple[str, str]] = []  # noqa: RUF012


def read_for_index(task: Task) -> Reading:
    """Read one page. Never raises: what goes wrong is the reading's problem."""
    number, path, name, section, brief = task
    try:
        text = read_text(path)
        target = page_files.redirect(text)
        if target is not None:
            found = page_files.locate(target, path)
            if found is None:
                return _problem(
                    number, f"it refers to {clean_line(target)}, which is not in its manual folder"
                )
            if found == os.path.realpath(path):
                return _problem(number, "it refers to itself")
            return Reading(number, [], "", False, "", target=found)
        page = page_files.document(text, path, name, section)
        # marks may stay: to the full-text index they are separators like any other control
        # character
        whole = document_text(page.sections, marked=True)[:MOST_TEXT]
        options = option_lines(page)
        is_command = not brief and section[:1] in ("1", "6", "8")
        does = meaning(page.summary[:400], name, section)
        return Reading(
            number,
            page.names,
            page.summary[:400],
            _is_subcommand(page),
            whole,
            terms=flag_terms(options) if brief else text_terms(page, options),
            options="\n".join(options),
            references=[] if brief else [f"{one.name}({one.section})" for one in page.see_also],
            verbs=" ".join(does.verbs),
            nouns=" ".join(does.nouns),
            command=pack(make_table(page)) if is_command else b"",
            examples=[(one.task, one.line) for one in page.examples if _is_telling(one)]
            if is_command
            else [],
        )
    except Unreadable as error:
        return _problem(number, str(error))
    except (MemoryError, RecursionError):
        return _problem(number, "it is too large for the reader")
    except Exception as error:  # a page must never end a build
        return _problem(number, f"the reader failed on it: {type(error).__name__}: {error}")


def read_many(tasks: list[Task]) -> list[Reading]:
    """Read the pages of one portion of the work."""
    return [read_for_index(task) for task in tasks]


def _is_telling(example: Example) -> bool:
    """Whether an example can answer a task: one line, and said in a sentence what it is for."""
    return (
        "\n" not in example.line
        and len(example.line) <= 200
        and 2 <= len(example.task.split()) <= MOST_TASK
    )


def _problem(number: int, says: str) -> Reading:
    return Reading(number, [], "", False, "", problem=says)


_BRACKETS = re.compile(r" \[[^\[\]]*\]")


def _is_subcommand(page: Document) -> bool:
    """A page such as `git-commit` whose synopsis says `git commit`, or `git [options] commit`."""
    if page.section[:1] not in ("1", "8", "6") or ("-" not in page.name and "_" not in page.name):
        return False
    said = " ".join(_form(page).translate(_UNQUOTED).split())
    if said.startswith(page.name):
        return False
    name = page.name.translate(_SPACED)
    plainly = _BRACKETS.sub("", said)  # options may stand before the subcommand
    return any(one.translate(_SPACED).startswith(name) for one in (said, plainly))


def _form(page: Document) -> str:
    for section in page.sections:
        if section.title.upper().startswith("SYNOPSIS"):
            texts: list[str] = []
            block_texts(section.blocks[:1], texts)
            return plain(" ".join(texts)[:400])[:200]
    return ""
