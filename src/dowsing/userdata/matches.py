"""What of the user's own answers a search."""

from __future__ import annotations

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.knowledge.recipes import Recipe
    from dowsing.userdata.remarks import Remark


class KeptMatches(Record):
    """Lines and remarks that have all the words of a search."""

    lines: list[Recipe]
    notes: list[Remark]

    @property
    def any(self) -> bool:
        """Whether there is anything."""
        return bool(self.lines or self.notes)
