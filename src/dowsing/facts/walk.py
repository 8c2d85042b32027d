"""Walking through the blocks of a document."""

from __future__ import annotations

from itertools import pairwise

from dowsing.model.document import Block, Indent, Item, Literal, Paragraph, Table, block_texts
from dowsing.model.markup import plain

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator


def flatten(blocks: list[Block]) -> Iterator[Block]:
    """The blocks in reading order with the contents of indents in their place; items stay whole."""
    for block in blocks:
        if isinstance(block, Indent):
            yield from flatten(block.body)
        else:
            yield block


def items(blocks: list[Block]) -> Iterator[Item]:
    """All items, outer before inner, in reading order."""
    for block in blocks:
        if isinstance(block, Item):
            yield block
            yield from items(block.body)
        elif isinstance(block, Indent):
            yield from items(block.body)


def told_terms(blocks: list[Block]) -> Iterator[tuple[str, list[Block]]]:
    """Terms and the blocks that tell of them: items, and lines with a text set in below them."""
    for item in items(blocks):
        yield plain(item.tag), item.body
    for block, below in pairwise(blocks):
        if isinstance(block, Paragraph) and isinstance(below, Indent):
            yield plain(block.text), below.body


def body_text(blocks: list[Block]) -> str:
    """The bare text of blocks, a line a block."""
    texts: list[str] = []
    block_texts(blocks, texts)
    return plain("\n".join(texts))


def own_text(blocks: list[Block]) -> str:
    """The bare text of the paragraphs, literals and tables directly in `blocks` (not in nested
    items).
    """
    found = [b for b in flatten(blocks) if isinstance(b, (Paragraph, Literal, Table))]
    return body_text(list(found))
