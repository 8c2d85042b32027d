"""Pages that ended the reader or let marks of its own through."""

from __future__ import annotations

import pytest
from conftest import body, shown

from dowsing.model.document import document_text
from dowsing.readers.roff.page import read_page

MDOC = ".Dd x\n.Dt A 1\n.Os\n.Sh NAME\n.Nd b\n"


def marked(source: str) -> str:
    """All text of a page, with whatever marks are in it."""
    return document_text(read_page(source).sections, marked=True)


@pytest.mark.parametrize(
    "source", ["x \\(  y", "\\(", ".SH \\(  \nx", ".de \\(\nx\n..", "\\*(  x", "\\f(  x", "\\[ ] x"]
)
def test_a_special_character_without_a_name(source: str) -> None:
    read_page(f".TH A 1\n.SH D\n{source}\n")


def test_an_end_of_a_head_without_its_beginning() -> None:
    assert shown(MDOC + ".Sh D\n.Xc 1\nText").endswith("1 Text")


@pytest.mark.parametrize(
    ("macro", "text"),
    [
        (".Ex -std", "The utility exits 0 on success, and >0 if an error occurs."),
        (".Ex", "The utility exits 0 on success, and >0 if an error occurs."),
        (".Ex -std a b", "The a and b utilities exit 0 on success, and >0 if an error occurs."),
    ],
)
def test_the_exit_status_of_a_page_without_a_name(macro: str, text: str) -> None:
    assert shown(f"{MDOC}.Sh D\n{macro}", 100).split("\nD\n")[1].strip() == text


def test_the_return_value_of_a_page_without_functions() -> None:
    for macro in (".Rv -std", ".Rv"):
        text = shown(f"{MDOC}.Sh D\n{macro}", 200).split("\nD\n")[1].strip()
        assert text.startswith(
            "Upon successful completion, the value 0 is returned; otherwise the value -1 is "
            "returned and"
        )
    assert "The f() function returns" in shown(f"{MDOC}.Sh D\n.Rv -std f", 200)


def test_marks_of_the_reader_stay_inside_it() -> None:
    assert body(".TS\nl l.\na\\c\tb\n.TE\n") == "a  b"
    for source in (
        ".TS\nl.\nT{\na\\c\nT}\n.TE",
        MDOC + ".Ta x\n",
        MDOC + ".Sh X\nx Ta y\n.Ta a Ta b",
        ".SH a\\c\nb",
        ".TP\na\\c\n.TP\nb",
    ):
        assert not [char for char in marked(source) if char in "\x06\x07\x08\x12\x13\x14\x15\x16"]


@pytest.mark.parametrize(
    ("source", "cut"),
    [
        (
            ".while 1 \\{\\\n.while 1 \\{\\\n" + "x" * 300 + "\n.\\}\n.\\}\n",
            "its macros and loops make more than 16 million characters",
        ),
        (".de A\n.while 1 \\{\\\n.A\n.\\}\n..\n.A", "its macros and loops do not come to an end"),
        (
            ".ds a " + "x" * 150_000 + "\n" + "\\*a\n" * 3000,
            "its macros and loops make more than 16 million characters",
        ),
        ("\n" * 1_000_001, "it has more than 1,000,000 lines"),
        (".TP\nx\n" * 400_001, "it has more than 400,000 items"),
        (".while 1 \\{\\\nx\n.\\}\n", ""),
    ],
)
def test_what_exceeds_the_bounds_says_of_what(source: str, cut: str) -> None:
    """What was read up to there is kept; a source of pages tells it as too large."""
    assert read_page(source).cut == cut
