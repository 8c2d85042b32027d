"""The head of a page, read without the rest: its names and its summary, by which it is found."""

from __future__ import annotations

import re

from dowsing.ingest.page_reading import (
    Reading,
    Task,
    is_form_of_subcommand,
    read_safely,
    redirected,
)
from dowsing.knowledge.verbs_and_nouns import meaning
from dowsing.model.document import Paragraph, Section
from dowsing.readers.decoding import read_beginning
from dowsing.readers.roff.page import read_name_line
from dowsing.sources import page_files

MOST_HEAD = 24_000  # bytes; the definitions before the text of some pages take 5,000
_HEADING = re.compile(r"^[.'][ \t]*S[Hh]\b[ \t]*", re.MULTILINE)
_NAME = re.compile(r'"?name"?[ \t]*\n', re.IGNORECASE)
#: Escapes that stand for nothing, or change the font.
_FONT = re.compile(r"\\(?:f(?:[A-Z0-9]|\(..|\[[^\]\n]*\])|[&/,%])")
#: Requests before the text that only say how it is laid out.
_LAYOUT = re.compile(r"(?:[.'](?:HP|PP|P|LP|sp|nh|ad|IX|\\\").*\n|\n)*")
_REQUEST = re.compile(r"^[.'].*\n?", re.MULTILINE)


def read_head(task: Task) -> Reading:
    """Read names, summary and the kind of one page. Never raises: what goes wrong is the reading's
    problem.
    """
    return read_safely(_read, task)


def _read(task: Task) -> Reading:
    number, path, name, section, _ = task
    text = read_beginning(path, MOST_HEAD)
    elsewhere = redirected(text, task)
    if elsewhere is not None:
        return elsewhere
    head, form = _parts(text)
    names, summary = _plain_names(head) or _read_names(head, path, name, section)
    does = meaning(summary, name, section)
    return Reading(
        number,
        names or [name],
        summary[:400],
        is_form_of_subcommand(name, section, _FONT.sub("", form).replace("\\-", "-")),
        "",
        verbs=" ".join(does.verbs),
        nouns=" ".join(does.nouns),
    )


def read_heads(tasks: list[Task]) -> list[Reading]:
    """Read the heads of the pages of one portion of the work."""
    return [read_head(task) for task in tasks]


def _parts(text: str) -> tuple[str, str]:
    """A page up to the end of its first section, and the text of the second."""
    first = _HEADING.search(text)
    second = _HEADING.search(text, first.end()) if first else None
    if second is None:
        return text, ""
    third = _HEADING.search(text, second.end())
    form = text[second.end() : third.start() if third else second.end() + 2000]
    return text[: second.start()], _REQUEST.sub("", form.partition("\n")[2])


def _plain_names(head: str) -> tuple[list[str], str] | None:
    """Names and summary where they are written without macros, as they mostly are."""
    heading = _HEADING.search(head)
    match = _NAME.match(head, heading.end()) if heading else None
    if match is None:
        return None
    text = _LAYOUT.sub("", head[match.end() :], count=1)
    said = _FONT.sub("", text).replace("\\-", "-").strip()
    if "\\" in said or said.startswith((".", "'")) or "\n." in said or "\n'" in said:
        return None
    part = Section("NAME")
    part.blocks.append(Paragraph(said))
    names, summary = read_name_line([part])
    return (names, summary) if names else None


def _read_names(head: str, path: str, name: str, section: str) -> tuple[list[str], str]:
    """Names and summary as the reader of pages finds them."""
    page = page_files.document(head, path, name, section)
    return page.names, page.summary
