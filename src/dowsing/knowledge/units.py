"""Units of time and size: how long and how large each is."""

from __future__ import annotations

MINUTE, HOUR, DAY = 60, 3_600, 86_400  # seconds

#: Lengths of time in seconds; a month is 30 days, a year 365.
SECONDS_IN = {
    "second": 1,
    "minute": MINUTE,
    "hour": HOUR,
    "day": DAY,
    "night": DAY,
    "week": 7 * DAY,
    "fortnight": 14 * DAY,
    "month": 30 * DAY,
    "year": 365 * DAY,
}
_SHORT = {"sec": "second", "min": "minute"}


def seconds_in(unit: str) -> int:
    """How many seconds a unit has, as it is said: `mins`, `hour`, `days`. Raises KeyError for what
    is none.
    """
    one = unit.lower().removesuffix("s")
    return SECONDS_IN[_SHORT.get(one, one)]


def is_time(unit: str) -> bool:
    """Whether a word is a unit of time."""
    one = unit.lower().removesuffix("s")
    return _SHORT.get(one, one) in SECONDS_IN
