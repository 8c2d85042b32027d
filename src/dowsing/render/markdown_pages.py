"""A document as Markdown."""

from __future__ import annotations

import re

from dowsing.model.document import Block, Document, Indent, Item, Literal, Paragraph, Table
from dowsing.model.markup import leads_outside, plain, spans

_SPECIAL = re.compile(r"([\\`*_\[\]<>|#])")
_WRAP = {"bold": "**", "italic": "*", "bold italic": "***", "code": "`"}


def document_markdown(document: Document) -> str:
    """The document with a heading for each section."""
    parts = [f"# {document.label}", document.summary]
    for section in document.sections:
        if section.title:
            parts.append(
                "#" * min(section.level + 1, 6) + " " + _SPECIAL.sub(r"\\\1", section.title)
            )
        parts += _blocks(section.blocks)
    return "\n\n".join(part for part in parts if part) + "\n"


def _inline(text: str) -> str:
    out = []
    for span in spans(text):
        bare = span.text.replace("\xa0", " ")
        inner = bare.strip(" \n")
        if not inner:
            out.append(bare)
            continue
        mark = _WRAP.get(span.style, "")
        shown = inner if span.style == "code" else _SPECIAL.sub(r"\\\1", inner)
        if mark == "`" and "`" in inner:
            mark = "`" * (max(map(len, re.findall("`+", inner))) + 1)
            shown = f" {inner} "
        if span.link and leads_outside(span.link):
            address = re.sub(r"[\s<>()\\]", lambda match: f"%{ord(match[0]):02X}", span.link)
            shown = f"<{address}>" if address.endswith(inner) else f"[{shown}]({address})"
            mark = ""
        start = bare[: len(bare) - len(bare.lstrip(" \n"))]
        end = bare[len(bare.rstrip(" \n")) :]
        out.append(f"{start}{mark}{shown}{mark[::-1]}{end}")
    return "".join(out)


def _blocks(blocks: list[Block], indent: str = "") -> list[str]:
    parts: list[str] = []
    for block in blocks:
        if isinstance(block, Paragraph):
            parts.append(_set_in(_inline(block.text).replace("\n", "  \n"), indent))
        elif isinstance(block, Literal):
            parts.append(_set_in(_fenced(plain(block.text)), indent))
        elif isinstance(block, Indent):
            parts += _blocks(block.body, indent)
        elif isinstance(block, Item):
            mark = plain(block.tag).strip()
            number = re.match(r"\(?(\d+)[.)]", mark)
            head = f"{number[1]}." if block.bullet and number else "-"
            inner = _blocks(block.body, indent + "  " + " " * (len(head) - 1))
            if block.bullet:
                first = inner[0].lstrip() if inner else ""
                parts += [f"{indent}{head} {first}", *inner[1:]]
            else:
                parts += [
                    f"{indent}- " + _inline(block.tag).replace("\n", f"  \n{indent}  "),
                    *inner,
                ]
        else:
            parts.append(_set_in(_table(block), indent))
    return parts


def _fenced(text: str) -> str:
    """Text as it stands, in a fence that nothing inside it can end."""
    longest = max(map(len, re.findall("`+", text)), default=0)
    fence = "`" * max(3, longest + 1)
    return f"{fence}\n{text}\n{fence}"


def _set_in(text: str, indent: str) -> str:
    return "\n".join(indent + line if line else line for line in text.split("\n"))


def _table(table: Table) -> str:
    rows = [row for row in table.rows if row]
    width = max(sum(cell.span for cell in row) for row in rows)
    lines = []
    for n, row in enumerate(rows):
        cells: list[str] = []
        for cell in row:
            cells += [_inline(cell.text).replace("\n", " "), *[""] * (cell.span - 1)]
        cells += [""] * (width - len(cells))
        lines.append("| " + " | ".join(cells) + " |")
        if n == 0:
            lines.append("|" + " --- |" * width)
    return "\n".join(lines)
