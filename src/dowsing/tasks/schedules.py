"""Times of day, and how often something is to happen, as they are said: `every weekday at 6:15`
becomes the five fields of a cron table.
"""

from __future__ import annotations

import re

from dowsing.model.record import Record
from dowsing.tasks.amounts import number_of
from dowsing.tasks.number_words import COUNT
from dowsing.tasks.patterns import Pattern

_FIGURES = "0123456789"
_DAYS = ("sun", "mon", "tue", "wed", "thu", "fri", "sat")
_DAY = r"(?:sun|mon|tues?|wednes|thurs?|fri|satur)days?"
_CLOCK = (
    r"(?:(?P<hour>\d{1,2})(?::(?P<minute>\d\d)(?::\d\d)?)?\s?(?P<half>am|pm|a\.m\.|p\.m\.)"
    r"|(?P<h24>\d{1,2}):(?P<m24>\d\d)(?::\d\d)?|(?P<named>noon|midday|midnight))(?![\w:])"
)
#: What stands in every sentence with a time of day.
_NEAR_A_TIME = (
    *(
        f"{sign}{half}"
        for half in ("am", "pm", " am", " pm", "a.m", "p.m", " a.m", " p.m", ":")
        for sign in _FIGURES
    ),
    *(f"at {sign}" for sign in _FIGURES),
    "noon",
    "midday",
    "midnight",
)
#: A time of day. Figures alone are one only behind `at` and before `o'clock`.
_TIME = Pattern(
    rf"(?<![\w.:/-]){_CLOCK}|(?<=\bat )(?P<alone>\d{{1,2}})(?= ?o['’]?clock|$|,| every| each| daily"
    r"| on| in the)(?: ?o['’]?clock)?",
    *_NEAR_A_TIME,
)
#: How often: a length of time, a day, a day of the week or of the month, or the start of the
#: machine.
_OFTEN = Pattern(
    rf"\b(?:(?:every|each) (?:(?P<count>\d+|{COUNT}) )?(?P<unit>minutes?|hours?)"
    r"|(?P<other>hourly|daily|nightly|weekly|monthly|yearly)"
    r"|(?:every|each) (?P<day>single day|day|night|morning|evening|week|month|year)"
    r"|(?:every |each |on |only on )(?P<work>weekdays?|work(?:ing )?days?|weekends?)"
    rf"|(?P<spans>{_DAY}) (?:to|through|till|until) (?P<ends>{_DAY})"
    rf"|(?:every|each|on) (?P<week>{_DAY}(?:(?:,? and |, ){_DAY})*)"
    rf"|(?P<plural>{_DAY}(?<=s)(?:(?:,? and |, ){_DAY}(?<=s))*)"
    r"|(?:on )?the (?P<date>first|\d{1,2}(?:st|nd|rd|th))(?: day)? of (?:the|every|each) month"
    r"|(?:at|on|after) (?:every |each )?(?P<boot>boot|reboot|startup))\b",
    "every",
    "each",
    "hourly",
    "daily",
    "nightly",
    "weekly",
    "monthly",
    "yearly",
    "weekday",
    "weekend",
    "workday",
    "working day",
    *(f"{day}day" for day in ("sun", "mon", "tues", "wednes", "thurs", "fri", "satur")),
    " of the month",
    "boot",
    "startup",
)
#: The hour of what is said to happen then without a time.
_HOURS = {"morning": 7, "evening": 19}
#: What stands between how often and the time.
_BETWEEN = re.compile(r"[,\s]*(?:at|around|by|starting at|from|on)?\s*\Z")


class Said(Record):
    """What is said in a place of a sentence: the text as programs take it, and the place in
    characters.
    """

    text: str
    start: int
    end: int


def times_in(sentence: str) -> list[Said]:
    """The times of day, as `06:15`."""
    found = []
    for match in _TIME.finditer(sentence):
        text = _time_of(match)
        if text:
            found.append(Said(text, *match.span()))
    return found


