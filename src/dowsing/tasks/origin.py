"""Where a line that is shown is from."""

from __future__ import annotations

from enum import StrEnum

from dowsing.model.record import Record


class OriginKind(StrEnum):
    """What a line is made from."""

    RECIPE = "recipe"
    MANUAL = "manual"  # an example of a page
    OPTION = "option"  # put together from forms and options
    SAVED = "saved"  # kept by the user


class Origin(Record):
    """Where an answer is from; `page` documents its command, `where` names the file, page or
    option.
    """

    kind: OriginKind
    page: str | None
    where: str
