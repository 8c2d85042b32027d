"""The roff language, request by request: small sources against the exact text they make."""

from __future__ import annotations

import pytest
from conftest import body, shown

BODY = ".TH T 1\n.SH D\n"


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        ("one\ntwo", "one two"),
        ("one\n\ntwo", "one\n\ntwo"),
        ("one\n.br\ntwo", "one\ntwo"),
        ("one\n.sp\ntwo", "one\n\ntwo"),
        ("one\n.sp -1\ntwo", "one\ntwo"),
        ("one   two  ", "one two"),
        ("one\\\ntwo", "onetwo"),
        ("one\\c\ntwo", "onetwo"),
        ('one\\" a remark\ntwo', "one two"),
        ('.\\" a remark\none', "one"),
        ("one\n  set in", "one\n  set in"),
        (".nf\na\n  b\n\nc\n.fi\nd e", "a\n  b\n\nc\n\nd e"),
        (".nf\na\tb\n.fi", "a       b"),
        (".ta 4n 12n\n.nf\na\tb\tc\n.fi", "a   b       c"),
        (".ce 2\nfirst\nsecond\nrest of it", "first\nsecond\nrest of it"),
        ("a\n.in +4\nb\n.in\nc", "a\n\n    b\n\nc"),
        ("kept\n.ti +4\ntoo", "kept\ntoo"),
        ("\\&.not a request", ".not a request"),
        (".js files are text", ".js files are text"),
        ("'tis text", "'tis text"),
        (".XY unknown macro", ""),
        (".nf\\f(CW  a  b\nc\\fP\n.fi\nd", "  a  b\nc\n\nd"),
        (".br and words", "and words"),
        (".tl 'left'mid'right'", "left mid right"),
    ],
)
def test_text_and_breaks(source: str, expected: str) -> None:
    assert (
        body(source).rstrip() == expected.rstrip()
        if expected
        else "unknown" not in shown(BODY + source)
    )


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        (".ds x value\n\\*x", "value"),
        (".ds xy value\n\\*(xy", "value"),
        (".ds long value\n\\*[long]", "value"),
        ('.ds x "  led by blanks\n[\\*x]', "[ led by blanks]"),
        (".ds x a\n.as x b\n\\*x", "ab"),
        (".ds a in\\*b\n.ds b ner\n\\*a", "in"),
        (".ds b ner\n.ds a in\\\\*b\n\\*a", "inner"),
        (".ds a b\n.ds xb deep\n\\*[x\\*a]", "deep"),
        (".nr n 3\n\\nn", "3"),
        (".nr n 3\n.nr n +2\n\\nn", "5"),
        (".nr n 3\n.nr n -5\n\\nn", "-2"),
        (".nr n 1 2\n\\n+n \\n+n", "3 5"),
        (".nr n 3*4+1\n\\nn", "13"),
        (".nr n (1+2)*3\n\\nn", "9"),
        (".nr n 7/2\n\\nn", "3"),
        (".nr n 7%4\n\\nn", "3"),
        (".nr n 1i\n\\nn", "240"),
        (".nr n 5\n.af n iv\n\\nn", "5"),
        (".nr n 4\n.af n i\n\\nn", "iv"),
        (".nr n 28\n.af n a\n\\nn", "ab"),
        (".nr n 7\n.af n 001\n\\nn", "007"),
        (".nr n \\w'four'\n\\nn", "96"),
        (".length n seven\n\\nn", "5"),
        (".ds s abcdef\n.substring s 1 3\n\\*s", "bcd"),
        (".ds s abc\n.chop s\n\\*s", "ab"),
        (".nr x 1\n.rr x\n.ie r x there\n.el gone", "gone"),
    ],
)
def test_strings_and_registers(source: str, expected: str) -> None:
    assert body(source) == expected


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        (".if n yes\n.if t no", "yes"),
        (".if !t yes", "yes"),
        (".if 1 yes\n.if 0 no", "yes"),
        (".if 2>1 yes", "yes"),
        (".if 'a'a' same\n.if 'a'b' other", "same"),
        (".ds x a\n.if '\\*x'a' same", "same"),
        (".if d SH defined", "defined"),
        (".if !d Nowhere missing", "missing"),
        (".ie t a\n.el b", "b"),
        (".ie n a\n.el b", "a"),
        (".ie t a\n.el .ie n b\n.el c", "b"),
        (".if n \\{\\\none\ntwo\n.\\}\nthree", "one two three"),
        (".if t \\{\\\none\n.if n \\{\\\ntwo\n.\\}\n.\\}\nthree", "three"),
        (".ie t \\{\\\none\n.\\}\n.el \\{\\\ntwo\n.\\}", "two"),
        (".if n \\{one\ntwo\\}\nthree", "one two three"),
        (".nr i 0 1\n.while \\ni<3 \\{\\\n.nr i +1\nturn \\ni\n.\\}", "turn 1 turn 2 turn 3"),
        (
            ".nr i 0 1\n.while 1 \\{\\\n.nr i +1\nturn \\ni\n.if \\ni>1 .break\n.\\}\nout",
            "turn 1 turn 2 out",
        ),
        (".if \\n(.g this-reader", "this-reader"),
    ],
)
def test_conditions_and_loops(source: str, expected: str) -> None:
    assert body(source) == expected


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        (".de HI\nhello \\\\$1\n..\n.HI you", "hello you"),
        ('.de HI\n\\\\$2 \\\\$1\n..\n.HI "b c" a', "a b c"),
        (".de HI\n\\\\n(.$ given: \\\\$*\n..\n.HI a b c", "3 given: a b c"),
        (".de HI\n.shift\n\\\\$1\n..\n.HI a b", "b"),
        (".de HI\nfirst\n.return\nsecond\n..\n.HI", "first"),
        (".de HI xx\nhello\n.xx\n.HI", "hello"),
        (".de A\none\n..\n.am A\ntwo\n..\n.A", "one two"),
        (".de A\nold\n..\n.rn A B\n.B", "old"),
        (".als QQ B\n.QQ bold", "bold"),
        (".de A\none\n..\n.rm A\n.A\ntwo", "two"),
        (".ig\nleft out\n..\nkept", "kept"),
        (".ig end\nleft out\n.end\nkept", "kept"),
        (".de SH\nbroken\n..\nkept", "kept"),
        (".de A\n.A\n..\n.A\nafter", "after"),
        (".de A\n.B\n..\n.de B\n.A\n..\n.A\nafter", "after"),
        (".de A\n.de B\ninner\n...\n..\nafter", "after"),
    ],
)
def test_macros(source: str, expected: str) -> None:
    assert body(source) == expected


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        ("\\-\\-all", "--all"),
        ("C:\\e\\(rsx \\\\y", "C:\\\\x \\y"),
        ("\\(lqq\\(rq \\(oqq\\(cq \\(aqq\\(aq \\(dqq\\(dq", "“q” ‘q’ 'q' \"q\""),
        ("\\(em \\(en \\(bu \\(co \\(tm \\(+- \\(mu", "— – • © ™ ± ×"),
        ("\\(*a\\(*W \\(<= \\(>= \\(!= \\(->", "αΩ ≤ ≥ ≠ →"),
        ("caf\\('e \\[:u] \\(ss", "café ü ß"),
        ("\\[u2603] \\[u0065_0301]", "☃ é"),
        ("\\N'65'\\[char66]", "AB"),
        ("a\\ b\\~c\\0d", "a b c d"),
        ("a\\|b\\^c\\&d\\%e\\:f", "abcdef"),
        ("\\s+2big\\s0 \\s-1small\\s+1 \\s[12]x\\s'0'", "big small x"),
        ("\\m[red]red\\m[] \\v'1'down", "red down"),
        ("a\\h'3'b", "a   b"),
        ("\\o'ab' \\zx\\(bu", "b x•"),
        ("\\fBbold\\fP \\f(BIboth\\fR \\f[I]it\\f[]", "bold both it"),
        (".tr ab\na cat", "b cbt"),
        (".char \\[zz] zed\n\\[zz]", "zed"),
        ("\\[nowhere] \\(zq|", "|"),
        (".ec @\n@(bu x\\y\n.ec\n\\(bu", "• x\\y •"),
        (".eo\na\\fBb\n.ec\n\\(bu", "a\\fBb •"),
        (".cc @\n@br\n.not\n@cc\n.br", ".not"),
    ],
)
def test_escapes(source: str, expected: str) -> None:
    assert body(source).strip() == expected


def test_no_control_character_gets_through() -> None:
    text = shown(BODY + "a\x1b[31mb\x07 \\N'27' \\[u001B] \\[u009B] \\[u202E]\x9b \u202ec")
    assert all(char == "\n" or char.isprintable() for char in text)
    assert "a[31mb" in text


def test_fonts_are_spans() -> None:
    from dowsing.model.markup import spans
    from dowsing.readers.roff.page import read_page

    page = read_page(BODY + "a \\fBb\\fIc\\fPd\\fR e\n.B f\n.BR g h\n\\f(CWi\\fR")
    found = [(span.text, span.style) for span in spans(page.sections[0].blocks[0].text)]
    assert found == [
        ("a ", "plain"),
        ("b", "bold"),
        ("c", "italic"),
        ("d", "bold"),
        (" e ", "plain"),
        ("f", "bold"),
        (" ", "plain"),
        ("g", "bold"),
        ("h ", "plain"),
        ("i", "code"),
    ]
