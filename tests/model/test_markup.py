"""Marked text."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dowsing.model.markup import (
    BOLD,
    CODE,
    ITALIC,
    LINK,
    ROMAN,
    Span,
    clean,
    clean_line,
    link,
    plain,
    spans,
)


def test_plain_takes_marks_and_link_targets_away() -> None:
    assert plain(f"a {BOLD}b{ROMAN} {ITALIC}c{ROMAN}") == "a b c"
    assert plain(f"see {link('tar(1)', f'{BOLD}tar{ROMAN}(1)')}.") == "see tar(1)."
    assert plain("caf\xe9\xa0au lait" + CODE) == "café au lait"


def test_spans_join_neighbours_of_one_style() -> None:
    text = f"a{ROMAN} b {BOLD}c{BOLD}d{ROMAN}"
    assert list(spans(text)) == [Span("a b ", "plain", None), Span("cd", "bold", None)]


def test_spans_carry_links() -> None:
    text = f"x {link('https://x.example', f'the {ITALIC}page{ROMAN}')} y"
    assert list(spans(text)) == [
        Span("x ", "plain", None),
        Span("the ", "plain", "https://x.example"),
        Span("page", "italic", "https://x.example"),
        Span(" y", "plain", None),
    ]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("plain\ttext\n", "plain\ttext\n"),
        ("a\x1b[31mb\x07\x08c", "a[31mbc"),
        ("\x00\x7f\x9b", "\x7f".replace("\x7f", "")),
        ("abc\u202edef\u2066g", "abcdefg"),
        ("é\x1bü", "éü"),
        (BOLD + "no marks from outside" + LINK, "no marks from outside"),
    ],
)
def test_clean(text: str, expected: str) -> None:
    assert clean(text) == expected


def test_clean_line_shows_what_was_there() -> None:
    assert clean_line("a\nb\tc\x1bd") == "a b c?d"
    assert clean_line("ordinary – ☃") == "ordinary – ☃"


@given(st.text())
def test_cleaned_text_holds_no_control_character(text: str) -> None:
    assert not any(
        (char < " " and char not in "\n\t") or "\x7f" <= char <= "\x9f" for char in clean(text)
    )
    assert clean(clean(text)) == clean(text)


@given(st.lists(st.sampled_from([BOLD, ITALIC, ROMAN, CODE, "word", " ", "é", "\xa0"])))
def test_spans_hold_the_plain_text(parts: list[str]) -> None:
    text = "".join(parts)
    assert "".join(span.text for span in spans(text)).replace("\xa0", " ") == plain(text)
