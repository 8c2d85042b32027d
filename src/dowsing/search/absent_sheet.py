"""A command that is not here, with what is known of it all the same."""

from __future__ import annotations

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Example, Option


class AbsentSheet(Record):
    """A command that is not here. `does`: what it does, "" if only its recipes and options are
    known; `usual`: the line used most; `getting`: how it is brought, "" if that is not known;
    `options` those used most; `same`: names of commands that do the same.
    """

    name: str
    does: str
    usual: str
    getting: str
    options: list[Option]
    examples: list[Example]
    same: list[str]
