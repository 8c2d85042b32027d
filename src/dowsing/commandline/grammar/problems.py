"""What is wrong at a place of a line."""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Grade
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.told import Told


class Problem(Record):
    """What is wrong with the word at a place of a line, in characters, how sure that is, and what
    may be meant instead. `mark`: the place within the word where it can be told, None for all of
    it.
    """

    start: int
    end: int
    reason: Told
    nearest: list[str] = []  # noqa: RUF012 - a record is immutable
    grade: Grade = Grade.ERROR
    mark: tuple[int, int] | None = None

    @property
    def marked(self) -> tuple[int, int]:
        """The exact place."""
        return self.mark or (self.start, self.end)
