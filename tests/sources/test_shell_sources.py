"""A shell's own help as a document, and the entries cut out of its manual."""

from __future__ import annotations

import pytest

from dowsing.model.entry import ShellRow
from dowsing.readers.roff.page import read_page
from dowsing.sources.builtin import help_document
from dowsing.sources.shell_manual import find_entry

HELP = """\
dib: dib [-n] [-d cm] [bed] or dib -l
    Dig a bed.

    Digs the bed, or the one you stand in.

    Options:
      -d cm        how deep, which
                is 30 by default
      -n        nothing

    Exit Status:
    Returns success."""


def test_help_of_a_shell() -> None:
    document = help_document(ShellRow("sod", "/bin/sod", "dib", "builtin", "Dig a bed", HELP, []))
    assert document.synopsis == ["dib [-n] [-d cm] [bed]", "dib -l"]
    assert [section.title for section in document.sections] == [
        "SYNOPSIS",
        "DESCRIPTION",
        "Options",
        "Exit Status",
    ]
    assert [(o.flags, o.argument, o.text) for o in document.options] == [
        (["-d"], "cm", "how deep, which is 30 by default"),
        (["-n"], None, "nothing"),
        (["-l"], None, ""),
    ]
    assert (document.label, document.source, document.origin) == ("dib(builtin)", "builtin", "sod")


def test_help_whose_topic_is_no_name() -> None:
    row = ShellRow("sod", "/bin/sod", "{", "keyword", "", "{ ... }: { LIST ; }\n    Group.", [])
    assert help_document(row).synopsis == ["{ LIST ; }"]


PAGE = r"""
.TH SOD 1
.SH NAME
sod \- a shell
.SH "RESERVED WORDS"
if then fi for time
.SH GRAMMAR
.SS Pipelines
A pipeline is one or more commands:
.RS
.PP
[\fBtime\fP [\fB\-p\fP]] [ ! ] \fIcommand\fP
.RE
.PP
It is timed.
.SS "Compound Commands"
.TP
\fBif\fP \fIlist\fP; \fBthen\fP \fIlist\fP; \fBfi\fP
The \fBif\fP list is done.
.TP
[[ \fIexpression\fP ]]
Tests.
.PP
More about tests.
.SH "BUILTIN COMMANDS"
.PD 0
.TP
\fB\&.\fP \fIfile\fP
.TP
\fBsource\fP \fIfile\fP
.PD
Read a file.
.TP
\fBdib\fP [\fB\-n\fP]
Dig.
.RS
.TP
.B \-n
Nothing.
.TP
.B \-d
Deep.
.RE
.IP
More of dib.
.TP
\fBfill|refill\fP \fIhole\fP
.TP
\fBfill\fP \fB\-a\fP
Fill holes.
.TP
\fB:\fP
Nothing.
.SH "SEE ALSO"
dib(1)
"""


@pytest.mark.parametrize(
    ("name", "kind", "forms", "title"),
    [
        ("dib", "builtin", ["dib [-n]"], "BUILTIN COMMANDS"),
        (".", "builtin", [". file", "source file"], "BUILTIN COMMANDS"),
        ("source", "builtin", [". file", "source file"], "BUILTIN COMMANDS"),
        ("refill", "builtin", ["fill|refill hole", "fill -a"], "BUILTIN COMMANDS"),
        (":", "builtin", [":"], "BUILTIN COMMANDS"),
        ("if", "keyword", ["if list; then list; fi"], "Compound Commands"),
        ("then", "keyword", ["if list; then list; fi"], "Compound Commands"),
        ("[[", "keyword", ["[[ expression ]]"], "Compound Commands"),
        ("time", "keyword", ["[time [-p]] [ ! ] command"], "Pipelines"),
        ("!", "keyword", ["[time [-p]] [ ! ] command"], "Pipelines"),
    ],
)
def test_entries_of_the_manual(name: str, kind: str, forms: list[str], title: str) -> None:
    from dowsing.model.markup import plain

    entry = find_entry(read_page(PAGE, "sod", "1"), name, kind)
    assert entry is not None
    assert ([plain(form) for form in entry.forms], entry.title) == (forms, title)


def test_the_whole_entry_is_taken() -> None:
    from dowsing.model.document import Section, document_text

    page = read_page(PAGE, "sod", "1")
    entry = find_entry(page, "dib", "builtin")
    tests = find_entry(page, "[[", "keyword")
    assert entry is not None and tests is not None
    section = Section("")
    section.blocks = entry.body
    assert document_text([section]).split() == "Dig. -n Nothing. -d Deep. More of dib.".split()
    section.blocks = tests.body
    assert document_text([section]).split() == "Tests. More about tests.".split()


def test_names_without_an_entry() -> None:
    page = read_page(PAGE, "sod", "1")
    assert find_entry(page, "tine", "builtin") is None
    assert find_entry(page, "list", "keyword") is None
    assert find_entry(page, "done", "keyword") is None
