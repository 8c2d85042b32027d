"""Documents laid out as lines of marked text for a given width."""

from __future__ import annotations

from dowsing.model.document import Block, Indent, Item, Literal, Paragraph, Section
from dowsing.model.markup import BOLD, ROMAN, plain
from dowsing.model.source_name import UNASKED
from dowsing.render.cell_width import display_width
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.ruled_tables import table_lines
from dowsing.render.wrap import close_styles, groups_kept, without_links, wrap

MARGIN = 3
STEP = 5
WIDEST_TAGS = 28  # longer tags stand on a line of their own, where tags and texts are two columns


def section_lines(sections: list[Section], width: int) -> list[str]:
    """The sections with their headings, an empty line between them."""
    lines: list[str] = []
    for section in sections:
        if lines:
            lines.append("")
        lines += heading_lines(section)
        lines += block_lines(section.blocks, width, MARGIN)
    return lines


def heading_lines(section: Section) -> list[str]:
    """The heading of a section; subsections are set in a little."""
    if not section.title:
        return []
    return [HEADING + " " * max(section.level - 1, 0) + section.title]


def block_lines(blocks: list[Block], width: int, indent: int) -> list[str]:
    """The lines of some blocks, set in by `indent`."""
    lines: list[str] = []
    indent = min(indent, max(width - 20, 0))
    bare_tag = False
    column = _tag_column(blocks, width - indent)
    for n, block in enumerate(blocks):
        if n and not (
            isinstance(block, Item)
            and isinstance(blocks[n - 1], Item)
            and (block.compact or bare_tag)
        ):
            lines.append("")
        bare_tag = isinstance(block, Item) and not block.body
        if isinstance(block, Paragraph):
            text = groups_kept(block.text) if block.hanging else block.text
            lines += wrap(text, width, indent, STEP - 1 if block.hanging else 0)
        elif isinstance(block, Literal):
            pad = " " * indent
            text = without_links(block.text)
            lines += close_styles([pad + line if line else "" for line in text.split("\n")])
        elif isinstance(block, Indent):
            before = blocks[n - 1] if n else None
            goes_on = isinstance(before, Item) and not before.bullet  # with the text of the item
            step = STEP if goes_on else STEP - 1
            lines += block_lines(block.body, width, indent + (0 if _only_items(block) else step))
        elif isinstance(block, Item):
            lines += item_lines(block, width, indent, column if block.beside else STEP)
        else:
            lines += table_lines(block, width, indent)
    return lines


def _only_items(block: Indent) -> bool:
    """An indent around a list of terms adds nothing: the terms' texts are set in anyway."""
    return all(isinstance(inner, Item) and not inner.bullet for inner in block.body)


def _tag_column(blocks: list[Block], room: int) -> int:
    """How far the text of items that stand in two columns is set in: so that most tags fit, and the
    text does.
    """
    sizes = sorted(display_width(b.tag) for b in blocks if isinstance(b, Item) and b.beside)
    if not sizes:
        return STEP
    most = max(min(WIDEST_TAGS, room // 2), STEP - 2)
    fitting = [size for size in sizes if size <= most]
    return max(fitting[-1] + 2 if fitting else STEP, STEP)


def item_lines(item: Item, width: int, indent: int, column: int = STEP) -> list[str]:
    """A tag with its text: beside it where the tag is shorter than `column`, else below."""
    tag = without_links(item.tag).replace("\xa0", " ")
    size = max((display_width(line) for line in tag.split("\n")), default=0)
    step = size + 1 if item.bullet and size < 4 else column
    body = block_lines(item.body, width, indent + step)
    if not tag:
        return body
    tags = tag.split("\n")
    heads = (
        wrap(tag, width, indent, 2)
        if size > width - indent
        else close_styles([" " * indent + t for t in tags])
    )
    if not body:
        return heads
    fits = (
        display_width(tags[-1]) < step
        and len(heads) == len(tags)
        and not isinstance(item.body[0], Literal)
    )
    if fits or (item.bullet and len(heads) == 1):
        gap = max(indent + step - display_width(heads[-1]), 1)
        return [*heads[:-1], heads[-1] + " " * gap + body[0].lstrip(" "), *body[1:]]
    return heads + body


def sources_told(sources: list[str]) -> str:
    """Sources in a line; of a program that was not asked for its usage that is said."""
    return ", ".join("usage (not asked)" if one == UNASKED else one for one in sources)


def title_lines(label: str, summary: str, facts: list[str], width: int) -> list[str]:
    """The head of an answer about one name: the name, what it is, and facts in one line below."""
    lines = [f"{BOLD}{label}{ROMAN}"]
    if summary:
        whole = f"{label}  {summary}"
        if len(plain(whole)) <= width:
            lines = [f"{BOLD}{label}{ROMAN}  {summary}"]
        else:
            lines = [f"{BOLD}{label}{ROMAN}", *wrap(summary, width, 2)]
    return lines + [f"{FAINT}{line}" for line in _rows([fact for fact in facts if fact], width)]


def _rows(facts: list[str], width: int) -> list[str]:
    """Facts with dots between them, in as few lines as hold them whole."""
    rows: list[str] = []
    for fact in facts:
        if rows and display_width(f"{rows[-1]} · {fact}") <= width:
            rows[-1] += f" · {fact}"
        else:
            rows.append(fact)
    return rows
