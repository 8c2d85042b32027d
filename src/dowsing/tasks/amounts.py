"""Numbers in digits and in words, lengths of time, and sizes, as they are said."""

from __future__ import annotations

import re

from dowsing.knowledge.units import MINUTE, seconds_in
from dowsing.tasks.number_words import COUNT, spoken_number

#: A pattern for a number in digits or words.
NUMBER = rf"(?:\d+(?:\.\d+)?|{COUNT})"
UNIT_WORDS = r"seconds?|secs?|minutes?|mins?|hours?|days?|nights?|weeks?|fortnights?|months?|years?"
SIZE_UNIT = r"bytes?|[kmgt](?:i?b)?|kilobytes?|megs?|megabytes?|gigs?|gigabytes?|terabytes?"


def number_of(text: str) -> float:
    """The number that digits or words say. Raises KeyError for other words."""
    text = text.strip()
    return float(text) if re.fullmatch(r"\d+(?:\.\d+)?", text) else spoken_number(text)


def minutes_of(number: str, unit: str) -> float:
    """A length of time in minutes; a month is 30 days, a year 365."""
    return number_of(number) * seconds_in(unit) / MINUTE


def size_of(number: str, unit: str) -> str:
    """A size as find writes it: a whole number with `c`, `k`, `M` or `G` behind it."""
    letter = {"b": "c", "k": "k", "m": "M", "g": "G", "t": "G"}[unit.lower()[0]]
    value = number_of(number) * (1024 if unit.lower()[0] == "t" else 1)
    smaller = {"G": "M", "M": "k", "k": "c"}
    while value != int(value) and letter in smaller:
        value, letter = value * 1024, smaller[letter]
    return f"{int(value)}{letter}"
