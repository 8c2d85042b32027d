"""The man macros and what page generators make of them."""

from __future__ import annotations

import pytest
from conftest import body, shown

from dowsing.facts import with_facts
from dowsing.readers.roff.page import read_page

HEAD = ".TH T 1\n.SH D\n"


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        ("one\n.PP\ntwo\n.LP\nthree\n.P\nfour", "one\n\ntwo\n\nthree\n\nfour"),
        (".TP\n\\-a\ntext of it", "-a   text of it"),
        (
            '.TP\n.B \\-\\-all\ntext\n.TP\n.BI \\-n " number"\nmore',
            "--all\n     text\n\n-n number\n     more",
        ),
        (".TP\n.B \\-a\n.TQ\n.B \\-b\ntext", "-a\n-b   text"),
        (
            ".PD 0\n.TP\n\\-a\none\n.TP\n\\-b\ntwo\n.PD\n.TP\n\\-c\nthree",
            "-a   one\n-b   two\n\n-c   three",
        ),
        (".TP\n\\-a\n.PP\nafter", "-a\n\nafter"),
        (".IP \\(bu 2\none\n.IP \\(bu\ntwo", "• one\n\n• two"),
        (".IP 1. 4\none", "1. one"),
        (".IP term\none\n.IP\nstill\n.PP\nout", "term one\n\n     still\n\nout"),
        (".IP\nset in", "    set in"),
        ("a\n.RS\nb\n.RS\nc\n.RE\nd\n.RE\ne", "a\n\n    b\n\n        c\n\n    d\n\ne"),
        (".TP\n\\-a\nx\n.RS\n.TP\n\\-b\ny\n.RE\n.TP\n\\-c\nz", "-a   x\n\n     -b   y\n\n-c   z"),
        (".RS\nb\n.RE 1\na", "    b\n\na"),
        (
            ".HP\n\\-x a hanging paragraph that is so long that it goes on",
            "-x a hanging paragraph that is so long that it goes on",
        ),
        (".SS Part\ntext", "\n Part\ntext"),
        (".B bold words\n.I it\n.SM small\n.SB both\nend", "bold words it small both end"),
        (".B\nnext line\nplain", "next line plain"),
        ('.BI "a b" c .d\n.RI ( x )', "a bc.d (x)"),
        (".EX\na  b\n.EE\nc", "a  b\n\nc"),
        (".UR https://x.example\nthe page\n.UE .", "the page <https://x.example>."),
        (".UR https://x.example\n.UE ,\nand", "https://x.example, and"),
        (".MT a@x.example\nAnn\n.ME", "Ann <a@x.example>"),
        (".MR tie 1 ,\n.MR knot 7", "tie(1), knot(7)"),
        (".SY tie\n.OP \\-k kind\n.OP \\-q\n.I rope\n.YS", "tie [-k kind] [-q] rope"),
        (".URL https://x.example text .", "text <https://x.example>."),
    ],
)
def test_macros(source: str, expected: str) -> None:
    assert body(source).strip("\n") == expected.strip("\n")


def test_section_titles_on_the_next_line_and_in_quotes() -> None:
    assert (
        shown('.TH T 1\n.SH\nNAME\nt \\- x\n.SH "SEE ALSO"\ny')
        == "NAME\n   t - x\n\nSEE ALSO\n   y"
    )


def test_literal_text_keeps_lines_and_blanks_whatever_the_width() -> None:
    line = "a very long line of a program that   must not be broken at all, however narrow"
    assert body(f".nf\n{line}\n.fi", width=30).strip() == line


def test_lines_are_wrapped_at_the_width() -> None:
    text = body("word " * 30, width=33)
    assert max(len(line) for line in text.split("\n")) <= 30
    assert text.split() == ["word"] * 30


def test_a_list_drawn_as_paragraphs_with_indents_becomes_items() -> None:
    generated = ".PP\n\\fB\\-\\-keep=\\fR\\fB\\fIn\\fR\\fR\n.RS 4\nKeep so many\\&.\n.RE"
    assert body(generated) == "--keep=n\n     Keep so many."


