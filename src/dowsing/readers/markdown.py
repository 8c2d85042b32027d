"""Markdown texts to sections; the parsing is CommonMark's, by markdown-it."""

from __future__ import annotations

from dowsing.model.document import Block, Indent, Item, Literal, Paragraph, Section
from dowsing.model.markup import BOLD, CODE, ITALIC, ROMAN, clean, link

TYPE_CHECKING = False
if TYPE_CHECKING:
    from markdown_it.token import Token


def markdown_sections(text: str, title: str) -> list[Section]:
    """The sections of a Markdown text; the first has `title`, its headings are below it."""
    from markdown_it import MarkdownIt

    return _Builder(title).build(MarkdownIt("commonmark").parse(clean(text)))


class _Builder:
    def __init__(self, title: str) -> None:
        self.sections = [Section(title)]
        self.open: list[list[Block]] = [self.sections[0].blocks]
        self.numbers: list[int] = []
        self.begun = False  # whether the list that is open has an item already

    def build(self, tokens: list[Token]) -> list[Section]:
        heading = 0
        for token in tokens:
            kind = token.type
            if kind == "heading_open":
                heading = int(token.tag[1:])
            elif kind == "inline" and heading:
                self.sections.append(Section(_plain_inline(token), heading + 1))
                self.open = [self.sections[-1].blocks]
                heading = 0
            elif kind == "inline":
                self.open[-1].append(Paragraph(_inline(token)))
            elif kind in ("fence", "code_block", "html_block"):
                self.open[-1].append(Literal(token.content.rstrip("\n").expandtabs()))
            else:
                self.nest(token)
        return self.sections

    def nest(self, token: Token) -> None:
        """A token that opens or closes a quotation, a list or a point of one."""
        kind = token.type
        if kind == "blockquote_open":
            self.go_into(Indent())
        elif kind in ("bullet_list_open", "ordered_list_open"):
            first = int(token.attrGet("start") or 1) if kind.startswith("ordered") else -1
            self.numbers.append(first)
            self.begun = False
        elif kind in ("bullet_list_close", "ordered_list_close"):
            self.numbers.pop()
            self.begun = True
        elif kind == "list_item_open":
            self.go_into(Item(self.next_mark(), compact=self.begun, bullet=True))
            self.begun = True
        elif kind in ("list_item_close", "blockquote_close") and len(self.open) > 1:
            self.open.pop()

    def go_into(self, block: Indent | Item) -> None:
        """Add a block; what follows is its content."""
        self.open[-1].append(block)
        self.open.append(block.body)

    def next_mark(self) -> str:
        """What stands before the next point of the innermost list."""
        if not self.numbers or self.numbers[-1] < 0:
            return "•"
        self.numbers[-1] += 1
        return f"{self.numbers[-1] - 1}."


def _plain_inline(token: Token) -> str:
    return "".join(child.content for child in token.children or []) or token.content


def _inline(token: Token) -> str:
    """Marked text of an inline token."""
    out: list[str] = []
    target = ""
    start = 0
    for child in token.children or []:
        if child.type == "strong_open":
            out.append(BOLD)
        elif child.type == "em_open":
            out.append(ITALIC)
        elif child.type in ("strong_close", "em_close"):
            out.append(ROMAN)
        elif child.type == "code_inline":
            out.append(CODE + child.content + ROMAN)
        elif child.type == "link_open":
            target, start = str(child.attrGet("href") or ""), len(out)
        elif child.type == "link_close":
            text = "".join(out[start:])
            out[start:] = [link(target, text) if "://" in target else text]
        elif child.type in ("softbreak", "hardbreak"):
            out.append(" ")
        else:
            out.append(child.content)
    return "".join(out)
