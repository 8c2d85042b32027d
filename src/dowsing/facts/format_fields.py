"""What a page of a file format tells of what such a file holds: its fields or its settings."""

from __future__ import annotations

import re

from dowsing.facts.walk import flatten, items, own_text
from dowsing.model.document import FormatField, Item, Paragraph
from dowsing.model.markup import plain

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document, Section

_ELSEWHERE = re.compile(
    r"files?|see also|authors?|bugs|notes|history|copyright|environment.*|examples?|colophon"
    r"|(?:standards|conforming to)|synopsis|name|caveats|diagnostics|reporting bugs"
    r"|exit (?:status|codes?)|return value|availability|versions|credits",
    re.IGNORECASE,
)
_HEADED = re.compile(r"\bfields?\b", re.IGNORECASE)
_NAMED = re.compile(r"\(([\w.-]+)\)")
_NAME = re.compile(r"[A-Za-z_$\[<@][^%#]*")
MOST_ARE_NAMES = 0.7  # of the terms of a list: another list is of other things
MOST_POINT = 60  # characters: a longer one is a sentence on fields, and no field
MOST_TAG = 40  # characters: a longer tag is no name
LEAST = 2


def read_format_fields(document: Document) -> list[FormatField]:
    """The fields or settings that the text tells of, in its order, each once: those with a heading,
    else the terms of its lists, else the points of a list that is said to be of fields.
    """
    sections = [one for one in document.sections if not _ELSEWHERE.fullmatch(one.title.strip())]
    for read in (_headed, _terms, _points):
        found: dict[str, FormatField] = {}
        for section in sections:
            for one in read(section):
                found.setdefault(one.name, one)
        if len(found) >= LEAST:
            return list(found.values())
    return []


def _headed(section: Section) -> list[FormatField]:
    """`The first field (fs_spec).`"""
    if section.level < 2 or not _HEADED.search(section.title):
        return []
    title = plain(section.title).strip(" .")
    named = _NAMED.search(title)
    return [FormatField(named[1] if named else title, own_text(section.blocks))]


def _terms(section: Section) -> list[FormatField]:
    found = []
    for item in items(section.blocks):
        name = plain(item.tag).split("\n")[0].strip(" :.")
        if item.bullet or not name or len(name) > MOST_TAG or name[0] in "-/•*":
            continue
        found.append(FormatField(name, own_text(item.body)))
    names = sum(bool(_NAME.fullmatch(one.name)) and " " in one.text for one in found)
    return found if names >= MOST_ARE_NAMES * len(found) else []


def _points(section: Section) -> list[FormatField]:
    """`… seven fields delimited by colons. These fields are: • login name`."""
    found: list[FormatField] = []
    announced = False
    for block in flatten(section.blocks):
        if isinstance(block, Item) and block.bullet and announced:
            found.append(FormatField(own_text(block.body).replace("\n", " ").strip(" ;,."), ""))
        elif isinstance(block, Paragraph):
            announced = bool(_HEADED.search(plain(block.text)[-MOST_TAG * 2 :]))
            if found:
                break
    return found if all(len(one.name) <= MOST_POINT for one in found) else []
