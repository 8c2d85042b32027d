"""Subcommands: terms that a usage text lists under a heading that says they are commands."""

from __future__ import annotations

import re

from dowsing.facts.walk import items, own_text
from dowsing.model.document import Item, Section, Subcommand
from dowsing.model.markup import plain
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document

_COMMANDS = re.compile(r"\bcommands?\b|\bsubcommands?\b|\bverbs\b|\bactions\b", re.IGNORECASE)
_TAKES_COMMAND = re.compile(r"[<\[{( ](?:SUB)?COMMANDS?\b|<command>|\bcommand\b", re.IGNORECASE)
_OTHER_LISTS = re.compile(
    r"\boptions?\b|\bflags\b|\barguments\b|\bvariables?\b|\bexamples?\b|\bformats?\b", re.IGNORECASE
)
_WORD = re.compile(r"[a-z][\w.:+-]*")


def _choices(section: Section) -> set[str]:
    """The words of an argument that is one of several, `{add,remove}`, below which each has its own
    line.
    """
    found: set[str] = set()
    for item in items(section.blocks):
        tag = plain(item.tag)
        if tag.startswith("{") and tag.endswith("}"):
            found |= set(tag[1:-1].split(","))
    return found


def read_subcommands(document: Document) -> list[Subcommand]:
    """The subcommands that the document lists, in order, each once; none for a manual page's
    text.
    """
    if document.source not in (SourceName.USAGE, SourceName.BUILTIN_USAGE):
        return []
    takes = any(_TAKES_COMMAND.search(form) for form in document.synopsis)
    found: dict[str, Subcommand] = {}
    for section in document.sections:
        named = bool(_COMMANDS.search(section.title))
        under_other = bool(_OTHER_LISTS.search(section.title)) and not named
        announced = any(
            _COMMANDS.search(plain(block.text))
            for block in section.blocks[:1]
            if not isinstance(block, Item) and hasattr(block, "text")
        )
        choices = _choices(section)
        if not choices and not named and (under_other or not (takes or announced)):
            continue
        for item in items(section.blocks):
            if choices and not named and plain(item.tag) not in choices:
                continue
            for tag in plain(item.tag).split(", "):
                word = _WORD.match(tag)
                if word and word[0] not in found:
                    found[word[0]] = Subcommand(word[0], own_text(item.body).replace("\n", " "))
                if not word or " " in tag:
                    break
    return list(found.values())
