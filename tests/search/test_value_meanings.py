"""What the entry of an option says of each of its values."""

from __future__ import annotations

from dowsing.facts import with_facts
from dowsing.readers.roff.page import read_page
from dowsing.search.passages import value_meanings

PAGE = r"""
.TH GRAFT 1
.SH OPTIONS
.TP
.BI \-\-cut " how"
The cut:
.RS
.TP
.B whip
Both slanted.
.TP
.BR cleft ", " split
The stock is
split.
.RE
.TP
.BI \-\-tape " kind"
.RS
.TP
.B whip
Something else.
.RE
"""
ELSEWHERE = (
    PAGE
    + r"""
.TP
.BI \-\-when " time"
.SH TIMES
.TP
.BR spring ", " march
Sap rises.
.TP
autumn
Leaves fall.
.TP
winter garden
No time at all.
"""
)


def test_a_list_elsewhere_that_is_of_the_values_alone() -> None:
    page = with_facts(read_page(ELSEWHERE, "graft", "1"))
    assert value_meanings(page, ["--when"], ["spring", "march", "autumn", "winter"]) == {
        "spring": "Sap rises.",
        "march": "Sap rises.",
        "autumn": "Leaves fall.",
    }
    many = ["spring", "march", "may", "june", "july", "winter"]
    assert value_meanings(page, ["--when"], many) == {}


def test_values_that_are_listed_one_by_one() -> None:
    page = with_facts(read_page(PAGE, "graft", "1"))
    values = ["whip", "cleft", "split", "bud"]
    assert value_meanings(page, ["--cut"], values) == {
        "whip": "Both slanted.",
        "cleft": "The stock is split.",
        "split": "The stock is split.",
    }
    assert value_meanings(page, ["--tape"], values) == {"whip": "Something else."}
    assert value_meanings(page, ["--knife"], values) == {}
