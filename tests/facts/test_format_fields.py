"""What files of a format hold, as their pages tell."""

from __future__ import annotations

from dowsing.facts.format_fields import read_format_fields
from dowsing.sources.page_files import document


def fields(body: str) -> list[tuple[str, str]]:
    """The fields that a page with that body tells of."""
    page = document(f".TH X 5\n.SH NAME\nbeds \\- plan of beds\n{body}", "beds.5", "beds", "5")
    return [(one.name, one.text) for one in read_format_fields(page)]


def test_headings_of_fields_come_first() -> None:
    body = (
        ".SH DESCRIPTION\n.SS The first field (bed_name).\nThe name.\n"
        ".SS The second field (bed_row).\nThe row.\n.TP\nnorth\nThe shaded row.\n"
        ".TP\nsouth\nThe sunny row.\n"
    )
    assert fields(body)[0] == ("bed_name", "The name.")
    assert [name for name, _ in fields(body)] == ["bed_name", "bed_row"]


def test_terms_of_lists_without_files_and_options() -> None:
    body = (
        ".SH SETTINGS\n.TP\nHouse=\nThe house of the bed.\n.TP\nRow=\nThe row it is in.\n"
        ".TP\n-q\nNo field at all.\n.SH FILES\n.TP\n/etc/beds\nThe plan itself.\n"
    )
    assert fields(body) == [("House=", "The house of the bed."), ("Row=", "The row it is in.")]


def test_points_of_a_list_that_is_announced() -> None:
    body = (
        ".SH DESCRIPTION\nA line has three fields:\n.IP \\(bu 2\nname of the bed\n"
        ".IP \\(bu 2\nits row;\n.PP\nMore.\n.IP \\(bu 2\nno field\n"
    )
    assert fields(body) == [("name of the bed", ""), ("its row", "")]


def test_a_list_of_other_things_is_none_of_fields() -> None:
    body = ".SH CODES\n" + "".join(f".TP\n%{c}\nPrints it here.\n" for c in "abcd")
    assert fields(body) == []
    long = "Each field of a line ends with a comma, and blanks before it do not count."
    assert fields(f".SH D\nOn fields:\n.IP \\(bu 2\n{long}\n.IP \\(bu 2\n{long} \n") == []
