"""A document as one HTML page without anything outside it."""

from __future__ import annotations

from html import escape

from dowsing.model.document import Block, Cell, Document, Indent, Item, Literal, Paragraph, Table
from dowsing.model.markup import leads_outside, plain, spans

_STYLE = """
:root { color-scheme: light dark; }
body { font: 16px/1.5 system-ui, sans-serif; max-width: 62rem; margin: 0 auto;
  padding: 1rem 1.5rem 4rem;
       display: grid; grid-template-columns: 14rem 1fr; gap: 0 2.5rem; }
header { grid-column: 1 / -1; border-bottom: 1px solid #8886; margin-bottom: 1rem; }
nav { position: sticky; top: 1rem; align-self: start; font-size: .9rem; max-height: 90vh;
  overflow: auto; }
nav a { display: block; padding: .1rem 0; text-decoration: none; } nav a.sub { padding-left: 1rem; }
main { min-width: 0; } h2 { font-size: 1.15rem; margin: 1.8rem 0 .4rem; }
h3 { font-size: 1rem; margin: 1.2rem 0 .3rem; }
pre, code { font-family: ui-monospace, monospace; font-size: .92em; }
pre { background: #8881; padding: .6rem .8rem; overflow-x: auto; }
dt { margin-top: .6rem; } dd { margin-left: 2rem; } dd p { margin: .2rem 0 .5rem; }
.facts { color: #888; }
table { border-collapse: collapse; } td { padding: .15rem .8rem .15rem 0; vertical-align: top; }
@media (max-width: 48rem) { body { display: block; } nav { position: static; max-height: none; } }
"""
_TAGS = {"bold": "b", "italic": "i", "bold italic": "b", "code": "code"}


def document_html(document: Document) -> str:
    """The page with a list of contents and links between its parts."""
    contents = []
    body = []
    for number, section in enumerate(document.sections):
        if section.title:
            level = min(section.level + 1, 6)
            kind = ' class="sub"' if section.level > 1 else ""
            contents.append(f'<a{kind} href="#s{number}">{escape(section.title)}</a>')
            body.append(f'<h{level} id="s{number}">{escape(section.title)}</h{level}>')
        body.append(_blocks(section.blocks))
    facts = [document.source, document.package or "", document.date]
    lines = " · ".join(escape(fact) for fact in facts if fact)
    return (
        "<!DOCTYPE html>\n<html "
        f'lang="{escape(document.language.replace("_", "-") or "en")}">\n<head>\n'
        f'<meta charset="utf-8">\n<meta name="viewport" content="width=device-width">\n'
        f"<title>{escape(document.label)}</title>\n<style>{_STYLE}</style>\n</head>\n<body>\n"
        f"<header><h1>{escape(document.label)}</h1><p>{escape(document.summary)}</p>"
        f'<p class="facts">{lines}</p></header>\n<nav>{"".join(contents)}</nav>\n'
        f"<main>\n{chr(10).join(body)}\n</main>\n</body>\n</html>\n"
    )


def _inline(text: str) -> str:
    parts = []
    for span in spans(text):
        shown = escape(span.text.replace("\xa0", " "))
        tag = _TAGS.get(span.style)
        if tag:
            shown = f"<{tag}>{shown}</{tag}>"
        if span.link and leads_outside(span.link):
            shown = f'<a href="{escape(span.link, quote=True)}">{shown}</a>'
        parts.append(shown)
    return "".join(parts)


def _blocks(blocks: list[Block]) -> str:
    out: list[str] = []
    open_list = ""
    for block in blocks:
        kind = ("ul" if block.bullet else "dl") if isinstance(block, Item) else ""
        if kind != open_list:
            out += [f"</{open_list}>"] if open_list else []
            out += [f"<{kind}>"] if kind else []
            open_list = kind
        out.append(_block(block))
    if open_list:
        out.append(f"</{open_list}>")
    return "\n".join(out)


def _block(block: Block) -> str:
    if isinstance(block, Paragraph):
        return "<p>" + _inline(block.text).replace("\n", "<br>\n") + "</p>"
    if isinstance(block, Literal):
        return f"<pre>{_inline(block.text)}</pre>"
    if isinstance(block, Indent):
        return f"<blockquote>{_blocks(block.body)}</blockquote>"
    if isinstance(block, Item):
        if block.bullet:
            mark = plain(block.tag).strip()
            shown = f"{escape(mark)} " if mark[:1].isalnum() or mark[:1] in "([" else ""
            return f"<li>{shown}{_blocks(block.body)}</li>"
        tags = "".join(f"<dt>{_inline(tag)}</dt>" for tag in block.tag.split("\n"))
        return f"{tags}<dd>{_blocks(block.body)}</dd>"
    return _table(block)


def _table(table: Table) -> str:
    rows = []
    for row in table.rows:
        if row is not None:
            rows.append("<tr>" + "".join(_cell(cell) for cell in row) + "</tr>")
    return f"<table>{''.join(rows)}</table>"


def _cell(cell: Cell) -> str:
    side = {"r": "right", "n": "right", "c": "center"}.get(cell.align, "")
    attributes = (f' colspan="{cell.span}"' if cell.span > 1 else "") + (
        f' style="text-align:{side}"' if side else ""
    )
    text = _inline(cell.text).replace("\n", "<br>")
    return f"<td{attributes}>{text}</td>"
