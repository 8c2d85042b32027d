"""Already formatted pages: text struck over for bold and underline, or coloured with escape
sequences.
"""

from __future__ import annotations

import re

from dowsing.model.document import Block, Document, Literal, Paragraph, Section
from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean, plain
from dowsing.readers.roff.page import read_name_line

_STRUCK = re.compile(r"((?:[^\n]\x08)+)([^\n])")
_SGR = re.compile("\x1b\\[[0-9;]*m")
_RUNNING = re.compile(r"\s{3,}\S.*\S+\(\S+\)\s*$")  # the line at the top or foot of a sheet


def read_formatted(
    text: str,
    name: str,
    section: str,
    *,
    path: str = "",
    package: str | None = None,
    language: str = "",
) -> Document:
    """Read a formatted page: headings stand at the margin, text is set in."""
    lines = _marked(text).split("\n")
    sections: list[Section] = [Section("")]
    block: list[str] = []

    def close() -> None:
        body = _unindented(block)
        block.clear()
        if not any(plain(line).strip() for line in body):
            return
        target: list[Block] = sections[-1].blocks
        if any("  " in plain(line).strip() for line in body):
            target.append(Literal("\n".join(body)))
        else:
            target.append(Paragraph(" ".join(" ".join(line.split()) for line in body)))

    for line in lines:
        bare = plain(line)
        if bare[:1].strip():
            close()
            if _RUNNING.search(bare):
                continue
            if line.startswith(BOLD) or bare.isupper():
                sections.append(Section(bare.strip()))
                continue
        if not bare.strip():
            close()
        else:
            block.append(line)
    close()
    found = [part for part in sections if part.title or part.blocks]
    names, summary = read_name_line(found)
    return Document(
        name,
        section,
        "manual",
        found,
        names=names or [name],
        summary=summary,
        path=path,
        package=package,
        language=language,
    )


def _marked(text: str) -> str:
    """Overstrikes to style marks: a letter over itself is bold, over an underscore underlined."""
    text = _SGR.sub("", text)
    out: list[str] = []
    style = ROMAN
    for line in text.split("\n"):
        at = 0
        while at < len(line):
            match = _STRUCK.match(line, at)
            if match:
                char, first = match[2], match[1][0]
                new = ITALIC if first == "_" and char != "_" else BOLD if first == char else ROMAN
                at = match.end()
            else:
                char, new = line[at], ROMAN
                at += 1
                if char == " " and style != ROMAN and _STRUCK.match(line, at):
                    new = style
            if new != style:
                out.append("" if char == "\x08" else new)
                style = new
            out.append(char if char >= " " or char == "\t" else "")
        if style != ROMAN:
            out.append(ROMAN)
            style = ROMAN
        out.append("\n")
    marked = "".join(out)
    return (
        "".join(c if c in (BOLD, ITALIC, ROMAN) else clean(c) for c in marked)
        if not marked.isascii()
        else marked
    )


def _unindented(lines: list[str]) -> list[str]:
    widths = [
        len(plain(line)) - len(plain(line).lstrip(" ")) for line in lines if plain(line).strip()
    ]
    cut = min(widths, default=0)
    return [line[cut:] if line[:cut].isspace() or not cut else line.lstrip(" ") for line in lines]
