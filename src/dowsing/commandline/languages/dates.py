"""Formats of dates and times: the conversions of strftime (POSIX.1-2017 and the additions of the
GNU C library and of GNU date).
"""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

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
_FRACTIONS = {"3": "milliseconds", "6": "microseconds", "9": "nanoseconds"}
_FLAGS = {
    "-": "not padded",
    "_": "padded with blanks",
    "0": "padded with zeros",
    "^": "in capitals",
}
_TOKEN = re.compile(r"%([-_0^#+]*)(\d*)[EO]?:{0,3}([A-Za-z%])|[^%]+|%")


def read(value: str, dialect: str = "") -> Reading:
    """Each conversion, and the text between."""
    cutter = Cutter(value)
    cutter.cut(1 if value.startswith("+") else 0)
    told_any = False
    for match in _TOKEN.finditer(value, cutter.at):
        if match[3]:
            says = _conversion(match)
            told_any = told_any or bool(says)
            cutter.cut(match.end(), says)
        else:
            cutter.cut(match.end(), "as it stands" if match[0].strip("-:/. T_,") else "")
    return cutter.finish() if told_any else NOTHING


def _conversion(match: re.Match[str]) -> str:
    flags, width, letter = match.groups()
    if letter == "N" and width in _FRACTIONS:
        return f"{_FRACTIONS[width]}, {width} digits"
    if letter == "N" and width:
        return f"the first {width} digits of the nanoseconds"
    says = _CONVERSIONS.get(letter, "")
    notes = [_FLAGS[flag] for flag in flags if flag in _FLAGS]
    if says and width:
        notes.append(f"{width} wide")
    return ", ".join([says, *notes]) if says else ""
