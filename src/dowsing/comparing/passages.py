"""What each text of a name says of one option or word, to be set side by side."""

from __future__ import annotations

import re

from dowsing.comparing.things import Text, Things
from dowsing.knowledge.stems import telling_stems
from dowsing.model.document import Block, Document, Indent, Item, block_texts
from dowsing.model.markup import plain
from dowsing.model.record import Record
from dowsing.search.passages import passage_of

MOST_PASSAGES = 3  # of a word, in one text


class Passage(Record):
    """What one text says. `parts` are its paragraphs, [] where it says nothing; `title` is the
    section of the first; `about` the kind of thing that the text is about (a ThingKind). `only` are
    the telling words, as they are written, that no other text has here in any form.
    """

    source: str
    about: str
    title: str
    parts: list[str]
    only: list[str]


def passages(things: Things, asked: str) -> list[Passage]:
    """The passages of all texts that are compared; empty ones too, as long as one is not."""
    found = [
        (text, str(thing.kind), _of_text(text, asked))
        for thing in things.things
        for text in thing.texts
    ]
    if not any(parts for _, _, (_, parts) in found):
        return []
    words = [_telling(" ".join(parts)) for _, _, (_, parts) in found]
    several = sum(bool(one) for one in words) > 1
    return [
        Passage(text.source, about, title, parts, _only(n, words) if several else [])
        for n, (text, about, (title, parts)) in enumerate(found)
    ]


def _telling(text: str) -> dict[str, str]:
    """The stems of telling words, each with the word as it is first written."""
    found: dict[str, str] = {}
    for word in re.findall(r"[^\W\d_][\w'’-]{3,}", text):
        for one in telling_stems(word):
            found.setdefault(one, word)
    return found


def _only(n: int, words: list[dict[str, str]]) -> list[str]:
    others = {stem for m, one in enumerate(words) if m != n for stem in one}
    return [word for stem, word in words[n].items() if stem not in others]


def _of_text(text: Text, asked: str) -> tuple[str, list[str]]:
    """The section and the paragraphs of the text that tell of it."""
    document = text.document
    flags = _spellings(document, asked)
    if flags:
        blocks = passage_of(document, flags)
        if blocks:
            return _title_of(document, blocks[0]), _paragraphs(blocks)
    case = re.IGNORECASE if asked == asked.lower() else re.NOFLAG  # HEAP is a variable's name
    pattern = re.compile(rf"(?<![\w-]){re.escape(asked)}(?![\w-])", case)
    title, parts = "", list[str]()
    for section in document.sections:
        for part in _with_word(section.blocks, pattern):
            title = title or section.title
            parts.append(part)
    return title, parts[:MOST_PASSAGES]


def _spellings(document: Document, asked: str) -> list[str]:
    """All spellings of the option that is asked for, [] if it is none here."""
    if not asked.startswith(("-", "+")):
        return []
    for option in document.options:
        if asked in option.flags or asked in option.written:
            return option.flags
    return []


def _title_of(document: Document, block: Block) -> str:
    for section in document.sections:
        if _holds(section.blocks, block):
            return section.title
    return ""


def _holds(blocks: list[Block], wanted: Block) -> bool:
    return any(
        block is wanted or (isinstance(block, Item | Indent) and _holds(block.body, wanted))
        for block in blocks
    )


def _paragraphs(blocks: list[Block]) -> list[str]:
    texts: list[str] = []
    block_texts(blocks, texts)
    return [" ".join(plain(text).split()) for text in texts if plain(text).strip()]


def _with_word(blocks: list[Block], pattern: re.Pattern[str]) -> list[str]:
    """Entries whose tag has the word, whole; else the paragraphs that have it."""
    found: list[str] = []
    for block in blocks:
        if isinstance(block, Item) and pattern.search(plain(block.tag)):
            found.append(" ".join(_paragraphs([block])))
        elif isinstance(block, Item | Indent):
            found += _with_word(block.body, pattern)
        else:
            found += [part for part in _paragraphs([block]) if pattern.search(part)]
    return found
