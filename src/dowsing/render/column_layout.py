"""Short words in columns, down and then across."""

from __future__ import annotations

from dowsing.render.cell_width import display_width


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
