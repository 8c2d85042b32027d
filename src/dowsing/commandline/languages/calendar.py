"""Times at which something is due, as systemd writes them: `Mon..Fri *-*-* 06:00`
(systemd.time).
"""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading, listed

_WORDS = {
    "minutely": "every minute",
    "hourly": "every hour",
    "daily": "every day at midnight",
    "weekly": "every Monday at midnight",
    "monthly": "on the first of every month at midnight",
    "yearly": "on the first of January at midnight",
    "annually": "on the first of January at midnight",
    "quarterly": "on the first of every quarter at midnight",
    "semiannually": "on the first of January and July at midnight",
}
_DAYS = {
    day[:3].lower(): day
    for day in "Monday Tuesday Wednesday Thursday Friday Saturday Sunday".split()
}
_SHAPE = re.compile(
    r"(?:(?P<days>[A-Za-z]{3,9}(?:[.,]+[A-Za-z]{3,9})*)\s*)?(?:(?P<date>[\d*/.,-]*[\d*]-[\d*/.,~-]+)\s*)?"
    r"(?:(?P<time>[\d*/.,]+:[\d*/.,]+(?::[\d*/.,]+)?)\s*)?(?P<zone>[A-Z][\w/]+)?"
)


_EVERY_DAY = "every day"


def read(value: str, dialect: str = "") -> Reading:
    """The days, the date and the hour."""
    cutter = Cutter(value)
    if value.lower() in _WORDS:
        says = _WORDS[value.lower()]
        cutter.cut(len(value), says)
        return cutter.finish(says)
    match = _SHAPE.fullmatch(value)
    if not match or not value.strip():
        return NOTHING
    said = []
    for name, words in (("days", _days), ("date", _date), ("time", _time)):
        text = match[name]
        if not text:
            continue
        says = words(text)
        if not says:
            return NOTHING
        is_every_day = name == "date" and says is _EVERY_DAY
        said += [] if is_every_day and match["days"] else [says]
        cutter.cut(match.start(name))
        cutter.cut(match.end(name), says)
    if match["zone"]:
        cutter.cut(match.start("zone"))
        cutter.cut(len(value), "in that time zone")
    if not match["time"]:
        said.append("at midnight")
    return cutter.finish(" ".join(said))


def _days(text: str) -> str:
    names = []
    for one in text.split(","):
        ends = [_DAYS.get(day[:3].lower()) for day in one.split("..")]
        if None in ends:
            return ""
        names.append(" to ".join(end for end in ends if end))
    return f"on {listed(names)}"


def _date(text: str) -> str:
    fields = re.split(r"(?<!\.)-(?!\.)", text)
    if len(fields) == 2:
        fields = ["*", *fields]
    if len(fields) != 3:
        return ""
    year, month, day = fields
    if fields == ["*", "*", "*"]:
        return _EVERY_DAY
    said = f"on day {_numbers(day)}" if day != "*" else "every day"
    said += (
        f" of month {_numbers(month)}"
        if month != "*"
        else (" of every month" if day != "*" else "")
    )
    return said + (f" of {_numbers(year)}" if year != "*" else "")


def _time(text: str) -> str:
    fields = text.split(":")
    if all(field.isdecimal() for field in fields):
        return f"at {text}"
    hour, minute = fields[:2]
    if hour == "*" and minute == "*":
        return "every minute"
    if hour == "*":
        repeated = re.fullmatch(r"(?:\*|0+)/(\d+)", minute)
        if repeated:
            return f"every {repeated[1]} minutes"
        return (
            "every full hour"
            if minute.strip("0") == ""
            else f"every hour at minute {_numbers(minute)}"
        )
    return f"at hour {_numbers(hour)}, minute {_numbers(minute)}"


def _numbers(text: str) -> str:
    repeated = re.fullmatch(r"(\*|\d+)/(\d+)", text)
    if repeated:
        begin = "" if repeated[1] in ("*", "0", "00") else f" from {repeated[1]}"
        return f"every {repeated[2]}{begin}"
    text = re.sub(r"\b0+(?=\d)", "", text)
    return text.replace("..", " to ").replace(",", ", ")
