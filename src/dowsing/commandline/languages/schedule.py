"""The five fields of a crontab's line (POSIX.1-2017, crontab)."""

from __future__ import annotations

import re

_FIELDS = (
    ("minute", "every minute"),
    ("hour", "every hour"),
    ("day of the month", "every day"),
    ("month", "every month"),
    ("weekday", "on every weekday"),
)
_DAYS = ("Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
_NAMES = {
    "@hourly": "every hour",
    "@daily": "every day at midnight",
    "@weekly": "every Sunday at midnight",
    "@monthly": "on the first of every month",
    "@yearly": "on the first of January",
    "@reboot": "at every start",
}


def parts(value: str) -> list[tuple[str, str]]:
    """Each field."""
    if value in _NAMES:
        return [(value, _NAMES[value])]
    fields = value.split()
    if len(fields) != 5 or not all(re.fullmatch(r"[\d*,/A-Za-z-]+", field) for field in fields):
        return []
    return [
        (field, _field(field, name, every))
        for field, (name, every) in zip(fields, _FIELDS, strict=True)
    ]


def _field(field: str, name: str, every: str) -> str:
    step = re.fullmatch(r"\*/(\d+)", field)
    if field == "*":
        return every
    if step:
        return f"every {step[1]} {name}s"
    if name == "weekday" and re.fullmatch(r"[0-7](?:[-,][0-7])*", field):
        field = re.sub(r"[0-7]", lambda match: _DAYS[int(match[0])], field)
    return f"{name} {field.replace('-', ' to ').replace(',', ', ')}"
