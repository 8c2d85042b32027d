"""Already formatted pages."""

from __future__ import annotations

from dowsing.model.document import Literal, Paragraph
from dowsing.model.markup import plain, spans
from dowsing.readers.roff.formatted import read_formatted


def bold(text: str) -> str:
    return "".join(f"{char}\b{char}" for char in text)


def under(text: str) -> str:
    return "".join(f"_\b{char}" for char in text)


PAGE = "\n".join(
    [
        "TIE(1)                   Ropes                   TIE(1)",
        "",
        bold("NAME"),
        "       tie, hitch - fasten",
        "",
        bold("SYNOPSIS"),
        f"       {bold('tie')} {under('rope')}",
        "",
        bold("DESCRIPTION"),
        "       One paragraph that",
        "       goes on.",
        "",
        "       a    b",
        "       c    d",
        "",
        "Ropes                  2026                      TIE(1)",
        "",
    ]
)


def test_a_formatted_page() -> None:
    page = read_formatted(PAGE, "tie", "1")
    assert [section.title for section in page.sections] == ["NAME", "SYNOPSIS", "DESCRIPTION"]
    assert (page.names, page.summary) == (["tie", "hitch"], "fasten")
    synopsis = page.sections[1].blocks[0]
    assert isinstance(synopsis, Paragraph)
    assert [(span.text, span.style) for span in spans(synopsis.text)] == [
        ("tie ", "bold"),
        ("rope", "italic"),
    ]
    text, table = page.sections[2].blocks
    assert isinstance(text, Paragraph) and plain(text.text) == "One paragraph that goes on."
    assert isinstance(table, Literal) and table.text == "a    b\nc    d"


def test_colour_sequences_and_stray_backspaces_go() -> None:
    page = read_formatted(
        "\x1b[1m" + bold("NAME") + "\x1b[0m\n       t - x \x1b[31mred\x1b[m \b\b\n", "t", "1"
    )
    assert page.summary == "x red"
