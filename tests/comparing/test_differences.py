"""Texts of one name set side by side."""

from __future__ import annotations

from dowsing.comparing.differences import differences, wordings
from dowsing.comparing.source_table import Compared, SourceRow
from dowsing.facts import with_facts
from dowsing.model.document import Document
from dowsing.readers.roff.page import read_page
from dowsing.readers.usage.usage_text import read_usage

PAGE = r"""
.TH DIG 1
.SH NAME
dib \- dig holes
.SH SYNOPSIS
dib [\fIoption\fP]...
.SH OPTIONS
.TP
.BR \-d ", " \-\-deep =\fIcm\fP
How deep.
The default is 30.
.TP
.B \-\-old
Old.
.SH "EXIT STATUS"
.TP
0
Done.
.TP
3
Rock.
.SH ENVIRONMENT
.TP
SPADE
Read from /etc/spade.conf.
"""

USAGE = """\
Usage: dib [OPTION]...
Make holes.

  -d, --deep      how deep (default: 20)
  -n, --new=WHAT  new
"""

INFO = r"""
.TH DIG 1
.SH TEXT
.TP
.B \-d \fIcm\fP
How deep.
.TP
.B \-\-old
Old.
.TP
.B \-n \fIwhat\fP
New.
.SH "EXIT STATUS"
.TP
0
Done.
"""


def documents() -> dict[str, Document]:
    info = with_facts(read_page(INFO, "dib", "1"))
    info.source = "info"
    return {
        "manual": with_facts(read_page(PAGE, "dib", "1")),
        "usage": with_facts(read_usage(USAGE, "dib")),
        "info": info,
    }


def compared(**same: str) -> Compared:
    found = documents()
    rows = [SourceRow(source, True, "", 1, 1, same.get(source), "") for source in found]
    return Compared(rows, list(found.items()))


def test_what_not_all_texts_say() -> None:
    found = [(one.what, one.item, one.said_by, one.not_said_by) for one in differences(compared())]
    assert found == [
        ("option", "--old", ["manual", "info"], ["usage"]),
        ("option", "-n, --new", ["usage", "info"], ["manual"]),
        ("argument", "-d, --deep cm", ["manual", "info"], ["usage"]),
        ("default", "-d, --deep: 30 (manual), 20 (usage)", ["manual", "usage"], []),
        ("variable", "SPADE", ["manual"], ["info"]),
        ("file", "/etc/spade.conf", ["manual"], ["info"]),
        ("exit status", "3", ["manual"], ["info"]),
    ]


def test_where_it_is_said() -> None:
    first = differences(compared())[0]
    assert (first.where, first.says) == ({"manual": "OPTIONS", "info": "TEXT"}, "Old.")


def test_only_the_texts_that_were_chosen() -> None:
    found = differences(compared(), ("usage", "info"))
    assert [(one.what, one.item) for one in found] == [
        ("option", "--old"),
        ("argument", "-d, --deep cm"),
    ]


def test_the_same_text_is_not_compared() -> None:
    assert {source for one in differences(compared(info="manual")) for source in one.said_by} == {
        "manual",
        "usage",
    }


def test_wording_side_by_side() -> None:
    found = documents()
    assert [(w.item, w.one, w.other) for w in wordings(found["manual"], found["usage"])] == [
        ("summary", "dig holes", "Make holes"),
        ("-d, --deep", "How deep. The default is 30.", "how deep (default: 20)"),
        ("--old", "Old.", ""),
        ("-n, --new", "", "new"),
    ]
