"""Breaking marked text into lines."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from dowsing.model.markup import BOLD, ITALIC, ROMAN, link, plain
from dowsing.render.cell_width import display_width
from dowsing.render.wrap import close_styles, unbroken, wrap


def test_lines_break_at_blanks() -> None:
    assert wrap("one two three four", 12) == ["one two", "three four"]
    assert wrap("one two three", 20, indent=4) == ["    one two three"]
    assert wrap("aaaa bbbb cccc dddd", 16, indent=2, hang=2) == ["  aaaa bbbb cccc", "    dddd"]


def test_line_breaks_in_the_text_stay() -> None:
    assert wrap("one\ntwo three", 40, 2) == ["  one", "  two three"]


def test_a_long_word_stays_whole() -> None:
    word = "https://fernhollow.example/a/very/long/address"
    assert wrap(f"see {word} there", 20) == ["see", word, "there"]


def test_styles_begin_and_end_on_each_line() -> None:
    lines = wrap(f"{BOLD}one two three four{ROMAN} five", 13)
    assert lines == [f"{BOLD}one two three{ROMAN}", f"{BOLD}four{ROMAN} five"]
    assert close_styles([f"a {ITALIC}b", "  c", f"d{ROMAN}"]) == [
        f"a {ITALIC}b{ROMAN}",
        f"  {ITALIC}c{ROMAN}",
        f"{ITALIC}d{ROMAN}",
    ]


def test_kept_blanks_do_not_break() -> None:
    assert wrap("aaaa bbbb\xa0cccc", 12) == ["aaaa", "bbbb cccc"]
    assert wrap(unbroken(["dowsing read tar", "dowsing read git"]), 24) == [
        "dowsing read tar ·",
        "dowsing read git",
    ]


def test_links_take_no_room() -> None:
    assert wrap(f"see {link('tar(1)', 'tar(1)')} now", 40) == ["see tar(1) now"]


def test_lines_may_end_between_ideographs() -> None:
    text = "温室の窓を開けて、閉める道具 vent です。"
    lines = wrap(text, 14)
    assert lines == ["温室の窓を開け", "て、閉める道具", "vent です。"]
    assert all(display_width(line) <= 14 for line in lines)


def test_wide_characters_take_two_columns() -> None:
    assert display_width("日本") == 4
    assert display_width("e\u0301") == 1
    assert display_width("naïve – “x” …") == 13
    assert wrap("유리 유리 유리 유리", 13) == ["유리 유리", "유리 유리"]


@given(st.text(alphabet="ab \xa0" + BOLD + ITALIC + ROMAN, max_size=200), st.integers(12, 60))
def test_no_word_is_lost_and_no_line_too_long(text: str, width: int) -> None:
    text = " ".join(text.split(" "))
    lines = wrap(text, width)
    assert "".join(plain(line) for line in lines).replace(" ", "") == plain(text).replace(" ", "")
    longest = max((len(plain(word)) for word in text.split(" ")), default=0)
    assert all(len(plain(line)) <= max(width, longest) for line in lines)
