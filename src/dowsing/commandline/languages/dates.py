"""Formats of dates and times: the conversions of strftime (POSIX.1-2017 and the additions of the
GNU C library).
"""

from __future__ import annotations

import re

_CONVERSIONS = {
    "a": "weekday, short",
    "A": "weekday",
    "b": "month, short",
    "B": "month by name",
    "c": "date and time, as is usual here",
    "C": "century",
    "d": "day of the month",
    "D": "month/day/year",
    "e": "day of the month, blank-padded",
    "F": "year-month-day",
    "g": "year of the ISO week, two digits",
    "G": "year of the ISO week",
    "h": "month, short",
    "H": "hour, 00-23",
    "I": "hour, 01-12",
    "j": "day of the year",
    "k": "hour, blank-padded",
    "l": "hour 1-12, blank-padded",
    "m": "month, 01-12",
    "M": "minute",
    "n": "a new line",
    "N": "nanoseconds",
    "p": "AM or PM",
    "P": "am or pm",
    "q": "quarter",
    "r": "time with AM or PM",
    "R": "hour:minute",
    "s": "seconds since 1970",
    "S": "second",
    "t": "a tab",
    "T": "hour:minute:second",
    "u": "weekday, 1 is Monday",
    "U": "week of the year, from Sunday",
    "V": "ISO week",
    "w": "weekday, 0 is Sunday",
    "W": "week of the year, from Monday",
    "x": "date, as is usual here",
    "X": "time, as is usual here",
    "y": "year, two digits",
    "Y": "year",
    "z": "time zone as +hhmm",
    "Z": "time zone by name",
    "%": "a percent sign",
}
_TOKEN = re.compile(r"%[-_0^#+]*\d*[EO]?:{0,3}([A-Za-z%])|[^%]+|%")


def parts(value: str) -> list[tuple[str, str]]:
    """Each conversion, and the text between."""
    text = value.removeprefix("+")
    found = []
    for match in _TOKEN.finditer(text):
        if match[1]:
            found.append((match[0], _CONVERSIONS.get(match[1], "")))
        elif match[0].strip("-:/. T_,"):
            found.append((match[0], "as it stands"))
    return found if any(says and says != "as it stands" for _, says in found) else []
