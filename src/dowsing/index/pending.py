"""What came and went since the index was made, as far as a look-up needs it before it is taken
up.
"""

from __future__ import annotations

from typing import Protocol

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.entry import Entry


class Pending(Protocol):
    """Corrects what the index says of a name; ingest/newcomers.py does it."""

    @property
    def count(self) -> int:
        """How many page files came and went."""
        ...

    def corrected(self, name: str, section: str, known: list[Entry]) -> list[Entry]:
        """The entries of that name and section ("" for any): those that the index knows less those
        whose pages are gone, with those that came.
        """
        ...

    def is_outdated(self, path: str) -> bool:
        """Whether the page of that path is not the one that was read."""
        ...
