"""Tables and equations."""

from __future__ import annotations

import pytest
from conftest import body


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        (".TS\nl l.\na\tbb\nccc\td\n.TE", "a    bb\nccc  d"),
        (".TS\ntab(|);\nl r.\na|1\nb|100\n.TE", "a    1\nb  100"),
        (".TS\ntab(|) box;\nlB lB\n_\nl l.\nh|i\na|b\n.TE", "h  i\n────\na  b"),
        (".TS\ntab(:);\nc s\nl l.\nover both\na:b\n.TE", "over both\na  b"),
        (".TS\ntab(:);\nl l.\nT{\na text\nblock\nT}:b\n.TE", "a text block  b"),
        (
            ".TS\ntab(:);\nl l.\na:T{\n.B bold\ntext\nT}\n_\nb:c\n.TE",
            "a  bold text\n────────────\nb  c",
        ),
        (".TS\ntab(:);\nl l.\na:b\n.T&\nl s.\nwhole row\n.TE", "a  b\nwhole row"),
        (".TS\ntab(:);\nl l\nl ^.\na:b\nc:\\^\n.TE", "a  b\nc"),
        (".TS\ntab(:);\nl.\na:extra words\n.TE", "a  extra words"),
        (".TS\nl | l .\na\tb\n.TE", "a  b"),
        (".TS\nlw(3i) lp-1fB.\na\tb\n.TE", "a  b"),
        (".TS\nallbox;\n.TE\nafter", "after"),
        (".TS\ntab(:);\nl l.\na:T{\nC:\\eFiles\\eNew\nT}\n.TE", "a  C:\\Files\\New"),
        (".TS\nname\tvalue\nlog\t\\fBl\\fP\n.TE", "name  value\nlog   l"),
    ],
)
def test_tables(source: str, expected: str) -> None:
    assert body(source) == expected


def test_a_table_fits_the_width() -> None:
    long = "word " * 20
    text = body(f".TS\ntab(:);\nl l.\nname:T{{\n{long}\nT}}\n.TE", width=40)
    assert max(len(line) for line in text.split("\n")) <= 37
    assert text.split() == ["name", *["word"] * 20]


@pytest.mark.parametrize(
    ("equation", "expected"),
    [
        ("x sup 2", "x^2"),
        ("a sub i", "a_i"),
        ("{a + b} over c", "(a + b) / c"),
        ("sqrt {x + 1}", "√(x + 1)"),
        ("alpha times beta <= inf", "α × β ≤ ∞"),
        ("left ( x right )", "( x)"),
        ('"as it is" ~ y', "as it is y"),
        ("sum from i to n", "∑_i^n"),
        ("{" * 80 + "x" + "}" * 80, ""),
    ],
)
def test_equations(equation: str, expected: str) -> None:
    assert body(f".EQ\n{equation}\n.EN\nend").startswith(expected)


def test_inline_equations_and_definitions() -> None:
    assert body(".EQ\ndelim $$\ndefine vol 'r sup 3'\n.EN\nIt is $vol$ here.") == "It is r^3 here."


@pytest.mark.parametrize(
    ("text", "shown"),
    [
        ("It is %x over\n2% and\n%y%.", "It is x / 2 and y."),
        (".nf\n%a\n over b% c\nd", "a / b c\nd"),
        ("for 5 % of\nit", "for 5 % of it"),  # never ends
        ("%a over\n.B bold\nb%", "%a over bold b%"),
        ("%a% and 5 %\nof %b%", "a and 5 %\nof b".replace("\n", " ")),
        (".EQ\ndelim off\n.EN\n%a over\nb%", "%a over b%"),
        (".EQ\ndelim ()\n.EN\nwith (x over\ny) and (z)", "with x / y and z"),
    ],
)
def test_an_equation_in_the_text_may_go_on_over_lines(text: str, shown: str) -> None:
    assert body(f".EQ\ndelim %%\n.EN\n{text}") == shown
