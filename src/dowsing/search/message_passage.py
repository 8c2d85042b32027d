"""The passage of a program's page that tells of a message of its."""

from __future__ import annotations

import re

from dowsing.facts.walk import body_text
from dowsing.knowledge.stems import EMPTY
from dowsing.model.document import Block, Indent, Item, Section
from dowsing.search.passages import TELL_NOTHING

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.model.document import Document

_BEGIN = re.compile(r"([A-Za-z][\w.+-]*)(?:\[\d+\])?: \S")
_WORD = re.compile(r"[a-z]{4,}")
#: Sections that are about messages, by what their titles hold.
_ABOUT = re.compile(r"diagnos|error|exit|return|warning|message|trouble|problem", re.IGNORECASE)
_NOTHING = TELL_NOTHING - {"files"}  # which may say what goes wrong with one
FEWEST = 3  # words of the message that a passage must have; of one about messages one less
LEAST = 0.6  # and that part of all of them
ABOUT = 0.3  # what it is worth, of 1, to stand in a section about messages
LONG = 2000  # characters of a passage that cost 1


def program_of_message(text: str) -> str:
    """The program that a message names at its beginning, `vent` of `vent: …`; "" if none does."""
    found = _BEGIN.match(text.strip())
    return found[1] if found else ""


def message_passage(document: Document, text: str) -> Section | None:
    """The paragraph or entry with most of the words of a message, below its heading; None if none
    has enough of them.
    """
    said = text.partition(": ")[2].casefold()
    words = {word for word in _WORD.findall(said) if word not in EMPTY}
    best: tuple[float, Section] | None = None
    for section in document.sections:
        if section.title.casefold() in _NOTHING:
            continue
        is_about = _ABOUT.search(section.title) is not None
        for block in _passages(section.blocks):
            here = body_text([block]).casefold()
            had = words & set(_WORD.findall(here))
            if len(had) < FEWEST - is_about or len(had) < LEAST * len(words):
                continue
            worth = len(had) / len(words) - len(here) / LONG + ABOUT * is_about
            if best is None or worth > best[0]:
                kept = Section(section.title, section.level)
                kept.blocks = [block]
                best = (worth, kept)
    return best[1] if best is not None else None


def _passages(blocks: list[Block]) -> Iterator[Block]:
    """Paragraphs and entries, those within others too."""
    for block in blocks:
        if isinstance(block, Item | Indent):
            yield from _passages(block.body)
        if not isinstance(block, Indent):
            yield block
