"""Commands that many people install, told of where they are not: absent.toml, whose head tells the
format. It is read when the index without pages is made; look-ups read the index.
"""

from __future__ import annotations

import os

from dowsing.model.record import Record

_FILE = os.path.join(os.path.dirname(os.path.abspath(__file__)), "absent.toml")


class AbsentCommand(Record):
    """A command. `section` of its manual; `package` as absent.toml has it; `does`: what it does, in
    the third person; `usual`: the line that is used most, with `<places>`; `phrases`: how people
    ask for it.
    """

    name: str
    section: str
    package: str
    does: str
    usual: str
    phrases: list[str] = []  # noqa: RUF012 - a record is immutable


def read_absent() -> list[AbsentCommand]:
    """All of them, by name."""
    import tomllib

    with open(_FILE, "rb") as file:
        rows = tomllib.load(file)
    return [
        AbsentCommand(
            label.rpartition("(")[0],
            label.rpartition("(")[2].rstrip(")"),
            row["package"],
            row["does"],
            row["usual"],
            [phrase.strip() for phrase in row["phrases"].split(";")],
        )
        for label, row in rows.items()
    ]
