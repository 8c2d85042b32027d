"""Messages of the system and of shells with what they mean: messages.toml, whose head tells the
format.
"""

from __future__ import annotations

import re

from dowsing.model.record import Record


class MessageFact(Record):
    """A message: what it means, its name in errno(3) ("" without one), what usually causes it, and
    the names to look at.
    """

    says: str
    code: str = ""
    causes: list[str] = []  # noqa: RUF012 - a record is immutable
    see: list[str] = []  # noqa: RUF012


def _tables() -> dict[str, object]:
    import os
    import tomllib

    path = os.path.join(os.path.dirname(__file__), "messages.toml")
    with open(path, "rb") as file:
        return tomllib.load(file)


def message_fact(text: str) -> MessageFact | None:
    """What a message means that stands in a text; of two the one that is written first in the file
    counts. None if there is none that is known.
    """
    rows = _tables()["message"]
    assert isinstance(rows, list)
    for row in rows:
        if re.search(row["match"], text, re.IGNORECASE):
            return MessageFact(
                row["says"], row.get("code", ""), row.get("causes", []), row.get("see", [])
            )
    return None


def status_words(status: str) -> str:
    """What an exit status means, "" if that depends on the command."""
    table = _tables()["status"]
    assert isinstance(table, dict)
    number = int(status)
    told = table.get(status)
    if told is None and 128 < number < 160:
        return f"ended by signal {number - 128}"
    return str(told or "")
