"""Builds the blocks of a Document from what the interpreter meets: text, breaks, tags, indents.

The builder keeps one buffer of input lines. Whatever ends a paragraph flushes it: the lines are
joined, blanks are squeezed (or kept, in a literal block), font changes are settled and the block is
put where text goes at the moment: into the section, an open item or an indent.
"""

from __future__ import annotations

import re

from dowsing.model.document import Block, Indent, Item, Literal, Paragraph, Section, Table
from dowsing.model.markup import BOLD, BOLD_ITALIC, CODE, ITALIC, ROMAN, plain
from dowsing.readers.roff.bounds import MOST_ITEMS, OutOfBounds
from dowsing.readers.roff.marks import BACKSLASH, BREAK, JOIN, PAD, PREVIOUS, QUOTE, ZERO

_FONT = re.compile("[\x01-\x06]")
_LONE = tuple((f" {mark} ", f" {mark}") for mark in (ROMAN, BOLD, ITALIC, CODE, BOLD_ITALIC))
_LEADING = re.compile(r"(?:^|(?<=\n))([ \t]+)(?=[^ \t\n])")
_BULLET = re.compile("[•·*+o○□–—-]|\\(?[0-9]{1,3}[.)]|\\(?[a-zA-Z][.)]|\\[[0-9]+\\]")
_INDENTED = re.compile(r"^[ \t]+\S.*", re.MULTILINE)
#: Blanks between columns; two after the end of a sentence are none.
_COLUMN_GAP = re.compile(r"(?<=[^\s.?!:;]) {2,}(?=\S)")
_FAKE_BULLET = re.compile("[\x01-\x05\xa0]*([•·*+o○□]|[0-9]{1,3}[.)])[\x01-\x05]*\xa0+")
_COLUMNS = re.compile(r"\S\t+\S")
_TRAILING = " " + BOLD + ITALIC + BOLD_ITALIC + CODE + ROMAN
_TERM_STARTS = frozenset((*"-+", BOLD, ITALIC, BOLD_ITALIC, CODE, ROMAN))
_MOST_LEVELS = 60
_SETTLED: dict[str, tuple[str, str, str]] = {}
_MOST_SETTLED = 40_000
TAB = 8

Place = tuple[list[Block], list[Block], str]


