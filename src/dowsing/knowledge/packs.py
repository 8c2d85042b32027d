"""Files that are made of others and ship with the program: a value a line, as JSON, so that a
look-up parses only the lines that it wants.
"""

from __future__ import annotations

import json

from dowsing.model.errors import Trouble
from dowsing.model.replacing import replace_text

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable
    from typing import Any


def pack_line(path: str, number: int) -> Any:
    """What a line holds, the first being 0. Raises Trouble if the file is not there."""
    try:
        with open(path, encoding="utf-8") as file:
            for _ in range(number):
                file.readline()
            return json.loads(file.readline())
    except FileNotFoundError:
        raise Trouble("this installation lacks a file; install Dowsing again") from None


def write_pack(path: str, rows: Iterable[object]) -> None:
    """Make the file, in one step. Raises OSError."""
    lines = [json.dumps(row, ensure_ascii=False, separators=(",", ":")) for row in rows]
    replace_text(path, "".join(f"{line}\n" for line in lines), lasting=False)
