"""The text of a node to blocks, told by indentation: headings, paragraphs, lists, what stands as it
is, menus.
"""

from __future__ import annotations

import re

from dowsing.model.document import Block, Indent, Item, Literal, Paragraph, Section
from dowsing.readers.info.inline import heading, inline, literal, tag
from dowsing.readers.info.menus import INDEX_MARK, parse_menu

_UNDERLINE = re.compile(r"([*=.~^#-])\1+\Z")
_BULLET = re.compile(r"( *)(•|\*|-|−|◦|‣|\([0-9a-z]+\)|[0-9]+\.|[a-z]\.) +(?=\S)")
_DEFINITION = re.compile(r" -- (?:[^:\n]+: )?\S")
_QUOTED = re.compile(r"(?:‘[^’]+’|`[^']+'|'[^']+')(?:,? (?:or )?(?:‘[^’]+’|`[^']+'|'[^']+'))*\Z")
_LEVELS = {"*": 1, "=": 2, "-": 3, ".": 4}
STEP = 5  # how far a list's text or a display is set in from what surrounds it
FILLED = 58  # a set-in line at least so long is likely to be filled text


def node_sections(text: str, name: str, depth: int) -> list[Section]:
    """The sections of a node: its own under its title, then those of headings inside it.

    `depth` is how far below the first node it lies.
    """
    text = text.replace(INDEX_MARK, "")
    body, menu = _without_menu(text.split("\n"))
    sections = [Section("", depth + 1)]
    lines: list[str] = []
    first_level = 0
    at = 0

    def close() -> None:
        sections[-1].blocks += blocks(lines)
        lines.clear()

    while at < len(body):
        line = body[at]
        under = body[at + 1] if at + 1 < len(body) else ""
        mark = _UNDERLINE.match(under) if line and not line.startswith(" ") else None
        if mark and abs(len(under) - len(line)) <= max(3, len(line) // 3):
            close()
            level = _LEVELS.get(mark[1], 1)
            if not sections[-1].title and not sections[-1].blocks and len(sections) == 1:
                sections[-1].title = heading(line)
                first_level = level
            else:
                sections.append(Section(heading(line), depth + 1 + max(level - first_level, 1)))
            at += 2
            continue
        lines.append(line)
        at += 1
    close()
    sections[0].title = sections[0].title or name
    sections[0].anchor = name
    if menu:
        sections[0].blocks += _menu_blocks(menu)
    return sections


def _without_menu(lines: list[str]) -> tuple[list[str], list[str]]:
    """The lines before the menu and those of it; what comes after a menu is part of it."""
    for n, line in enumerate(lines):
        if line.startswith("* Menu:"):
            return lines[:n], lines[n + 1 :]
    return lines, []


def _menu_blocks(lines: list[str]) -> list[Block]:
    """Entries as a list, with the text that stands between them and after."""
    done: list[Block] = []
    entries: list[str] = []
    text: list[str] = []
    for line in [*lines, "* "]:
        if line.startswith("* "):
            done += blocks(text)
            text.clear()
            entries.append(line)
        elif entries and line.startswith("  ") and entries[-1]:
            entries.append(line)  # goes on with the entry above
        elif not line and not text:
            entries.append(line)
        else:
            done += _entry_items(entries)
            entries.clear()
            text.append(line)
    return done + _entry_items(entries[:-1])


def _entry_items(lines: list[str]) -> list[Block]:
    done: list[Block] = []
    for entry in parse_menu(lines):
        label = entry.label if entry.label == entry.target else f"{entry.label}: {entry.target}"
        item = Item(tag(label), compact=True, beside=True)
        if entry.text:
            item.body.append(Paragraph(inline(entry.text)))
        done.append(item)
    return done


def blocks(lines: list[str], margin: int = 0) -> list[Block]:
    """The blocks of lines whose text stands at `margin`."""
    done: list[Block] = []
    at = 0
    while at < len(lines):
        if not lines[at].strip():
            at += 1
            continue
        at = _one_block(lines, at, margin, done)
    return done


def _indent(line: str) -> int:
    return len(line) - len(line.lstrip(" "))


def _one_block(lines: list[str], at: int, margin: int, done: list[Block]) -> int:
    """Read the block that begins at a line; the number of the line after it."""
    here = _indent(lines[at])
    bullet = _BULLET.match(lines[at])
    if bullet and here >= margin and here - margin <= 4 and _goes_on(lines, at, bullet.end()):
        return _bullet_item(lines, at, bullet, done)
    if _DEFINITION.match(lines[at][margin:]):
        return _tagged(lines, at, at + 1, margin, done)
    end = at
    while end < len(lines) and lines[end].strip():
        end += 1
    tags = at
    while tags < end and _indent(lines[tags]) == margin:
        tags += 1
    if tags > at and tags < end and _indent(lines[tags]) >= margin + STEP:
        return _tagged(lines, at, tags, margin, done)
    if tags == end and _alone(lines, at, end, margin):
        return _tagged(lines, at, end, margin, done)
    if here >= margin + STEP or (here > margin and here - margin not in (1, 2, 3)):
        return _set_in(lines, at, margin, done)
    # a paragraph ends where a list begins without a gap
    stop = at + 1
    while stop < end and not (_BULLET.match(lines[stop]) and _indent(lines[stop]) > margin):
        stop += 1
    done.append(Paragraph(inline(" ".join(line.strip() for line in lines[at:stop]))))
    return stop


def _alone(lines: list[str], at: int, end: int, margin: int) -> bool:
    """Whether lines that an empty one follows are tags: nothing but what is quoted, and text set in
    after them.
    """
    after = next((line for line in lines[end:] if line.strip()), "")
    return _indent(after) >= margin + STEP and all(
        _QUOTED.match(line[margin:]) for line in lines[at:end]
    )


def _goes_on(lines: list[str], at: int, column: int) -> bool:
    """Whether a line that looks like a bullet's is one: what follows it is set in to its text, or
    is another.
    """
    following = lines[at + 1] if at + 1 < len(lines) else ""
    return (
        not following.strip()
        or _indent(following) == column
        or _BULLET.match(following) is not None
    )


def _bullet_item(lines: list[str], at: int, bullet: re.Match[str], done: list[Block]) -> int:
    column = bullet.end()
    end = at + 1
    while end < len(lines) and (not lines[end].strip() or _indent(lines[end]) >= column):
        end += 1
    item = Item(bullet[2], compact=at > 0 and bool(lines[at - 1].strip()), bullet=True)
    inner = [" " * column + lines[at][column:], *lines[at + 1 : end]]
    item.body = blocks(inner, column)
    done.append(item)
    return end


def _tagged(lines: list[str], at: int, tags: int, margin: int, done: list[Block]) -> int:
    """A tag, or several, with what is set in below it."""
    end = tags
    while end < len(lines) and (not lines[end].strip() or _indent(lines[end]) >= margin + STEP):
        end += 1
    if _DEFINITION.match(lines[at][margin:]):  # a definition's line goes on set in by ten
        while tags < end and _indent(lines[tags]) >= margin + 2 * STEP:
            tags += 1
        text = " ".join(line.strip() for line in lines[at:tags]).removeprefix("-- ")
    else:
        text = "\n".join(line.strip() for line in lines[at:tags])
    item = Item(tag(text))
    item.body = blocks(lines[tags:end], margin + STEP)
    done.append(item)
    return end


def _set_in(lines: list[str], at: int, margin: int, done: list[Block]) -> int:
    """What is set in from its surroundings: filled text as an indented paragraph, all else as it
    stands.
    """
    end = at
    while end < len(lines) and (not lines[end].strip() or _indent(lines[end]) > margin + 3):
        end += 1
    while end > at and not lines[end - 1].strip():
        end -= 1
    part = lines[at:end]
    filled = [line for line in part if line.strip()]
    least = min(_indent(line) for line in filled)
    long = sum(len(line) >= FILLED for line in filled)
    flush = {_indent(line) for line in filled}
    if (
        len(filled) > 1
        and long * 3 >= len(filled) * 2
        and flush <= {least, least + 3}
        and not _in_columns(filled)
    ):
        inner = blocks(part, least)
    else:
        inner = [Literal(literal("\n".join(line[least:] for line in part)))]
    indent = Indent()
    indent.body = inner
    done.append(indent)
    return end


def _in_columns(lines: list[str]) -> bool:
    return sum("   " in line.strip() for line in lines) * 2 > len(lines)
