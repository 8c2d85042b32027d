"""Numbers in words."""

from __future__ import annotations

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dowsing.tasks.amounts import minutes_of, number_of
from dowsing.tasks.number_words import CARDINAL, COUNT, HINTS, spoken_number

ONES = (
    "one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen "
    "sixteen seventeen eighteen nineteen"
).split()
TENS = "twenty thirty forty fifty sixty seventy eighty ninety".split()


def spelled(number: int, joint: str = " ", also: str = " and ") -> str:
    """A number from 1 to 9,999 in words."""
    if number < 20:
        return ONES[number - 1]
    if number < 100:
        rest = number % 10
        return TENS[number // 10 - 2] + (joint + ONES[rest - 1] if rest else "")
    size, name = (100, "hundred") if number < 1000 else (1000, "thousand")
    rest = number % size
    head = f"{spelled(number // size, joint, also)} {name}"
    return head + ((also if rest < 100 else " ") + spelled(rest, joint, also) if rest else "")


@given(st.integers(1, 9999), st.sampled_from(" -"), st.sampled_from([" and ", " "]))
def test_every_number_is_what_its_words_say(number: int, joint: str, also: str) -> None:
    words = spelled(number, joint, also)
    assert spoken_number(words) == number
    assert re.fullmatch(COUNT, words), words
    assert number == 1 or re.fullmatch(CARDINAL, words), words
    assert number == 1 or any(hint in words for hint in HINTS)


@pytest.mark.parametrize(
    ("words", "number"),
    [
        ("a dozen", 12),
        ("two dozen", 24),
        ("half a dozen", 6),
        ("half an", 0.5),
        ("one and a half", 1.5),
        ("a hundred", 100),
        ("a hundred and one", 101),
        ("twelve hundred", 1200),
        ("a couple of", 2),
        ("fourty", 40),
        ("An", 1),
    ],
)
def test_what_else_is_said(words: str, number: float) -> None:
    assert number_of(words) == number
    assert re.fullmatch(COUNT, words.lower())


def test_what_is_no_number() -> None:
    assert not re.fullmatch(CARDINAL, "one") and not re.fullmatch(CARDINAL, "a")
    for words in ("", "and", "some", "hundreds of"):
        with pytest.raises(KeyError):
            number_of(words)


def test_lengths_of_time() -> None:
    assert minutes_of("half an", "hour") == 30
    assert minutes_of("sixty", "days") == 60 * 24 * 60
    assert minutes_of("forty-five", "minutes") == 45
