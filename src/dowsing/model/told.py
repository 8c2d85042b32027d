"""What the program says of its own accord, as codes: the words are made by the renderers
(render/phrases.py).
"""

from __future__ import annotations

from enum import Enum

from dowsing.model.record import Record


class Code(Enum):
    """Base of the closed sets of such sayings."""


class Told(Record):
    """A saying: which it is, and what goes into it, in order: words of the user, of a page or of
    this machine, or sayings.
    """

    code: Code
    arguments: tuple[str | Told, ...] = ()


def told(code: Code, *arguments: str | Told) -> Told:
    """A saying with what goes into it."""
    return Told(code, arguments)
