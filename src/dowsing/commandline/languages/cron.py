"""The five fields of a crontab's line (POSIX.1-2017, crontab; crontab(5) for steps and names), with
the times at which it is due next.
"""

from __future__ import annotations

import re
from datetime import datetime, timedelta

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading, listed

_FIELDS = (
    ("minute", "every minute", 0, 59),
    ("hour", "every hour", 0, 23),
    ("day of the month", "every day", 1, 31),
    ("month", "every month", 1, 12),
    ("weekday", "on every weekday", 0, 7),
)
_DAYS = ("Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
_MONTHS = (
    "",
    "January",
    "February",
    "March",
    "April",
    "May",
    "June",
    "July",
    "August",
    "September",
    "October",
    "November",
    "December",
)
_NAMES = {
    "@hourly": "every hour",
    "@daily": "every day at midnight",
    "@midnight": "every day at midnight",
    "@weekly": "every Sunday at midnight",
    "@monthly": "on the first of every month",
    "@yearly": "on the first of January",
    "@annually": "on the first of January",
    "@reboot": "at every start",
}
_ITEM = re.compile(r"(\*|[\dA-Za-z]+)(?:-([\dA-Za-z]+))?(?:/(\d+))?\Z")
_SHOWN = 3  # times that are told
_FAR = 366 * 8  # days that are looked through


def read(value: str, dialect: str = "") -> Reading:
    """Each field, and the whole."""
    cutter = Cutter(value)
    if value in _NAMES:
        cutter.cut(len(value), _NAMES[value])
        return cutter.finish(_NAMES[value])
    fields = list(re.finditer(r"\S+", value))
    if len(fields) != 5:
        return NOTHING
    sets = [_numbers(field[0], n) for n, field in enumerate(fields)]
    if not all(sets):
        return NOTHING
    for field, (name, every, _, _) in zip(fields, _FIELDS, strict=True):
        cutter.cut(field.start())
        cutter.cut(field.end(), _field(field[0], name, every))
    return cutter.finish(_whole([field[0] for field in fields]))


def next_times(value: str, after: datetime) -> list[datetime]:
    """The next three times at which it is due, in the time zone of `after`; [] if none is near, or
    it is no schedule.
    """
    fields = _expanded(value).split()
    sets = [_numbers(field, n) for n, field in enumerate(fields)] if len(fields) == 5 else []
    if not sets or not all(sets):
        return []
    minutes, hours, days, months, weekdays = sets
    weekdays = {day % 7 for day in weekdays}
    begin = after.replace(second=0, microsecond=0) + timedelta(minutes=1)
    # crontab(5): where both days are limited, either will do
    either = fields[2][0] != "*" and fields[4][0] != "*"
    found: list[datetime] = []
    for n in range(_FAR):
        day = begin + timedelta(days=n)
        in_month, in_week = day.day in days, day.isoweekday() % 7 in weekdays
        fits = (in_month or in_week) if either else (in_month and in_week)
        if day.month not in months or not fits:
            continue
        for hour in sorted(hours):
            for minute in sorted(minutes):
                due = day.replace(hour=hour, minute=minute)
                if due >= begin:
                    found.append(due)
                if len(found) == _SHOWN:
                    return found
    return found


def _expanded(value: str) -> str:
    return {
        "@hourly": "0 * * * *",
        "@daily": "0 0 * * *",
        "@midnight": "0 0 * * *",
        "@weekly": "0 0 * * 0",
        "@monthly": "0 0 1 * *",
        "@yearly": "0 0 1 1 *",
        "@annually": "0 0 1 1 *",
    }.get(value, value)


def _numbers(field: str, n: int) -> set[int]:
    """The numbers that a field stands for; empty if it is none."""
    _, _, least, most = _FIELDS[n]
    found: set[int] = set()
    for item in field.split(","):
        match = _ITEM.match(item)
        if not match:
            return set()
        first, last, step = match.groups()
        low = least if first == "*" else _number(first, n)
        high = most if first == "*" or (step and not last) else low
        high = _number(last, n) if last else high
        if not least <= low <= high <= most or step == "0":
            return set()
        found |= set(range(low, high + 1, int(step or 1)))
    return found


def _number(text: str, n: int) -> int:
    if text.isdecimal():
        return int(text)
    names = [name[:3].lower() for name in (_MONTHS if n == 3 else _DAYS if n == 4 else ())]
    return names.index(text.lower()) if text.lower() in names else -1


#: What is counted of a field, where that is not its name.
_COUNTED = {"day of the month": "day"}


def _field(field: str, name: str, every: str) -> str:
    step = re.fullmatch(r"\*/(\d+)", field)
    if field == "*":
        return every
    if step:
        return f"every {step[1]} {_COUNTED.get(name, name)}s" if step[1] != "1" else every
    shown = re.sub(r"\d+|[A-Za-z]+", lambda match: _shown(match[0], name), field)
    shown = re.sub(r"/(\w+)", r", every \1", shown)
    return f"{name} {shown.replace('-', ' to ').replace(',', ', ').replace(',  ', ', ')}"


def _shown(text: str, name: str) -> str:
    if name == "weekday":
        return _DAYS[_number(text, 4)]
    return _MONTHS[_number(text, 3)] if name == "month" else text


def _whole(fields: list[str]) -> str:
    """The schedule in a phrase, where it is a usual one: `every Monday at 06:30`."""
    minute, hour, day, month, weekday = fields
    when = _clock(minute, hour)
    if not when:
        return ""
    on = []
    if weekday != "*":
        names = re.sub(r"\d|[A-Za-z]+", lambda match: _shown(match[0], "weekday"), weekday)
        on.append(f"on {listed(names.replace('-', ' to ').split(','))}")
    if day != "*":
        on.append(f"on day {day.replace('-', ' to ')}" + ("" if month != "*" else " of the month"))
    if month != "*":
        on.append(
            f"of {_field(month, 'month', '')[6:]}"
            if day != "*"
            else f"in {_field(month, 'month', '')[6:]}"
        )
    if "/" in day + month + weekday:
        return ""
    joint = " or " if weekday != "*" and day != "*" else " "
    if not on:
        is_at_one_time = minute.isdecimal() and hour.isdecimal()
        return f"every day {when}" if is_at_one_time else when
    return f"{when} {joint.join(on)}"


def _clock(minute: str, hour: str) -> str:
    if minute.isdecimal() and hour.isdecimal():
        return f"at {int(hour):02}:{int(minute):02}"
    if minute == "*" and hour == "*":
        return "every minute"
    step = re.fullmatch(r"\*/(\d+)", minute)
    if step and hour == "*":
        return f"every {step[1]} minutes"
    if minute.isdecimal() and hour == "*":
        return f"every hour at minute {minute}" if minute != "0" else "every full hour"
    step = re.fullmatch(r"\*/(\d+)", hour)
    if minute.isdecimal() and step:
        return f"every {step[1]} hours" + ("" if minute == "0" else f", at minute {minute}")
    return ""
