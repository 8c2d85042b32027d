"""One of two commands that are held against each other."""

from __future__ import annotations

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Option
    from dowsing.model.entry import Entry


class Side(Record):
    """One of two commands. `form` is the way to write it, `own` the options of its card that the
    other has not.
    """

    entry: Entry
    summary: str
    form: str
    own: list[Option]