class Builder:
    """The document being built. `buffer` takes input lines directly while `waiting` is None."""

    def __init__(self) -> None:
        self.sections: list[Section] = []
        self.buffer: list[str] = []
        self.fill = True
        self.compact = False
        self.hanging = False
        self.font = self.last_font = ROMAN
        self.waiting: str | None = (
            None  # what the next text is for: "tag", "more tag", "title", "held"
        )
        self.tag_parts: list[str] = []
        self.tag_font = ""  # font of one following line, for `.B` without text
        self.gap = False  # vertical space was asked for since the last block
        self.centered = 0  # how many text lines are still to stand alone
        self.tabs: list[int] = []
        self.translation: dict[int, str] = {}
        self.levels: list[Place] = []
        self.base: list[Block] = []
        self.out = self.base
        self.items = 0
        self.section("", 1)

    # --- text
    # ------------------------------------------------------------------------------------------

    def text(self, line: str) -> None:
        """Take one line of text, wherever the next text is to go."""
        if self.tag_font:
            line, self.tag_font = self.tag_font + line + ROMAN, ""
        if self.waiting is None:
            self.buffer.append(line)
            if self.centered:
                self.centered -= 1
                self.buffer.append(BREAK)
            return
        self.tag_parts.append(line)
        if line.endswith(JOIN) or self.waiting == "held":
            return
        tag, waiting = self.settle("\n".join(self.tag_parts)), self.waiting
        self.tag_parts = []
        self.waiting = None
        if waiting == "title":
            self.sections[-1].title = plain(tag)
        elif waiting == "more tag" and self.base and isinstance(self.base[-1], Item):
            item = self.base[-1]
            item.tag = f"{item.tag}\n{tag}" if item.tag else tag
            self.out = item.body
        else:
            self.open_item(tag)

    def line_break(self) -> None:
        """End the line, not the paragraph."""
        if self.buffer and self.fill:
            self.buffer.append(BREAK)

    def blank(self) -> None:
        """Vertical space: ends a paragraph; an empty line in a literal block."""
        if self.fill:
            if self.waiting is None:
                self.flush()
                self.gap = True
        elif self.buffer:
            self.buffer.append("")

    def set_fill(self, fill: bool) -> None:
        """Turn filling on or off."""
        if fill != self.fill:
            self.flush()
            self.fill = fill

    def settle(self, text: str) -> str:
        """Fill-mode text in final form: blanks squeezed, fonts settled, marks of the reading
        replaced.

        What was made of a text is remembered: pages of one family repeat most of each other's
        paragraphs.
        """
        if self.font != ROMAN or self.translation or self.tabs:
            return self._settle(text)
        known = _SETTLED.get(text)
        if known is None:
            settled = self._settle(text)
            if len(_SETTLED) >= _MOST_SETTLED:
                _SETTLED.clear()
            _SETTLED[text] = settled, self.font, self.last_font
            return settled
        settled, self.font, self.last_font = known
        return settled

    def _settle(self, text: str) -> str:
        if self.translation:
            text = text.translate(self.translation)
        if JOIN in text:
            text = text.replace(JOIN + "\n", "").replace(JOIN, "")
        if "\n " in text or "\n\t" in text or text[:1] in " \t":
            if _COLUMN_GAP.search(text):
                text = _INDENTED.sub(_gaps_kept, text)
            text = _LEADING.sub(lambda m: BREAK + PAD * len(m[1].expandtabs(TAB)), text)
        if "\t" in text:
            text = self._tabs(text)
        if BREAK in text:
            lines = (" ".join(part.split()) for part in text.split(BREAK))
            text = "\n".join(line for line in lines if line)
        else:
            text = " ".join(text.split())
        return self._finish(text)

    def _finish(self, text: str) -> str:
        if self.font != ROMAN:
            text = self.font + text
        elif text.isprintable():  # no marks of any kind
            return text
        if _FONT.search(text):
            text = self._fonts(text)
        if ZERO in text:
            text = text.replace(ZERO, "")
        if BACKSLASH in text:
            text = text.replace(BACKSLASH, "\\")
        if QUOTE in text:
            text = text.replace(QUOTE, '"')
        if PAD in text:
            text = text.replace(PAD, "\xa0")
        return text

    def _fonts(self, text: str) -> str:
        if PREVIOUS in text:
            font, last = self.font, self.last_font

            def settled(match: re.Match[str]) -> str:
                nonlocal font, last
                mark = last if match[0] == PREVIOUS else match[0]
                last, font = font, mark
                return mark

            text = _FONT.sub(settled, text)
            self.font, self.last_font = font, last
        else:
            marks = _FONT.findall(text)
            self.last_font = marks[-2] if len(marks) > 1 else self.font
            self.font = marks[-1]
        for lone, close in _LONE:
            if lone in text:
                text = text.replace(lone, close)
        bare = text.rstrip(_TRAILING)
        if len(bare) == len(text):
            return text if self.font == ROMAN else text + ROMAN
        inside = _FONT.findall(bare)
        return bare + ROMAN if inside and inside[-1] != ROMAN else bare

    def _tabs(self, text: str) -> str:
        """Tabs in filled text, brought to columns with blanks that stay."""
        lines = []
        for line in text.split("\n"):
            if "\t" in line and _COLUMNS.search(line):
                done = ""
                for part in line.split("\t"):
                    if done:
                        done += PAD * max(self._stop(len(plain(done))) - len(plain(done)), 1)
                    done += part
                line = done
            lines.append(line)
        return "\n".join(lines)

    def _stop(self, column: int) -> int:
        for stop in self.tabs:
            if stop > column:
                return stop
        return column - column % TAB + TAB

    # --- blocks
    # ----------------------------------------------------------------------------------------

    def flush(self) -> None:
        """End the paragraph or literal block."""
        if self.buffer:
            text = "\n".join(self.buffer)
            self.buffer.clear()
            self.gap = False
            if not self.fill:
                self._literal(text)
                return
            text = self.settle(text)
            if text and (len(text) > 12 or plain(text).strip()):
                self.out.append(_as_term(text) or Paragraph(text, self.hanging))

    def _literal(self, text: str) -> None:
        if self.translation:
            text = text.translate(self.translation)
        if JOIN in text:
            text = text.replace(JOIN + "\n", "").replace(JOIN, "")
        text = text.replace(BREAK + "\n", "\n").replace(BREAK, "\n")
        if "\t" in text:
            text = "\n".join(self._literal_tabs(line) for line in text.split("\n"))
        text = self._finish(
            "\n".join(line.rstrip() for line in text.split("\n")).strip("\n")
        ).strip("\n")
        lines = text.split("\n")
        while lines and not plain(lines[-1]).strip():
            lines.pop()
        while lines and not plain(lines[0]).strip():
            lines.pop(0)
        if lines:
            self.out.append(Literal("\n".join(lines)))

    def _literal_tabs(self, line: str) -> str:
        done = ""
        for n, part in enumerate(line.split("\t")):
            if n:
                width = len(plain(done.replace(ZERO, "")))
                done += " " * (self._stop(width) - width)
            done += part
        return done

    def paragraph(self, hanging: bool = False) -> None:
        """A new paragraph at the margin."""
        self.flush()
        self.waiting = None
        self.font = self.last_font = ROMAN
        self.hanging = hanging
        self.out = self.base

    def open_item(self, tag: str, bullet: bool | None = None) -> None:
        """A new item with `tag` (settled text) at the margin; text goes into it from now on."""
        self.flush()
        self.hanging = False
        self.items += 1
        if self.items > MOST_ITEMS:
            raise OutOfBounds(f"it has more than {MOST_ITEMS:,} items")
        bare = plain(tag).strip() if len(tag) < 16 else ""
        compact, self.gap = self.compact and not self.gap, False
        item = Item(
            tag, compact, bool(bare and _BULLET.fullmatch(bare)) if bullet is None else bullet
        )
        self.base.append(item)
        self.out = item.body

    def await_tag(self, more: bool = False) -> None:
        """The next line of text is a tag; with `more`, one more tag of the item just opened."""
        self.flush()
        self.font = self.last_font = ROMAN
        self.hanging = False
        self.tag_parts = []
        last = self.base[-1] if self.base else None
        self.waiting = "more tag" if more and isinstance(last, Item) and not last.body else "tag"

    def indented(self) -> None:
        """A new paragraph at the indent of the item before, or set in if there is none."""
        self.flush()
        self.waiting = None
        self.font = self.last_font = ROMAN
        self.hanging = False
        if self.out is self.base:
            block = Indent()
            self.base.append(block)
            self.out = block.body

    def indent(self, manual: bool = False, amount: float = 1) -> None:
        """Begin a nested part; `outdent` ends it. An `amount` of 0 or less opens a level without an
        indent.
        """
        self.flush()
        self.waiting = None
        if len(self.levels) >= _MOST_LEVELS:
            self.levels.append((self.base, self.out, "manual" if manual else "nested"))
            return
        self.levels.append((self.base, self.out, "manual" if manual else "nested"))
        if self.out is not self.base:
            self.base = self.out
        elif amount > 0:
            body = self._term_body()
            if body is None:
                block = Indent()
                block.manual = manual
                self.base.append(block)
                body = block.body
            self.base = self.out = body

    def _term_body(self) -> list[Block] | None:
        """The body for an indent that follows a paragraph that is a term: `-x` on a line of its
        own.
        """
        last = self.base[-1] if self.base else None
        if not isinstance(last, Paragraph) or len(last.text) > 400 or last.hanging:
            return None
        if not all(_looks_like_term(line) for line in last.text.split("\n")):
            return None
        item = Item(last.text)
        self.base[-1] = item
        return item.body

    def outdent(self, manual: bool = False) -> None:
        """End the innermost nested part; with `manual`, only if a bare indent began it."""
        self.flush()
        self.waiting = None
        if not self.levels or (manual and self.levels[-1][2] != "manual"):
            return
        inner = self.base
        while not manual and self.levels[-1][2] == "manual" and len(self.levels) > 1:
            self.levels.pop()
        self.base, out, kind = self.levels.pop()
        self.out = out if kind == "manual" else self.base
        self._as_item(inner)
        if kind != "manual":
            self.font = self.last_font = ROMAN

    def _as_item(self, body: list[Block]) -> None:
        """Turn an indent that begins with a drawn bullet or number into an item."""
        block = self.base[-1] if self.base else None
        if isinstance(block, Indent) and block.body is body and not body:
            self.base.pop()
            return
        first = body[0] if body else None
        if (
            not isinstance(block, Indent)
            or block.body is not body
            or not isinstance(first, Paragraph)
        ):
            return
        match = _FAKE_BULLET.match(first.text) if "\xa0" in first.text[:12] else None
        if match:
            item = Item(match[1], bullet=True)
            rest = first.text[match.end() :]
            item.body = [Paragraph(rest), *body[1:]] if rest else body[1:]
            self.base[-1] = item

    def section(self, title: str, level: int) -> None:
        """Begin a section; an empty `title` is taken from the next line of text where `await_title`
        says.
        """
        self.flush()
        self.fill = True
        self.waiting = None
        self.tag_font = ""
        self.compact = self.hanging = False
        self.font = self.last_font = ROMAN
        self.levels.clear()
        section = Section(title, level)
        self.sections.append(section)
        self.base = self.out = section.blocks

    def await_title(self) -> None:
        """The next line of text is the title of the section just begun."""
        self.tag_parts = []
        self.waiting = "title"

    def table(self, table: Table) -> None:
        """Put a table where text goes."""
        self.flush()
        self.out.append(table)

    def close(self) -> list[Section]:
        """The finished sections; those without title and text are left out."""
        if self.waiting and self.tag_parts:
            self.text("")
        self.flush()
        return [s for s in self.sections if s.title or s.blocks]


def _gaps_kept(line: re.Match[str]) -> str:
    """A line that begins with blanks, with the runs of blanks in it kept: it is one of a table."""
    return _COLUMN_GAP.sub(lambda gap: PAD * len(gap[0]), line[0])


def _as_term(text: str) -> Item | None:
    """A paragraph of a flag and lines set in below it, as some page writers draw their lists, as an
    item.
    """
    if "\n\xa0" not in text or plain(text[:3]).strip()[:1] != "-":
        return None
    first, *rest = text.split("\n")
    if not _looks_like_term(first) or not all(line.startswith("\xa0") for line in rest):
        return None
    item = Item(first)
    item.body.append(Paragraph(" ".join(line.lstrip("\xa0") for line in rest)))
    return item


def _looks_like_term(line: str) -> bool:
    if line[:1] not in _TERM_STARTS:
        return False
    bare = plain(line).strip()
    if not bare or (bare.endswith((".", ":")) and not bare.endswith("...")) or len(bare) > 120:
        return False
    if bare[0] in "-+":
        return not bare.startswith("- ")
    styled = line[0] in (BOLD, ITALIC, BOLD_ITALIC, CODE)
    return styled and not bare.endswith("!")
