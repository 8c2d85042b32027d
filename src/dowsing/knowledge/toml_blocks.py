"""A file of the user's as its blocks, `[[recipe]]` or `[[note]]`: edited in place, to the byte, one
block at a time.

The user edits these files too: comments, keys that we do not know and parts that are damaged are
none of our business and stay where they are. A comment directly above a block belongs to it.
"""

from __future__ import annotations

import re

from dowsing.model.paths import as_text
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

_HEADER = re.compile(
    r"^[ \t]*\[(?:\[[ \t]*([\w.-]+)[ \t]*\]\]|[ \t]*[\w.-]+[ \t]*\])[ \t]*(?:#.*)?$", re.MULTILINE
)
MOST_JOINED = 40  # lines that look like headers within the texts of one block


class Block(Record):
    """A block: where it begins (with the comment above it) and ends, the line of its header (from
    1), and what it holds.

    `row` is None if it is damaged; `trouble` says then what is wrong, in words of the parser.
    """

    start: int
    end: int
    line: int
    row: dict[str, Any] | None
    trouble: str = ""


def parsed(text: str) -> dict[str, Any]:
    """The tables of a TOML text. Raises ValueError, in one line, for whatever is wrong with it."""
    import tomllib

    if as_text(text) != text:
        raise ValueError("it holds bytes that are no UTF-8")
    try:
        return tomllib.loads(text)
    except RecursionError:
        raise ValueError("it is nested too deep") from None
    except tomllib.TOMLDecodeError:
        raise
    except ValueError as error:  # a number of thousands of digits, a date that is none
        raise ValueError(f"a value cannot be read: {str(error)[:60]}") from None


def blocks_of(text: str, key: str, held: tuple[str, ...] = ()) -> list[Block]:
    """The blocks of that key in the order of the file, each read for itself.

    `holding`: only those are read and given that have one of these texts in them.
    """
    headers = list(_HEADER.finditer(text))
    ends = [*(match.start() for match in headers), len(text)]
    found: list[Block] = []
    number = line = counted = 0
    while number < len(headers):
        start, taken = ends[number], 1
        line, counted = line + text.count("\n", counted, start), start
        wanted = headers[number][1] == key
        if wanted and held:
            wanted = any(text.find(piece, start, ends[number + 1]) >= 0 for piece in held)
        if wanted:
            taken, row, trouble = _read(text, ends[number:], key)
            begin, end = _with_comment(text, start), _with_comment(text, ends[number + taken])
            found.append(Block(begin, end, line + 1, row, trouble))
        number += taken
    return found


def _with_comment(text: str, header: int) -> int:
    """Where a block begins whose header is there: at the comment directly above it, if there is
    one.
    """
    if header >= len(text):
        return header
    start = header
    while start > 0:
        above = text.rfind("\n", 0, start - 1) + 1
        if not text[above:start].lstrip(" \t").startswith("#"):
            break
        start = above
    return start


def _read(text: str, ends: list[int], key: str) -> tuple[int, dict[str, Any] | None, str]:
    """The block at `ends[0]`: of how many parts it is, what it holds, and what is wrong if it is
    damaged.

    What looks like a header may stand in a text of several lines: then the block reads only
    together with what follows.
    """
    trouble = ""
    for taken in range(1, min(MOST_JOINED, len(ends))):
        try:
            row = parsed(text[ends[0] : ends[taken]])[key][0]
        except ValueError as error:
            trouble = trouble or str(error)
        else:
            return (taken, row, "") if isinstance(row, dict) else (taken, None, "it is no table")
    return 1, None, trouble
