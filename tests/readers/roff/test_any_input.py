"""Whatever a page holds, the reader returns text: it does not raise, hang or let a control sequence
through.
"""

from __future__ import annotations

from unittest.mock import patch

from hypothesis import given, settings
from hypothesis import strategies as st

from dowsing.model.document import document_text
from dowsing.readers.roff.page import read_page

PIECES = st.sampled_from(
    [
        ".TH T 1",
        ".SH NAME",
        ".SH",
        ".SS x",
        ".TP",
        ".IP \\(bu 2",
        ".RS",
        ".RE",
        ".PP",
        ".nf",
        ".fi",
        ".B",
        ".BR a b",
        ".de X",
        "..",
        ".X a",
        ".ds s \\\\*s",
        "\\*s",
        "\\*[s",
        ".nr n \\nn+1",
        "\\n+n",
        ".if n \\{\\",
        ".\\}",
        ".el x",
        ".ie '",
        ".while 1 \\{\\",
        ".break",
        ".return",
        ".so x",
        ".TS",
        "tab(|);",
        "l l.",
        "T{",
        "T}",
        ".TE",
        ".T&",
        ".EQ",
        "delim $$",
        "x over",
        ".EN",
        ".Sh NAME",
        ".Bl -tag",
        ".It Xo",
        ".It Fl a",
        ".El",
        ".Bd -literal",
        ".Ed",
        ".Oo",
        ".Oc",
        ".Op Fl a",
        ".Nm",
        ".Fo f",
        ".Fc",
        ".Sm off",
        ".Rs",
        ".Re",
        ".Bl -column a b",
        ".It a Ta b",
        ".Xc",
        "\\h'",
        "\\w'\\w'x''",
        "\\s",
        "\\f(",
        "\\f[",
        "\\[u110000]",
        "\\N'27'",
        "\\(",
        "\\",
        ".ec @",
        ".eo",
        ".cc !",
        ".tr \\",
        ".char \\[x] \\[x]",
        ".ig",
        ".am X",
        ".rn X SH",
        ".als TP X",
        ".in +4",
        ".in",
        ".UR",
        ".UE",
        ".ce 9",
        ".ft B",
        "\x1b[31m",
        "\x00",
        "\u202e",
        "text",
        "  indented",
        "",
        "\t",
        '"',
        ".SY a",
        ".OP",
        ".MR",
        ".PS",
        ".PE",
    ]
)


def check(source: str) -> None:
    page = read_page(source)
    text = document_text(page.sections) + page.summary
    assert not any(
        (ord(char) < 32 and char not in "\n\t") or 0x7F <= ord(char) < 0xA0 for char in text
    )
    for fact in (page.options, page.examples, page.see_also, page.synopsis):
        assert isinstance(fact, list)


@settings(max_examples=100, deadline=None)
@given(st.lists(PIECES, max_size=25).map("\n".join))
def test_requests_in_any_order(source: str) -> None:
    """Many of these never end: how many steps they may take is bounded lower, for that bound has
    its own test.
    """
    with patch("dowsing.readers.roff.machine.MOST_STEPS", 20_000):
        check(source)


@settings(max_examples=200, deadline=None)
@given(st.text(max_size=300))
def test_any_text(source: str) -> None:
    check(source)


@settings(max_examples=60, deadline=None)
@given(st.binary(max_size=400))
def test_any_bytes(data: bytes) -> None:
    from dowsing.model.errors import Unreadable
    from dowsing.readers.decoding import decode

    try:
        check(decode(data))
    except Unreadable:
        pass


def test_pages_made_to_run_for_ever_end() -> None:
    bombs = [
        ".de A\n.A\n.A\n..\n.A",
        ".while 1 \\{\\\nx\n.\\}",
        ".ds a \\\\*b\\\\*b\n.ds b \\\\*a\\\\*a\n\\*a",
        ".ds a x\n" + ".as a \\*a\n" * 60 + "\\*a",
        ".de A\n.while 1 \\{\\\n.A\n.\\}\n..\n.A",
        ".if 1 " * 3000 + "x",
        "\\*[" * 4000,
        ".de A\n" * 5000,
        "\\w'" * 3000,
        ".TS\nl.\n" + ".TS\nl.\n" * 500,
    ]
    for bomb in bombs:
        check(bomb)
        assert len(document_text(read_page(bomb).sections)) < 5_000_000, bomb[:40]