def test_a_drawn_bullet_becomes_a_list_item() -> None:
    drawn = (
        ".RS 4\n.ie n \\{\\\n\\h'-04'\\(bu\\h'+03'\\c\n.\\}\n.el \\{\\\n.sp -1\n.IP \\(bu "
        "2.3\n.\\}\nfirst\n.RE"
    )
    assert body(drawn) == "• first"


def test_names_and_summary() -> None:

    page = with_facts(
        read_page(".TH TIE 1\n.SH NAME\ntie, knot ,\\fBhitch\\fR \\- fasten \\- or so\n.SH D\nx")
    )
    assert (page.names, page.summary) == (["tie", "knot", "hitch"], "fasten - or so")
    two = with_facts(read_page(".TH TIE 1\n.SH NAME\ntie \\- fasten\n.br\nuntie \\- loosen\n"))
    assert (two.names, two.summary) == (["tie", "untie"], "fasten")


def test_the_title_line_gives_name_section_and_date() -> None:

    page = with_facts(
        read_page('.TH TIE 1x "March 2026" "Ropes 2" Manual\n.SH NAME\ntie \\- fasten\n')
    )
    assert (page.name, page.section, page.date, page.origin) == (
        "tie",
        "1x",
        "March 2026",
        "Ropes 2",
    )


def test_options_with_arguments_are_read() -> None:

    source = HEAD + (
        ".TP\n\\fB\\-a\\fR, \\fB\\-\\-all\\fR\nEverything.\n"
        ".TP\n\\fB\\-\\-size\\fR=\\fIN\\fR\nHow large. The default is 5.\n"
        ".TP\n\\fB\\-\\-color\\fR[=\\fIWHEN\\fR]\nColours.\n"
        ".TP\n\\fB\\-o\\fR \\fIfile\\fR\n.TP\n\\fB\\-\\-output\\fR=\\fIfile\\fR\nWhere to.\n"
        ".TP\n\\fB\\-\\-[no\\-]wash\\fR\nWash.\n.TP\nterm\nNo option.\n"
    )
    found = [
        (o.flags, o.argument, o.argument_optional, o.default)
        for o in with_facts(read_page(source)).options
    ]
    assert found == [
        (["-a", "--all"], None, False, None),
        (["--size"], "N", False, "5"),
        (["--color"], "WHEN", True, None),
        (["-o", "--output"], "file", False, None),
        (["--wash", "--no-wash"], None, False, None),
    ]


def test_examples_and_see_also_are_read() -> None:

    page = with_facts(
        read_page(
            ".TH TIE 1\n.SH NAME\ntie \\- fasten\n.SH EXAMPLES\nTie a reef knot:\n.PP\n.RS\n.nf\n$ "
            "tie \\-k reef \\e\n    rope\ntied.\n.fi\n.RE\n.PP\nAs root:\n.PP\n# tie \\-u\n"
            ".SH SEE ALSO\n.BR knot (7),\n.BR untie (1),\n.BR tie (1)\n"
        )
    )
    found = [(example.task, example.line) for example in page.examples]
    assert found == [("Tie a reef knot", "tie -k reef rope"), ("As root", "tie -u")]
    assert [(r.name, r.section) for r in page.see_also] == [("knot", "7"), ("untie", "1")]


def test_forms_are_put_together() -> None:

    head = ".TH TIE 1\n.SH NAME\ntie \\- fasten\n.SH SYNOPSIS\n"
    broken = head + ".B tie\n[\\-k\n.IR kind ]\n.I rope\n.br\n.B tie \\-\\-list\n"
    assert with_facts(read_page(broken)).synopsis == ["tie [-k kind] rope", "tie --list"]
    literal = head + ".nf\ntie [\\-k <kind>]\n    [\\-q] <rope>\ntie \\-\\-list\n.fi\n"
    assert with_facts(read_page(literal)).synopsis == ["tie [-k <kind>] [-q] <rope>", "tie --list"]
