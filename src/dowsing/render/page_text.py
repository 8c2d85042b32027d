"""A document as lines: whole, in part, in brief, or around a text."""

from __future__ import annotations

from dowsing.model.document import Block, Document, Indent, Item, Section, block_texts
from dowsing.model.markup import CODE, ROMAN, clean_line, plain
from dowsing.model.source_name import SourceName
from dowsing.render.cards import flags_text, option_lines
from dowsing.render.layout import STEP, block_lines, section_lines, sources_told, title_lines
from dowsing.render.line_marks import FAINT, FOUND, HEADING
from dowsing.render.wrap import groups_kept, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.search.lookup import Lookup
    from dowsing.search.parts import PagePart

MARGIN = 3


def head_lines(
    document: Document, found: Lookup | None, width: int, others: list[str]
) -> list[str]:
    """Which text this is, where it is from, what else has the name, and which other sources have a
    text.
    """
    facts = [
        _source_fact(document),
        f"package {document.package}" if document.package else "",
        document.date,
    ]
    if document.language:
        facts.insert(1, f"language {document.language}")
    facts.append(clean_line(document.path))
    lines = title_lines(document.label, document.summary, facts, width)
    also = []
    if found is not None:
        also = [entry.label for entry in found.others[:6] if entry.label != document.label]
    if also:
        lines += [f"{FAINT}{line}" for line in wrap(f"also: {', '.join(also)}", width)]
    if others:
        lines += [
            f"{FAINT}{line}"
            for line in wrap(f"other sources (--from): {sources_told(others)}", width)
        ]
    return lines


def _source_fact(document: Document) -> str:
    """The source in words: what it is of, where that is not plain from the name."""
    if document.source == SourceName.BUILTIN:
        return f"builtin of {document.origin}, its own help" if document.origin else "builtin"
    if document.source == SourceName.SHELL_MANUAL:
        return f"shell-manual, from {document.origin}"
    if document.source == SourceName.USAGE:
        return "usage, as the program prints it"
    if document.source == SourceName.BUILTIN_USAGE:
        return "builtin-usage, as the shell prints it"
    return document.source


def whole_lines(document: Document, width: int) -> list[str]:
    """All sections."""
    sections = document.sections
    if (
        sections
        and sections[0].title.upper() in ("NAME", "NAMES")
        and len(sections) > 1
        and document.summary
    ):
        if len(document.names) < 2 and len(sections[0].blocks) < 2:
            sections = sections[1:]
    return section_lines(sections, width)


def part_lines(part: PagePart, width: int) -> list[str]:
    """One part."""
    if part.sections:
        return section_lines(part.sections, width)
    lines = [f"{HEADING}{part.title.upper()}"]
    for line in part.lines:
        lines += wrap(groups_kept(line), width, MARGIN, 4)
    for n, option in enumerate(part.options):
        lines += [""] if n else []
        lines += wrap(flags_text(option), width, MARGIN, 2)
        for text in option.text.split("\n"):
            lines += wrap(clean_line(text), width, MARGIN + STEP)
    for n, example in enumerate(part.examples):
        if n:
            lines.append("")
        if example.task:
            lines += wrap(example.task, width, MARGIN)
        lines.append(f"{' ' * (MARGIN + 2)}{CODE}{example.line}{ROMAN}")
    return lines


def brief_lines(document: Document, width: int) -> list[str]:
    """Forms, a line for each option, and which sections there are with their words."""
    lines: list[str] = []
    if document.synopsis:
        lines.append(f"{HEADING}FORMS")
        for form in document.synopsis:
            lines += wrap(groups_kept(form), width, MARGIN, 4)
    if document.options:
        lines += ["", f"{HEADING}OPTIONS", *option_lines(document.options, width)]
    lines += ["", f"{HEADING}SECTIONS"]
    for section in document.sections:
        if section.title:
            texts: list[str] = []
            block_texts(section.blocks, texts)
            count = sum(len(text.split()) for text in texts)
            lines.append(
                f"{' ' * (MARGIN + 2 * (section.level - 1))}{section.title}  ({count} words)"
            )
    return lines[1:] if lines[:1] == [""] else lines


def around_lines(document: Document, wanted: str, width: int) -> list[str]:
    """The paragraphs that hold `wanted`, under the headings and tags they stand under."""
    key = " ".join(wanted.casefold().split())
    kept: list[Section] = []
    headings: list[Section] = []
    for section in document.sections:
        headings = [h for h in headings if h.level < section.level] + [section]
        blocks = _holding(section.blocks, key)
        if blocks or (key in section.title.casefold() and section.title):
            for heading in headings[:-1]:
                if heading not in kept and all(k.title != heading.title for k in kept):
                    kept.append(_section(heading, []))
            kept.append(_section(section, blocks))
    return [_found(line, key) for line in section_lines(kept, width)]


def _section(like: Section, blocks: list[Block]) -> Section:
    section = Section(like.title, like.level)
    section.blocks = blocks
    return section


def _holding(blocks: list[Block], key: str) -> list[Block]:
    found: list[Block] = []
    for block in blocks:
        if isinstance(block, Item):
            inner = block.body if _has(block.tag, key) else _holding(block.body, key)
            if inner or _has(block.tag, key):
                item = Item(block.tag, block.compact, block.bullet)
                item.body = inner
                found.append(item)
        elif isinstance(block, Indent):
            inner = _holding(block.body, key)
            if inner:
                indent = Indent()
                indent.body = inner
                found.append(indent)
        else:
            texts: list[str] = []
            block_texts([block], texts)
            if any(_has(text, key) for text in texts):
                found.append(block)
    return found


def _has(text: str, key: str) -> bool:
    return key in " ".join(plain(text).casefold().split())


def _found(line: str, key: str) -> str:
    """The line with what was looked for marked, where no style change stands inside it."""
    low = line.casefold()
    if len(low) != len(line) or key not in low or line.startswith(HEADING):
        return line
    done, at = "", 0
    while (here := low.find(key, at)) >= 0:
        done += line[at:here] + FOUND + line[here : here + len(key)] + FOUND
        at = here + len(key)
    return done + line[at:]


def plain_section(section: Section, width: int) -> str:
    """The text of a section without its heading, as bare lines."""
    return "\n".join(plain(line) for line in block_lines(section.blocks, width, 0))
