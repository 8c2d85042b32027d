"""Numbers in digits and in words, lengths of time, and sizes, as they are said."""

from __future__ import annotations

import re

from dowsing.knowledge.units import MINUTE, seconds_in

_WORDS = {
    "half an": 0.5,
    "half a": 0.5,
    "a couple of": 2,
    "a few": 3,
    "a dozen": 12,
    "an": 1,
    "a": 1,
    "one": 1,
    "two": 2,
    "three": 3,
    "four": 4,
    "five": 5,
    "six": 6,
    "seven": 7,
    "eight": 8,
    "nine": 9,
    "ten": 10,
    "eleven": 11,
    "twelve": 12,
    "twenty": 20,
    "thirty": 30,
    "fifty": 50,
    "ninety": 90,
    "a hundred": 100,
    "hundred": 100,
    "thousand": 1000,
    "a thousand": 1000,
}
#: A pattern for a number in words.
COUNT = "|".join(sorted(_WORDS, key=lambda word: -len(word)))
#: A pattern for a number in digits or words.
NUMBER = rf"(?:\d+(?:\.\d+)?|{COUNT})"
UNIT_WORDS = r"seconds?|secs?|minutes?|mins?|hours?|days?|nights?|weeks?|fortnights?|months?|years?"
SIZE_UNIT = r"bytes?|[kmgt](?:i?b)?|kilobytes?|megs?|megabytes?|gigs?|gigabytes?|terabytes?"


def number_of(text: str) -> float:
    """The number that digits or words say. Raises KeyError for other words."""
    text = " ".join(text.lower().split())
    return float(text) if re.fullmatch(r"\d+(?:\.\d+)?", text) else float(_WORDS[text])


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
