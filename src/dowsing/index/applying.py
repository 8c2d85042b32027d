"""What of the index applies to a run, as conditions of SQL."""

from __future__ import annotations

from dowsing.model.record import Record


class Applying(Record):
    """What applies. `ranks`: the numbers of the manual folders in use, each with its place in the
    order of search; `others`: those not in use, as a list of SQL; `raised`: entries that are shown
    though the index's own order hides them, `lowered` the reverse.
    """

    ranks: dict[int, int]
    others: str
    raised: frozenset[int]
    lowered: frozenset[int]

    @property
    def applies(self) -> str:
        """See Store.applies."""
        return f" AND e.place NOT IN ({self.others})" if self.others else ""

    @property
    def shown(self) -> str:
        """See Store.shown."""
        condition = "NOT e.hidden"
        if self.raised:
            condition = f"(NOT e.hidden OR e.id IN ({_listed(self.raised)}))"
        if self.lowered:
            condition += f" AND e.id NOT IN ({_listed(self.lowered)})"
        return condition + self.applies


def _listed(numbers: frozenset[int]) -> str:
    return ",".join(map(str, sorted(numbers)))
