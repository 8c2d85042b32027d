"""Values in small languages: `readings.tsv` has language, value, the whole in a phrase, its parts
with what they do, and what is wrong. Any value at all is read without harm, and none of it is lost.
"""

from __future__ import annotations

from datetime import datetime
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dowsing.commandline.languages import LANGUAGES, read_value
from dowsing.commandline.languages.braces import expanded
from dowsing.commandline.languages.cron import next_times
from dowsing.commandline.languages.reading import Part
from dowsing.render.phrases import words


def _rows() -> list[list[str]]:
    text = (Path(__file__).parent / "readings.tsv").read_text("utf-8")
    rows = [line.split("\t") for line in text.splitlines()]
    return [row + [""] * (5 - len(row)) for row in rows]


def _plain(text: str) -> str:
    """A field of the file as it is meant: `\\n`, `\\t` and `\\\\` stand for characters."""
    return text.replace("\\\\", "\0").replace("\\n", "\n").replace("\\t", "\t").replace("\0", "\\")


ROWS = _rows()


@pytest.mark.parametrize(
    ("language", "value", "says", "parts", "fault"), ROWS, ids=[" ".join(row[:2]) for row in ROWS]
)
def test_what_a_value_says(language: str, value: str, says: str, parts: str, fault: str) -> None:
    reading = read_value(language, _plain(value))
    told = " | ".join(f"{text} => {meaning}" for text, meaning in reading.rows)
    found = words(reading.fault.reason) if reading.fault else ""
    assert (reading.says, told, found) == (_plain(says), _plain(parts), _plain(fault))


def test_every_language_has_a_row() -> None:
    bases = set(LANGUAGES.values())
    shown = {LANGUAGES.get(row[0], LANGUAGES.get(row[0].partition("-")[0], "")) for row in ROWS}
    assert not bases - shown


#: Signs that languages are made of, so that values come near to being right.
_SIGNS = st.sampled_from(
    list("aAzx0159 .,:;/|\\-+*?!^$%&=@#~_()[]{}<>\"'\n\t")
    + [
        "$1",
        "print",
        "END",
        "BEGIN",
        "s/",
        "${",
        "}}",
        "{{",
        "\\(",
        "[:digit:]",
        "HEAD",
        "select",
        "é",
    ]
)
_DIALECTS = ["regex-extended", "regex-perl", "sed-extended", "program-perl", "amount-tail-lines"]


@pytest.mark.parametrize("language", [*sorted(LANGUAGES), *_DIALECTS])
@settings(max_examples=150, deadline=None)
@given(signs=st.lists(_SIGNS, max_size=24))
def test_any_value_is_read_and_none_of_it_is_lost(language: str, signs: list[str]) -> None:
    value = "".join(signs)
    reading = read_value(language, value)
    if reading.parts:
        assert "".join(part.text for part in reading.parts) == value
    if reading.fault:
        assert 0 <= reading.fault.start < reading.fault.end <= len(value) + 1


@pytest.mark.parametrize("language", sorted(LANGUAGES))
@pytest.mark.parametrize("value", ["", "\x00", "(" * 3000, "{" * 3000, "9" * 5000, "a" * 30_000])
def test_long_and_odd_values_do_no_harm(language: str, value: str) -> None:
    reading = read_value(language, value)
    assert not reading.parts or "".join(part.text for part in reading.parts) == value


def test_a_fault_has_its_place() -> None:
    found = read_value("sed", "s/a/b/; /x(/d; s/[a/b/").fault
    assert found is not None
    assert (found.start, words(found.reason)) == (15, "s needs three /")
    inner = read_value("regex-extended", "ab(c").fault
    assert inner is not None
    assert (inner.start, inner.end) == (2, 3)


def test_the_parts_of_a_part_stand_within_it() -> None:
    (address, command) = read_value("sed", "/a*/d").parts
    assert address.inside == [
        Part("a", "as it stands"),
        Part("*", "any number of times"),
    ]
    assert command == Part("d", "deletes the line")


@pytest.mark.parametrize(
    ("schedule", "times"),
    [
        ("30 6 * * 1", ["2024-05-06 06:30", "2024-05-13 06:30", "2024-05-20 06:30"]),
        ("*/20 * * * *", ["2024-05-01 12:20", "2024-05-01 12:40", "2024-05-01 13:00"]),
        ("0 0 29 2 *", ["2028-02-29 00:00"]),
        ("0 9 13 * 5", ["2024-05-03 09:00", "2024-05-10 09:00", "2024-05-13 09:00"]),
        ("@monthly", ["2024-06-01 00:00", "2024-07-01 00:00", "2024-08-01 00:00"]),
        ("0 0 31 2 *", []),
        ("often", []),
    ],
)
def test_when_a_job_runs_next(schedule: str, times: list[str]) -> None:
    found = next_times(schedule, datetime(2024, 5, 1, 12, 5))
    assert [f"{one:%Y-%m-%d %H:%M}" for one in found][: len(times) or 3] == times


@pytest.mark.parametrize(
    ("word", "becomes"),
    [
        ("a{b,c}d", ["abd", "acd"]),
        ("{1..10..4}", ["1", "5", "9"]),
        ("{c..a}", ["c", "b", "a"]),
        ("{a,b{1,2}}", ["a", "b1", "b2"]),
        ("x{,.bak}", ["x", "x.bak"]),
        ("{a}", []),
        ("${x,y}", []),
        ("{1..9999999}", []),
    ],
)
def test_what_braces_become(word: str, becomes: list[str]) -> None:
    assert expanded(word) == becomes
