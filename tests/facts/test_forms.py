"""Forms as pages write them, read into trees."""

from __future__ import annotations

import pytest

from dowsing.facts.forms import Element, Notation, parse_form, written

NOTATION = Notation(["sow", "sow-bed"], ["add", "remove", "to"], ["-d", "--depth"])


def shape(element: Element) -> str:
    """A tree in short: what it is, `?` where it may be left out, `+` where it repeats."""
    marks = ("" if element.required else "?") + ("+" if element.repeats else "")
    inner = f"({' '.join(map(shape, element.elements))})" if element.elements else ""
    name = element.text if not element.elements or element.what == "option" else ""
    return f"{element.what}{marks}{':' + name if name else ''}{inner}"


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("sow", "command:sow"),
        ("sow bed", "command:sow operand:bed"),
        ("sow bed...", "command:sow operand+:bed"),
        ("sow bed ...", "command:sow operand+:bed"),
        ("sow [bed]...", "command:sow operand?+:bed"),
        ("sow [bed ...]", "command:sow operand?+:bed"),
        ("sow [OPTION]... BED", "command:sow operand?+:OPTION operand:BED"),
        ("sow <wide bed>", "command:sow operand:<wide bed>"),
        ("sow -v bed", "command:sow option:-v operand:bed"),
        ("sow [-v] bed", "command:sow option?:-v operand:bed"),
        ("sow [-n count] bed", "command:sow option?:-n count(operand:count) operand:bed"),
        ("sow -d deep bed", "command:sow option:-d deep(operand:deep) operand:bed"),
        ("sow [--depth=cm]", "command:sow option?:--depth=cm(operand:cm)"),
        ("sow [--colour[=WHEN]]", "command:sow option?:--colour[=WHEN](operand?:WHEN)"),
        ("sow [-a | -b]", "command:sow choice?(option:-a option:-b)"),
        ("sow -a | -b bed", "command:sow choice(option:-a option:-b) operand:bed"),
        ("sow {add|remove} bed", "command:sow choice(literal:add literal:remove) operand:bed"),
        (
            "sow ( add bed | remove )",
            "command:sow choice(group(literal:add operand:bed) literal:remove)",
        ),
        ("sow [[-a] -b]", "command:sow group?(option?:-a option:-b)"),
        (
            "sow add <bed> [to <house>]",
            "command:sow literal:add operand:<bed> group?(literal:to operand:<house>)",
        ),
        ("sow bed [bed ...]", "command:sow operand:bed operand?+:bed"),
        ("sow [user@]host", "command:sow operand:[user@]host"),
        ("sow [--] <bed>...", "command:sow option?:-- operand+:<bed>"),
        ("sow bed add", "command:sow command:bed literal:add"),
        ("sow file[,file]...", "command:sow operand+:file[,file]"),
        ("sow [-abc] [-d cm]", "command:sow option?:-abc option?:-d cm(operand:cm)"),
    ],
)
def test_trees(line: str, expected: str) -> None:
    notation = NOTATION if " bed add" in line else NOTATION.changed(names=["sow"])
    form = parse_form(line, notation)
    assert form.problem == ""
    assert " ".join(map(shape, form.elements)) == expected


@pytest.mark.parametrize(
    "line",
    [
        "sow [-a | -b] {add | remove} <bed>...",
        "sow [-d cm]... [--colour[=WHEN]] [to house] bed",
        "sow (add bed... | remove) [-v]",
        "sow [[-a] -b [-c]]... [--] [bed]",
    ],
)
def test_the_text_of_a_form_comes_back(line: str) -> None:
    form = parse_form(line, NOTATION.changed(names=["sow"]))
    text = written(form.elements)
    assert parse_form(text, NOTATION.changed(names=["sow"])).elements == form.elements
    assert text.replace("(", "{").replace(")", "}") == line.replace("(", "{").replace(")", "}")


@pytest.mark.parametrize(
    ("line", "problem"),
    [
        ("sow [bed", "“]” is missing"),
        ("sow bed]", "“]” closes nothing"),
        ("sow {a | b] c", "“}” expected, “]” found"),
        ("sow --x[=y", "“]” is missing"),
    ],
)
def test_what_does_not_fit_is_said(line: str, problem: str) -> None:
    form = parse_form(line, NOTATION)
    assert form.problem == problem
    assert form.elements[0].text == "sow"


def test_a_form_that_spells_out_a_placeholder() -> None:
    form = parse_form("PLACE := { bed | house }", NOTATION.changed(literals=["bed", "house"]))
    assert form.defines == "PLACE"
    assert " ".join(map(shape, form.elements)) == "choice(literal:bed literal:house)"
