"""One passage of several texts, side by side where there is room, marked where they differ."""

from __future__ import annotations

import re

from dowsing.comparing.passages import Passage
from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean_line
from dowsing.render.cell_width import display_width
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.wrap import wrap

INDENT = 3
GAP = 3
NARROWEST = 32  # a column below that is not read with pleasure
MOST_COLUMNS = 3
MOST_NAMED = 10  # of the words that only one text has


def passage_lines(found: list[Passage], asked: str, width: int) -> list[str]:
    """The passages; texts that say nothing are named at the end."""
    telling = [one for one in found if one.parts]
    lines: list[str] = []
    columns = min(MOST_COLUMNS, len(telling))
    while columns > 1 and (width - INDENT - GAP * (columns - 1)) // columns < NARROWEST:
        columns -= 1
    room = (width - INDENT - GAP * (columns - 1)) // max(columns, 1)
    for start in range(0, len(telling), columns):
        lines += [
            "",
            *_beside([_column(one, room) for one in telling[start : start + columns]], room),
        ]
    silent = [one.source for one in found if not one.parts]
    if silent:
        said = f"Nothing about {clean_line(asked)} in: {', '.join(silent)}"
        lines += ["", *(f"{FAINT}{line}" for line in wrap(said, width, INDENT, 2))]
    return lines


def _column(one: Passage, room: int) -> list[str]:
    head = one.source + (f", {clean_line(one.title)}" if one.title else "")
    lines = [f"{ITALIC}{line}{ROMAN}" for line in wrap(head, room)]
    only = {word.casefold() for word in one.only}
    for n, part in enumerate(one.parts):
        lines += [""] if n and len(part) > room else []
        lines += wrap(_marked(clean_line(part), only), room)
    if only:
        more = " …" if len(one.only) > MOST_NAMED else ""
        said = f"only here: {', '.join(one.only[:MOST_NAMED])}{more}"
        lines += ["", *(f"{ITALIC}{line}{ROMAN}" for line in wrap(said, room, 0, 2))]
    return lines


def _marked(text: str, only: set[str]) -> str:
    """The text with the words in bold that no other text has."""
    return re.sub(
        r"[^\W\d_][\w'’-]*",
        lambda match: f"{BOLD}{match[0]}{ROMAN}" if match[0].casefold() in only else match[0],
        text,
    )


def _beside(columns: list[list[str]], room: int) -> list[str]:
    lines = []
    for n in range(max(len(column) for column in columns)):
        cells = [column[n] if n < len(column) else "" for column in columns]
        line = " " * INDENT
        for cell in cells[:-1]:
            line += cell + " " * max(room - display_width(cell) + GAP, 1)
        lines.append((line + cells[-1]).rstrip())
    return lines


def heading(asked: str) -> str:
    """What is set side by side."""
    return f"{HEADING}What the texts say of {clean_line(asked)}"
