"""Dates and times in words, as date, touch, find and git take them: `2 weeks ago`, `next friday`,
`@1700000000`, `2024-05-01 12:00`.
"""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Part, Reading, counted

_UNITS = "second minute hour day week fortnight month year".split()
_UNIT = r"(?:sec(?:ond)?|min(?:ute)?|hour|day|week|fortnight|month|year)s?"
_DAYS = "monday tuesday wednesday thursday friday saturday sunday".split()
_WORDS = {
    "now": "now",
    "today": "today",
    "yesterday": "yesterday, 24 hours ago",
    "tomorrow": "tomorrow, in 24 hours",
    "midnight": "midnight",
    "noon": "noon",
}


def read(value: str, dialect: str = "") -> Reading:
    """The time that is meant, where it takes a word to say so. With the dialect `past` a length of
    time is one that has passed.
    """
    says = _words(re.sub(r"[._]", " ", value.strip().lower()), value.strip())
    if dialect == "past":
        says = re.sub(r" from now\Z", " ago", says)
    if says == value:
        return Reading([], says)
    phrase = value if says.startswith(value) else says
    return Reading([Part(value, says)], phrase) if says else NOTHING


def _words(low: str, value: str) -> str:
    if low in _WORDS:
        return _WORDS[low]
    epoch = re.fullmatch(r"@(\d+)", value)
    if epoch:
        return f"{epoch[1]} seconds after the beginning of 1970, {_epoch(int(epoch[1]))}"
    ago = re.fullmatch(rf"([-+]?)\s*(\d+|an?)\s*({_UNIT})(\s+ago)?", low)
    if ago:
        number = "1" if ago[2].startswith("a") else ago[2]
        amount = counted(number, _full(ago[3]))
        is_past = bool(ago[4]) != (ago[1] == "-")
        return f"{amount} ago" if is_past else f"{amount} from now"
    last = re.fullmatch(rf"(last|next)\s+({'|'.join(_DAYS)}|{_UNIT})", low)
    if last:
        return _relative(last[1], last[2])
    date = re.fullmatch(r"(\d{4}-\d\d-\d\d)(?:[t ](\d\d:\d\d(?::\d\d)?)(z)?)?", low)
    if date:
        return f"{date[1]}, {date[2] or '00:00'}{' UTC' if date[3] else ''}"
    return ""


def _full(unit: str) -> str:
    bare = unit.rstrip("s")
    return next(one for one in _UNITS if one.startswith(bare))


def _relative(which: str, what: str) -> str:
    if what in _DAYS:
        return f"the {'last' if which == 'last' else 'next'} {what.capitalize()}"
    unit = _full(what)
    return f"1 {unit} {'ago' if which == 'last' else 'from now'}"


def _epoch(seconds: int) -> str:
    from datetime import UTC, datetime

    return f"{datetime.fromtimestamp(seconds, UTC):%Y-%m-%d %H:%M:%S} UTC"
