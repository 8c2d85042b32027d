"""The mdoc macros."""

from __future__ import annotations

import pytest
from conftest import body, shown

from dowsing.readers.roff import mdoc
from dowsing.readers.roff.page import read_page

HEAD = ".Dd March 3, 2026\n.Dt TIE 1\n.Os\n.Sh NAME\n.Nm tie\n.Nd fasten\n.Sh D\n"


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        (".Fl a", "-a"),
        (".Fl a b , c", "-a -b, -c"),
        (".Fl", "-"),
        (".Fl Fl all", "--all"),
        (".Fl o Ns Ar file", "-ofile"),
        (".Ar", "file ..."),
        (".Ar rope , knot .", "rope, knot."),
        (".Op Fl k Ar kind", "[-k kind]"),
        (".Op Fl k Ar kind Ns Op , Ns Ar kind ...", "[-k kind[,kind ...]]"),
        (".Op Fl a | b", "[-a | -b]"),
        (".Nm", "tie"),
        (".Nm ,\nand", "tie, and"),
        (".Nm untie .", "untie."),
        (".Xr knot 7 ,\n.Xr rope 1", "knot(7), rope(1)"),
        (".Pq see Xr knot 7 .", "(see knot(7))."),
        (".Dq quoted", "“quoted”"),
        (".Sq a .", "‘a’."),
        (".Qq q", '"q"'),
        (".Bq b", "[b]"),
        (".Brq b", "{b}"),
        (".Aq b", "<b>"),
        (".Ql \\-", "‘-’"),
        (".Do\nover\nlines\n.Dc .", "“over lines”."),
        (".Oo\n.Fl a\n.Oc\nb", "[-a] b"),
        (".Po one Pc two", "(one) two"),
        (".Eo ^\nx\n.Ec $", "^x$"),
        (".Em e .\n.Sy s\n.Li l\n.No n", "e. s l n"),
        (".Pa /etc/x Ns s", "/etc/xs"),
        (".Pf ( Ar x )", "(x)"),
        (".Ar x Ap s", "x's"),
        (
            ".Ev HOME\n.Dv NULL\n.Er ENOENT\n.Va errno\n.Cm on\n.Ic off",
            "HOME NULL ENOENT errno on off",
        ),
        (".Fn open path flags", "open(path, flags)"),
        (".Fo open\n.Fa path\n.Fa flags\n.Fc .", "open(path, flags)."),
        (".In stdio.h", "#include <stdio.h>"),
        (".Lk https://x.example here", "here <https://x.example>"),
        (".Mt a@x.example", "a@x.example"),
        (".St -p1003.1-2008 .", "IEEE Std 1003.1-2008 (“POSIX.1”)."),
        (".Lb libc", "Standard C Library (libc, -lc)"),
        (".Bx 4.2\n.At v7\n.Fx 13.0\n.Ux", "4.2BSD Version 7 AT&T UNIX FreeBSD 13.0 UNIX"),
        (".Sm off\n.No a Ar b\n.No c\n.Sm on\nd", "abc d"),
        (".Ex -std", "The tie utility exits 0 on success, and >0 if an error\noccurs."),
        (".An A. Fern Aq Mt a@x.example", "A. Fern <a@x.example>"),
        ('.Ar "two words"', "two words"),
        ('.Sy "Fl"', "Fl"),
        (".Bf -emphasis\nx\n.Ef\ny", "x\n\ny"),
        (".D1 Fl a", "    -a"),
        (".Dl tie  x", "    tie x"),
        ("one\n.Pp\ntwo", "one\n\ntwo"),
        (".Bd -literal\na  b\n.Ed\nc", "a  b\n\nc"),
        (".Bd -filled -offset indent\na\n.Ed", "    a"),
        (
            ".Rs\n.%A A. Fern\n.%A B. Moss\n.%T Knots\n.%D 2019\n.Re",
            "A. Fern and B. Moss, “Knots”, 2019.",
        ),
    ],
)
def test_inline(source: str, expected: str) -> None:
    assert body(source, HEAD) == expected


@pytest.mark.parametrize("macro", sorted(mdoc.PLAIN))
@pytest.mark.parametrize("words", ["", " x", " Fl a Ar b", " a Sm off", " Ns a"])
def test_any_macro_may_come_first(macro: str, words: str) -> None:
    page = read_page(
        f".{macro}{words}\ntext\n.Dd today\n.Sh NAME\n.Nm tie\n.Nd fasten\n.Sh D\nit ties\n"
    )
    assert page.summary in ("", "fasten") and page.sections


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        (".Bl -bullet -compact\n.It\none\n.It\ntwo\n.El\nout", "• one\n• two\n\nout"),
        (".Bl -enum\n.It\none\n.It\ntwo\n.El", "1. one\n\n2. two"),
        (".Bl -dash -compact\n.It\none\n.El", "- one"),
        (".Bl -item\n.It\none\n.It\ntwo\n.El", "one\n\ntwo"),
        (".Bl -tag -width Ds\n.It Fl a\none\n.It Fl b Ar x\ntwo\n.El", "-a   one\n\n-b x two"),
        (".Bl -tag -compact\n.It Fl a\none\n.Pp\n.It Fl b\ntwo\n.El", "-a   one\n\n-b   two"),
        (".Bl -tag\n.It Xo\n.Fl a\n.Op Fl b\n.Xc\ntext\n.El", "-a [-b]\n     text"),
        (".Bl -diag\n.It bad rope\ntext\n.El", "bad rope\n     text"),
        (".Bl -column a b\n.It one Ta two\n.It Sy x Ta y Ns z\n.El", "one  two\nx    yz"),
        (
            ".Bl -tag\n.It a\n.Bl -bullet -compact\n.It\nin\n.El\n.It b\nout\n.El",
            "a    • in\n\nb    out",
        ),
        (".Bl -tag -offset indent\n.It a\nx\n.El", "a    x"),
    ],
)
def test_lists(source: str, expected: str) -> None:
    assert body(source, HEAD) == expected


def test_a_synopsis_begins_a_line_at_each_name() -> None:
    source = HEAD + ".Sh SYNOPSIS\n.Nm\n.Op Fl q\n.Ar rope\n.Nm\n.Fl l\n"
    assert shown(source).endswith("SYNOPSIS\n   tie [-q] rope\n\n   tie -l")


def test_name_and_summary_are_read() -> None:
    from dowsing.readers.roff.page import read_page

    page = read_page(
        ".Dd x\n.Dt TIE 1\n.Os\n.Sh NAME\n.Nm tie ,\n.Nm knot\n.Nd fasten a rope\n.Sh D\nx"
    )
    assert (page.name, page.section, page.names, page.summary) == (
        "tie",
        "1",
        ["tie", "knot"],
        "fasten a rope",
    )