def _time_of(match: re.Match[str]) -> str:
    """A time as hours and minutes; "" if there is no such time."""
    if match["named"]:
        return "00:00" if match["named"].lower() == "midnight" else "12:00"
    hour = int(match["hour"] or match["h24"] or match["alone"])
    minute = match["minute"] or match["m24"] or "00"
    if match["half"]:
        if not 1 <= hour <= 12:
            return ""
        hour = hour % 12 + 12 * match["half"].lower().startswith("p")
    whole = match[0] if match["h24"] else f"{hour:02}:{minute}"
    return whole if hour < 24 and int(minute) < 60 else ""


def schedules_in(sentence: str) -> list[Said]:
    """How often something is to happen, as fields of a cron table; the time beside it is part of
    that.
    """
    times = times_in(sentence)
    found = []
    for match in _OFTEN.finditer(sentence):
        start, end = match.span()
        near = next((one for one in times if _are_beside(sentence, one, start, end)), None)
        time = near or (times[0] if len(times) == 1 else None)
        text = _fields(match, time.text if time else "")
        if near is not None:
            start, end = min(start, near.start), max(end, near.end)
        if text:
            found.append(Said(text, start, end))
    return found


def calendar_of(fields: str) -> str | None:
    """The fields of a cron table as a time of a calendar (`Mon..Fri *-*-* 06:15:00`); None for the
    start of the machine, which is none.
    """
    if fields.startswith("@"):
        return None
    minute, hour, day, month, weekday = fields.split(" ")
    days = ",".join(
        "..".join(_DAYS[int(one)].capitalize() for one in part.split("-"))
        for part in weekday.split(",")
        if part != "*"
    )
    date = f"*-{_two_digits(month)}-{_two_digits(day)}"
    return f"{days} {date} {_two_digits(hour)}:{_two_digits(minute)}:00".strip()


def _two_digits(field: str) -> str:
    """A field with two digits; steps from the beginning (`*/5`) begin at 00."""
    return f"00{field[1:]}" if field.startswith("*/") else field.zfill(2) if field != "*" else "*"


def _are_beside(sentence: str, time: Said, start: int, end: int) -> bool:
    """Whether a time and a place have nothing between them but a word that joins them."""
    between = sentence[end : time.start] if time.start >= end else sentence[time.end : start]
    return bool(_BETWEEN.match(between))


def _fields(match: re.Match[str], time: str) -> str:
    """The fields of a cron table; "" if there are none for it."""
    if match["boot"]:
        return "@reboot"
    if match["unit"] or match["other"] == "hourly":
        return _interval(match)
    said = (match["day"] or "").split(" ")[-1] or (match["other"] or "").lower()
    hours, _, minutes = time.partition(":")
    hour, minute = int(hours or _HOURS.get(said, 0)), int(minutes[:2] or 0)
    day = month = weekday = "*"
    if match["date"] or said in ("month", "monthly", "year", "yearly"):
        date = match["date"] or "1"
        day = "1" if date == "first" else date.rstrip("stndrh")
        month = "1" if said.startswith("year") else "*"
    elif said in ("week", "weekly"):
        weekday = "0"
    elif not said:
        weekday = _weekdays(match)
    return f"{minute} {hour} {day} {month} {weekday}"


def _interval(match: re.Match[str]) -> str:
    """The fields for every so many minutes or hours."""
    count = number_of(match["count"]) if match["count"] else 1
    if (match["unit"] or "hour").startswith("hour") and count >= 1:
        return "0 * * * *" if count == 1 else f"0 */{count:g} * * *"
    minutes = round(count * 60) if (match["unit"] or "").startswith("hour") else count
    return "* * * * *" if minutes == 1 else f"*/{minutes:g} * * * *"


def _weekdays(match: re.Match[str]) -> str:
    """The field of the days of the week."""
    if match["work"]:
        return "6,0" if match["work"].lower().startswith("weekend") else "1-5"
    if match["spans"]:
        return f"{_number_of(match['spans'])}-{_number_of(match['ends'])}"
    days = re.findall(_DAY, match["week"] or match["plural"], re.IGNORECASE)
    return ",".join(str(_number_of(day)) for day in days)


def _number_of(day: str) -> int:
    return _DAYS.index(day[:3].lower())
