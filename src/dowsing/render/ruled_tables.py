"""CommandFinder laid out in columns that fit the width."""

from __future__ import annotations

from dowsing.render.cell_width import display_width
from dowsing.render.wrap import without_links, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Cell, Table

GAP = 2
NARROWEST_COLUMN = 6


def table_lines(table: Table, width: int, indent: int) -> list[str]:
    """The rows of a table; cells that do not fit are wrapped, a rule is a line."""
    rows = [[_text(cell) for cell in row] if row is not None else None for row in table.rows]
    count = max((sum(cell.span for cell in row) for row in table.rows if row), default=0)
    if not count:
        return []
    widths = _column_widths(table, count, max(width - indent, 20))
    pad = " " * indent
    total = sum(widths) + GAP * (count - 1)
    lines: list[str] = []
    for cells, texts in zip(table.rows, rows, strict=True):
        if cells is None or texts is None:
            lines.append(pad + "─" * total)
        else:
            lines += [pad + line for line in _row_lines(cells, texts, widths)]
    return lines


def _text(cell: Cell) -> str:
    return without_links(cell.text).replace("\xa0", " ")


def _column_widths(table: Table, count: int, room: int) -> list[int]:
    """Natural widths; where they do not fit, wide columns give way."""
    widths = [1] * count
    for row in table.rows:
        at = 0
        for cell in row or []:
            if cell.span == 1 and at < count:
                size = max((display_width(line) for line in _text(cell).split("\n")), default=0)
                widths[at] = max(widths[at], size)
            at += cell.span
    room -= GAP * (count - 1)
    if sum(widths) <= room:
        return widths
    limit = max(widths)
    while limit > NARROWEST_COLUMN and sum(min(w, limit) for w in widths) > room:
        limit -= 1
    fitted = [min(w, limit) for w in widths]
    for n in sorted(range(count), key=lambda n: widths[n]):
        spare = room - sum(fitted)
        fitted[n] += max(min(spare, widths[n] - fitted[n]), 0)
    return fitted


def _row_lines(cells: list[Cell], texts: list[str], widths: list[int]) -> list[str]:
    columns: list[list[str]] = []
    sizes: list[int] = []
    at = 0
    for cell, text in zip(cells, texts, strict=True):
        size = sum(widths[at : at + cell.span]) + GAP * (cell.span - 1)
        at += cell.span
        columns.append(wrap(text, max(size, 1)) if text else [""])
        sizes.append(size)
    height = max(len(column) for column in columns)
    lines = []
    for n in range(height):
        line = ""
        for place, (cell, column, size) in enumerate(zip(cells, columns, sizes, strict=True)):
            part = column[n] if n < len(column) else ""
            space = max(size - display_width(part), 0)
            if cell.align in "rn":
                part = " " * space + part
            elif cell.align == "c":
                part = " " * (space // 2) + part + " " * (space - space // 2)
            elif place < len(cells) - 1:
                part += " " * space
            line += (" " * GAP if place else "") + part
        lines.append(line.rstrip())
    return lines
