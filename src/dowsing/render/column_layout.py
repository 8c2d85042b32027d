"""Short words in columns, down and then across; names with a text beside each."""

from __future__ import annotations

from dowsing.model.markup import BOLD, ROMAN, clean_line
from dowsing.render.cell_width import display_width
from dowsing.render.wrap import wrap

GAP = 2  # cells between two columns


def named_rows(rows: list[tuple[str, str]], width: int, indent: int, widest: int) -> list[str]:
    """Names in bold, and beside each what is said of it; a name of more than `widest` cells pushes
    its text aside.
    """
    sizes = [display_width(name) for name, _ in rows]
    column = min(max(sizes, default=0), widest) + GAP
    lines = []
    for (name, text), size in zip(rows, sizes, strict=True):
        told = " " * max(column - size, GAP) + clean_line(text) if text else ""
        lines += wrap(f"{BOLD}{clean_line(name)}{ROMAN}{told}", width, indent, column)
    return lines


def in_columns(words: list[str], width: int, indent: int) -> list[str]:
    """The words in as many columns as fit."""
    if not words:
        return []
    room = max(width - indent, 20)
    size = min(max(display_width(word) for word in words) + 2, room)
    count = max(1, room // size)
    rows = (len(words) + count - 1) // count
    lines = []
    for row in range(rows):
        line = "".join(word + " " * max(size - display_width(word), 1) for word in words[row::rows])
        lines.append(" " * indent + line.rstrip())
    return lines
