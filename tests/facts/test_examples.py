"""Examples as pages of many makers give them."""

from __future__ import annotations

import pytest

from dowsing.facts import with_facts
from dowsing.readers.roff.page import read_page


def examples(body: str, section: str = "1", name: str = "tie") -> list[tuple[str, str]]:
    page = with_facts(
        read_page(
            f".TH X {section}\n.SH NAME\n{name} \\- fasten\n.SH EXAMPLES\n{body}", name, section
        )
    )
    return [(example.task, example.line) for example in page.examples]


@pytest.mark.parametrize(
    ("body", "expected"),
    [
        ("Tie a knot:\n.PP\n.nf\n$ tie rope\n.fi", [("Tie a knot", "tie rope")]),
        ("Tie a knot:\n.PP\n.RS\ntie rope\n.RE", [("Tie a knot", "tie rope")]),
        (".TP\n.B tie rope\nTies a knot.", [("Ties a knot.", "tie rope")]),
        (".TP\nTie a knot\n.nf\ntie rope\n.fi", [("Tie a knot", "tie rope")]),
        (
            ".nf\n# tie a knot\ntie rope\n\n# loosen it\ntie -u rope\n.fi",
            [("tie a knot", "tie rope"), ("loosen it", "tie -u rope")],
        ),
        ("See:\n.PP\n.nf\n$ tie -l\nknot   rope\n.fi", [("See", "tie -l")]),
        ("Long:\n.PP\n.nf\n$ tie \\e\n   -a rope\n.fi", [("Long", "tie -a rope")]),
        ("First:\n.PP\n.nf\n$ cd deck\n$ tie rope\n.fi", [("First", "tie rope")]),
        ("Just text, no line.", []),
        ("Twice:\n.PP\n.nf\n$ tie x\n$ tie x\n.fi", [("Twice", "tie x")]),
    ],
)
def test_examples(body: str, expected: list[tuple[str, str]]) -> None:
    assert examples(body) == expected


def test_subcommands_are_written_as_words() -> None:
    assert examples("Mend:\n.PP\n.nf\n$ kit mend rope\n.fi", name="kit-mend") == [
        ("Mend", "kit mend rope")
    ]


def test_a_program_text_is_no_command_line() -> None:
    body = "Use it so:\n.PP\n.nf\n#include <tie.h>\nint n = tie(rope);\n.fi"
    assert examples(body, section="3") == []


def test_only_sections_of_examples_count() -> None:
    page = with_facts(
        read_page(
            ".TH X 1\n.SH NAME\ntie \\- fasten\n.SH DESCRIPTION\n.nf\n$ tie rope\n.fi\n", "tie", "1"
        )
    )
    assert page.examples == []


@pytest.mark.parametrize(
    ("body", "expected"),
    [
        (
            "The rope holds. For example:\n.PP\n.nf\ntie -l rope\n.fi",
            [("The rope holds. For example", "tie -l rope")],
        ),
        (
            "To loosen it, use:\n.PP\n.RS\n.nf\n$ tie -u rope\n.fi\n.RE",
            [("To loosen it, use", "tie -u rope")],
        ),
        (
            ".TP\n.B \\-l\nTies it longer. Not too long.\n.IP\nExample:\n.IP\n.nf\n tie -l "
            "rope\n.fi",
            [("-l: Ties it longer", "tie -l rope")],
        ),
        ("It prints what follows.\n.PP\n.nf\ntie -l rope\n.fi", []),
        ("Forms are, for example:\n.PP\n.nf\ntie [-l] rope\ntie rope ...\n.fi", []),
        ("For example:\n.PP\n.nf\nknot rope\n.fi", []),
    ],
)
def test_examples_in_running_text(body: str, expected: list[tuple[str, str]]) -> None:
    page = with_facts(
        read_page(f".TH X 1\n.SH NAME\ntie \\- fasten\n.SH DESCRIPTION\n{body}", "tie", "1")
    )
    assert [(example.task, example.line) for example in page.examples] == expected
