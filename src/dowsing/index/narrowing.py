"""Which entries are meant, as a condition of SQL that goes on from another."""

from __future__ import annotations

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable


class Narrowing(Record):
    """Which entries are meant: a condition of SQL that goes on from another, and the values in
    it.
    """

    condition: str = ""
    values: list[str] = []  # noqa: RUF012 - a record is immutable

    def __bool__(self) -> bool:
        return bool(self.condition)


ALL = Narrowing()


def narrowing(
    columns: dict[str, str] | None = None,
    section: str = "",
    numbers: list[int] | None = None,
    without: str = "",
) -> Narrowing:
    """The entries that fulfil all of these, each a name or a shell pattern in any case, "" for all.

    `columns`: package, family and kind. A section takes in those with a suffix: `3` has `3pm` in
    it. `numbers`: only these entries; `without`: none of this family.
    """
    condition, values = "", list[str]()
    if numbers is not None:
        condition += " AND e.id IN (SELECT value FROM json_each(?))"
        values.append(listed(numbers))
    for column, value in (columns or {}).items():
        if value:
            condition += f" AND lower(e.{column}) GLOB ?"
            values.append(value.lower())
    if without:
        condition += " AND (e.family IS NULL OR lower(e.family) NOT GLOB ?)"
        values.append(without.lower())
    if section:
        condition += " AND (e.section GLOB ? OR e.section GLOB ?)"
        values += [section, section + "[a-zA-Z]*"]
    return Narrowing(condition, values)


def listed(numbers: Iterable[int]) -> str:
    """Numbers as one value for `json_each`: there may be more of them than a statement takes
    values.
    """
    return f"[{','.join(map(str, numbers))}]"
