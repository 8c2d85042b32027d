"""The passage of a document that tells of one option or one name."""

from __future__ import annotations

import re

from dowsing.model.document import Block, Document, Indent, Item, Section, block_texts
from dowsing.model.markup import plain


def passage_of(document: Document, flags: list[str]) -> list[Block]:
    """The blocks that tell of an option by any of its spellings: its entry with all that stands in
    it; [] if there is none. Entries without a text of their own share that of the next.
    """
    patterns = [re.compile(rf"(?<![\w-]){re.escape(flag)}(?![\w-])") for flag in flags]
    for section in document.sections:
        found = _entry(section.blocks, patterns)
        if found:
            return found
    return []


_PARTS = re.compile(r"[\s,|]+")


def value_meanings(document: Document, flags: list[str], values: list[str]) -> dict[str, str]:
    """What the entry of an option says of each of its values, where it lists them one by one; else
    a list anywhere in the text whose tags are nothing but these values, most of them.
    """
    found: dict[str, str] = {}
    for tag, text in _terms(passage_of(document, flags)):
        for word in _PARTS.split(tag.strip()):
            if word in values:
                found.setdefault(word, text)
    if found:
        return found
    for section in document.sections:
        for tag, text in _terms(section.blocks, options=False):
            words = _PARTS.split(tag.strip())
            if text and all(word in values for word in words):
                found.update({word: text for word in words if word not in found})
    return found if 2 * len(found) > len(values) else {}


def _terms(blocks: list[Block], options: bool = True) -> list[tuple[str, str]]:
    """The tags of entries, at any depth, with the words below each. `options`: those within the
    entries of options too.
    """
    found: list[tuple[str, str]] = []
    for block in blocks:
        if isinstance(block, Item):
            if not options and plain(block.tag).lstrip().startswith("-"):
                continue
            texts: list[str] = []
            block_texts(block.body, texts)
            found.append((plain(block.tag), " ".join(plain(" ".join(texts)).split())))
        if isinstance(block, Item | Indent):
            found += _terms(block.body, options)
    return found


def _entry(blocks: list[Block], patterns: list[re.Pattern[str]]) -> list[Block]:
    for n, block in enumerate(blocks):
        if isinstance(block, Item):
            if any(pattern.search(_head(block.tag)) for pattern in patterns):
                return (
                    [block, *_shared(blocks[n + 1 :])]
                    if not block.body
                    else [block, *_going_on(blocks[n + 1 :])]
                )
            found = _entry(block.body, patterns)
        elif isinstance(block, Indent):
            found = _entry(block.body, patterns)
        else:
            continue
        if found:
            return found
    return []


def _head(tag: str) -> str:
    """The spellings that a tag is about: what it shows before any remark in brackets."""
    return plain(tag)


def _shared(rest: list[Block]) -> list[Block]:
    """After a tag without a text: the entries up to the one that has it."""
    found: list[Block] = []
    for block in rest:
        if not isinstance(block, Item):
            break
        found.append(block)
        if block.body:
            return found
    return []


def _going_on(rest: list[Block]) -> list[Block]:
    """What is set in after an entry goes on with its text."""
    found: list[Block] = []
    for block in rest:
        if not isinstance(block, Indent):
            break
        found.append(block)
    return found


#: Sections whose mention of a word tells nothing about it.
TELL_NOTHING = frozenset(
    ("name", "synopsis", "see also", "author", "authors", "copyright", "history", "files")
)
#: Parts that only show how a command is written: what stands there is known from its forms.
_FORMS = re.compile(r"\busage\Z|\bsyntax\b", re.IGNORECASE)
MOST_PASSAGES = 12


def passages_with(document: Document, word: str) -> list[Section]:
    """The paragraphs and entries that have a word as it is spelled, below the headings that they
    stand under; where none has, in any spelling. At most `MOST_PASSAGES` of them.
    """
    for flags in (re.NOFLAG, re.IGNORECASE):
        pattern = re.compile(rf"(?<![\w-]){re.escape(word)}(?![\w-])", flags)
        found: list[Section] = []
        left = MOST_PASSAGES
        for section in document.sections:
            if section.title.casefold() in TELL_NOTHING or _FORMS.search(section.title):
                continue
            blocks = _with(section.blocks, pattern)[:left]
            if blocks:
                kept = Section(section.title, section.level)
                kept.blocks = blocks
                found.append(kept)
                left -= len(blocks)
            if not left:
                break
        if found:
            return found
    return []


def _with(blocks: list[Block], pattern: re.Pattern[str]) -> list[Block]:
    found: list[Block] = []
    for block in blocks:
        if isinstance(block, Item) and plain(block.tag).lstrip().startswith("-"):
            continue  # an option's own value may have the same placeholder
        if isinstance(block, Item) and not pattern.search(plain(block.tag)):
            inner = _with(block.body, pattern)
            if inner:
                item = Item(block.tag, block.compact, block.bullet)
                item.body = inner
                found.append(item)
        elif isinstance(block, Indent):
            found += _with(block.body, pattern)
        else:
            texts: list[str] = []
            block_texts([block], texts)
            if any(pattern.search(plain(text)) for text in texts):
                found.append(block)
    return found
