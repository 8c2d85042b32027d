"""Where a line that is shown is from."""

from __future__ import annotations

from dowsing.model.record import Record


class Origin(Record):
    """Where an answer is from: `kind` is recipe, manual, option or saved; `page` the page that documents its command."""

    kind: str
    page: str | None
    where: str
