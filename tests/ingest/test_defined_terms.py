"""Variables and files that pages define."""

from __future__ import annotations

from dowsing.ingest.defined_terms import MOST_SAID, defined_terms
from dowsing.sources.page_files import document


def defined(body: str) -> list[tuple[str, str, str]]:
    """What a page with that body defines."""
    page = document(f".TH X 1\n.SH NAME\nhoe \\- hoe beds\n{body}", "hoe.1", "hoe", "1")
    return [(one.name, one.tag, one.says) for one in defined_terms(page)]


def test_variables_stand_where_the_heading_says_so() -> None:
    body = ".SH {}\n.TP\nHOE_BEDS\nThe beds.\n.TP\n$HOE_ROW=NUMBER, HOE_SIDE\nThe row.\n"
    assert defined(body.format("ENVIRONMENT")) == [
        ("HOE_BEDS", "HOE_BEDS", "The beds."),
        ("HOE_ROW", "$HOE_ROW=NUMBER", "The row."),
        ("HOE_SIDE", "HOE_SIDE", "The row."),
    ]
    assert defined(body.format("ERRORS")) == []


def test_files_by_the_last_part_of_their_paths() -> None:
    body = (
        ".SH FILES\n.TP\n~/.hoerc\nYour beds.\n.TP\n/etc/hoe/beds.conf\nAll beds.\n"
        ".TP\n.hoe_log\nWhat was done.\n.TP\nbeds\nNo path.\n"
    )
    assert defined(body) == [
        (".hoerc", "~/.hoerc", "Your beds."),
        ("beds.conf", "/etc/hoe/beds.conf", "All beds."),
        (".hoe_log", ".hoe_log", "What was done."),
    ]


def test_a_line_with_a_text_below_it_is_a_term_too() -> None:
    body = ".SH FILES\n/etc/hoe\n.RS 4\nAll beds.\n.RE\n"
    assert defined(body) == [("hoe", "/etc/hoe", "All beds.")]


def test_an_index_of_pages_defines_nothing_and_long_texts_are_cut() -> None:
    assert defined(".SH FILES\n.TP\n/etc/hoe\nhoe(1), rake(1), sow(1)\n") == []
    [(_, _, says)] = defined(f".SH FILES\n.TP\n/etc/hoe\n{'bed ' * 100}\n")
    assert len(says) == MOST_SAID
