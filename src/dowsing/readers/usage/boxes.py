"""Usage texts in boxes: each section is a frame with a title in its upper edge, and a table inside
whose columns are spellings, what they take, and the text. The frames are taken away, the parts of
an entry are put into one line.
"""

from __future__ import annotations

import re

_UPPER = re.compile(r"\s*[╭┌+][─\-]{1,3}\s?(?P<title>[^─╭╮┌┐+]*?)\s?[─\-]*[╮┐+]\s*\Z")
_LOWER = re.compile(r"\s*[╰└+][─\-]+[╯┘+]\s*\Z")
_ROW = re.compile(r"\s*[│|](?P<inside>.*)[│|]\s*\Z")
_GUTTER = 2  # blanks between columns
#: What stands in the column of values of an option that takes none.
_SWITCH = frozenset(("<bool>", "BOOLEAN", "<flag>"))
_REQUIRED = "*"  # the mark of an entry that must be given
_FLAG = re.compile(r"--?[\w?]")


def unboxed(lines: list[str]) -> list[str]:
    """The lines without frames; as they are if there are none."""
    found: list[str] = []
    at = 0
    while at < len(lines):
        upper = _UPPER.match(lines[at])
        rows = _rows_below(lines, at + 1) if upper else []
        if not upper or not rows:
            found.append(lines[at])
            at += 1
            continue
        if found and found[-1]:
            found.append("")
        found += [f"{upper['title'].strip() or 'Notes'}:", *_entries(rows), ""]
        at += len(rows) + 2
    return found


def _rows_below(lines: list[str], at: int) -> list[str]:
    """What stands inside of a frame whose upper edge is before `at`, [] if it is none."""
    rows: list[str] = []
    for line in lines[at:]:
        if _LOWER.match(line):
            return rows
        inside = _ROW.match(line)
        if inside is None:
            return []
        rows.append(inside["inside"].rstrip())
    return []


def _entries(rows: list[str]) -> list[str]:
    """The rows of a table, one for each entry: its tag, and its text after a gap."""
    filled = [row for row in rows if row.strip()]
    starts = _columns(filled)
    if len(starts) < 2:
        return [f"  {row.strip()}" if row.strip() else "" for row in rows]
    entries: list[list[str]] = []
    for row in filled:
        cells = _cells(row, starts)
        if not entries or _begins(cells):
            entries.append(cells)
        else:
            entries[-1] = [
                _joined(before, more, n == len(cells) - 1)
                for n, (before, more) in enumerate(zip(entries[-1], cells, strict=True))
            ]
    return [_line(cells) for cells in entries]


def _columns(rows: list[str]) -> list[int]:
    """Where columns begin: after blanks that all rows have."""
    width = max((len(row) for row in rows), default=0)
    padded = [row.ljust(width) for row in rows]
    is_blank = [all(row[at] == " " for row in padded) for at in range(width)]
    starts: list[int] = []
    blanks = _GUTTER  # the edge
    for at in range(width):
        if is_blank[at]:
            blanks += 1
            continue
        if blanks >= _GUTTER or (starts and _is_mark(padded, starts[-1], at)):
            starts.append(at)
        blanks = 0
    return starts


def _is_mark(rows: list[str], start: int, at: int) -> bool:
    """Whether what stands in a column is nothing but marks of what must be given."""
    return all(row[start:at].strip() in ("", _REQUIRED) for row in rows)


def _cells(row: str, starts: list[int]) -> list[str]:
    ends = [*starts[1:], len(row)]
    return [row[start:end].strip() for start, end in zip(starts, ends, strict=True)]


def _begins(cells: list[str]) -> bool:
    """Whether a row is the first of an entry: a spelling, or a word in the first column."""
    first = next((cell for cell in cells if cell != _REQUIRED), "")
    return bool(first) or any(_FLAG.match(cell) for cell in cells[:-1])


def _joined(before: str, more: str, is_text: bool) -> str:
    """A cell that goes on in the next row; only a text has blanks where it is broken."""
    if not before or not more:
        return before or more
    return f"{before} {more}" if is_text else before + more


def _line(cells: list[str]) -> str:
    """An entry on one line: spellings, what they take, a gap, the text."""
    *tags, text = cells
    tags = [cell for cell in tags if cell and cell != _REQUIRED]
    if not tags:
        return f"  {text}"
    if _FLAG.match(text):  # a column of spellings is the last where no entry has a text
        tags, text = [*tags, text], ""
    flags = [cell for cell in tags if _FLAG.match(cell)]
    if not flags:
        return f"  {tags[0]}  {' '.join([*tags[1:], text])}".rstrip()
    takes = [cell for cell in tags if not _FLAG.match(cell) and cell not in _SWITCH]
    return f"  {' '.join([', '.join(flags), *takes])}  {text}".rstrip()
