"""Numeric expressions."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dowsing.readers.roff.numbers import columns, evaluate, formatted


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("5", 5),
        ("-5", -5),
        ("+5", 5),
        ("2+3*4", 20),
        ("2+(3*4)", 14),
        ("7/2", 3),
        ("-7/2", -3),
        ("7%3", 1),
        ("5/0", 0),
        ("5%0", 0),
        ("1i", 240),
        ("2n", 48),
        ("1v", 40),
        ("0.5i", 120),
        (".5i", 120),
        ("3<4", 1),
        ("3>4", 0),
        ("3<=3", 1),
        ("3>=4", 0),
        ("3=3", 1),
        ("3==4", 0),
        ("3<>4", 1),
        ("3<?4", 3),
        ("3>?4", 4),
        ("1&0", 0),
        ("1&1", 1),
        ("0:1", 1),
        ("!0", 1),
        ("!3", 0),
        ("--4", 4),
        ("((((2))))", 2),
        ("x", None),
        ("", None),
        ("(", None),
        ("2+", 2),
        ("99999999999", 2**31 - 1),
    ],
)
def test_values(text: str, value: int | None) -> None:
    assert evaluate(text)[0] == value


def test_where_an_expression_ends() -> None:
    assert evaluate("12 rest") == (12, 2)
    assert evaluate("3*2x") == (6, 3)


def test_columns() -> None:
    assert (
        columns("4"),
        columns("4n"),
        columns("1i"),
        columns("-4"),
        columns("", 7.0),
        columns("x", 2.0),
    ) == (
        4,
        4,
        10,
        -4,
        7,
        2,
    )


@pytest.mark.parametrize(
    ("value", "style", "text"),
    [
        (4, "1", "4"),
        (7, "001", "007"),
        (1994, "i", "mcmxciv"),
        (2026, "I", "MMXXVI"),
        (1, "a", "a"),
        (26, "a", "z"),
        (27, "a", "aa"),
        (28, "A", "AB"),
        (0, "i", "0"),
        (-3, "a", "-3"),
    ],
)
def test_formats(value: int, style: str, text: str) -> None:
    assert formatted(value, style) == text


@given(st.text(alphabet="0123456789+-*/%()<>=&:!inmpv. |", max_size=60))
def test_any_expression_has_an_end(text: str) -> None:
    value, end = evaluate(text)
    assert 0 <= end <= len(text)
    assert value is None or -(2**31) <= value < 2**31
