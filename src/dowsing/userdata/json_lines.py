"""Files of JSON Lines, a record of texts in each line. Lines that make no sense are passed over."""

from __future__ import annotations

import json

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Sequence
    from typing import TypeVar

    Kept = TypeVar("Kept", bound=Record)


def read_records(text: str, kind: type[Kept]) -> list[Kept]:
    """The records of a file, in its order."""
    found = []
    for line in text.split("\n"):
        try:
            row = json.loads(line)
            found.append(kind(**{name: str(row[name]) for name in kind._fields}))
        except (ValueError, TypeError, KeyError):
            continue
    return found


def written_records(records: Sequence[Record]) -> str:
    """The text of a file with these records."""
    return "".join(
        json.dumps({name: getattr(one, name) for name in one._fields}) + "\n" for one in records
    )
