"""The one file that is made of all files of commands (knowledge/commands), by compiling.py: what is
read at look-up, or when the index is written, is in a line of its own.
"""

from __future__ import annotations

import os
from enum import IntEnum

from dowsing.knowledge.packs import pack_line

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

FILE = os.path.join(os.path.dirname(os.path.abspath(__file__)), "commands.pack")


class Part(IntEnum):
    """The lines of the file. `NAMES`: programs that are never asked, or asked otherwise, and
    interpreters; `CONVENTIONS`: how commands take their words; `FACTS` of commands by their words;
    `RECIPES` and their `WORDINGS`; `ASKS`: what may be added to a line, by how it is asked
    for, as the index keeps it; `SPELLINGS`: the words of wordings with how often they stand there.
    """

    NAMES = 0
    CONVENTIONS = 1
    FACTS = 2
    RECIPES = 3
    WORDINGS = 4
    ASKS = 5
    SPELLINGS = 6


def part(which: Part) -> Any:
    """What one line of the file holds. Raises Trouble if the file is not there."""
    return pack_line(FILE, which)
