"""Usage texts as libraries for arguments lay them out: those of `layouts/`, written for this, and
those of `made.jsonl`, which programs printed that were made with real libraries, with the truth of
their definition.
"""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from dowsing.facts import with_facts
from dowsing.model.document import Document
from dowsing.readers.usage.layouts import names_of
from dowsing.readers.usage.usage_text import read_usage

HERE = Path(__file__).parent
MADE = [json.loads(line) for line in (HERE / "made.jsonl").read_text("utf-8").splitlines()]

#: A line for each option: spellings, what it takes, its values, its default, `again`; for each
#: subcommand its name with others for it, its form and text; first the summary.
TOLD = json.loads((HERE / "layouts.json").read_text("utf-8"))


def read(text: str, name: str = "sprinkle") -> Document:
    return with_facts(read_usage(text, name, "usage"))


def told(document: Document) -> list[str]:
    lines = [document.summary]
    for one in document.options:
        takes = f"{one.argument}{'?' if one.argument_optional else ''}" if one.argument else "-"
        values = "|".join(one.values or [])
        again = "again" if one.repeatable else ""
        lines.append(" / ".join([" ".join(one.flags), takes, values, one.default or "", again]))
    lines += [
        f"> {' '.join([one.name, *one.aliases])} / {one.form} / {one.text}"
        for one in document.subcommands
    ]
    return lines


@pytest.mark.parametrize("name", sorted(TOLD))
def test_a_layout(name: str) -> None:
    assert told(read((HERE / "layouts" / f"{name}.txt").read_text("utf-8"))) == TOLD[name]


def test_all_layouts_are_told() -> None:
    assert sorted(path.stem for path in (HERE / "layouts").iterdir()) == sorted(TOLD)


@pytest.mark.parametrize("known", MADE, ids=[f"{one['library']} {one['words']}" for one in MADE])
def test_what_a_library_prints(known: dict) -> None:  # type: ignore[type-arg]
    document = read(known["text"], known["words"])
    found = {flag: one for one in document.options for flag in one.flags}
    assert set(found) == {flag for one in known["options"] for flag in one["flags"]}
    for one in known["options"]:
        option = found[one["flags"][0]]
        assert set(one["flags"]) == set(option.flags)
        assert set(option.values or []) == set(one["choices"] or []), option.flags
        assert one["default"] in (None, option.default), option.flags
        squeezed = "".join(one["text"].split()).rstrip(".").lower()
        assert squeezed in "".join(option.text.split()).lower(), option.flags
    listed = {one.name: one.text.rstrip(".") for one in document.subcommands}
    assert listed == {name: text.rstrip(".") for name, text in known["subcommands"].items()}
    if known["summary"] is not None:
        assert document.summary == known["summary"].rstrip(".")


def test_what_an_option_takes_is_told_by_all_libraries_but_one() -> None:
    wrong = []
    for known in MADE:
        found = {f: one for one in read(known["text"], known["words"]).options for f in one.flags}
        wrong += [
            (known["library"], one["flags"])
            for one in known["options"]
            if bool(found[one["flags"][0]].argument) != bool(one["argument"])
        ]
    # in its boxes an option that is counted has the word for a number
    assert {library for library, _ in wrong} <= {"typer"}


def test_boxes_are_taken_away_without_their_rows() -> None:
    rows = [
        ("--litres", "-l", "", "INTEGER", "So much for each"),
        ("", "", "", "", "bed [default: 5]"),
        ("--mode", "-m", "", "[mist|drip]", "How to water"),
        ("--quiet", "", "--no-quiet", "", "Say nothing"),
    ]
    lines = [
        " Usage: sprinkle [OPTIONS] BED",
        "",
        "╭─ Arguments ──────────────────────────╮",
        "│ *    bed      TEXT  The bed [required] │",
        "╰──────────────────────────────────────╯",
        "╭─ Options ──────────────────────────────────────────╮",
        *(f"│ {a:<10}{b:<4}{c:<12}{d:<13}{e:<20} │" for a, b, c, d, e in rows),
        "╰────────────────────────────────────────────────────╯",
    ]
    text = "\n".join(lines)
    assert names_of(lines)[0] == "boxes"
    assert told(read(text)) == [
        "",
        "--litres -l / INTEGER /  / 5 / ",
        "--mode -m / mist|drip / mist|drip /  / ",
        "--quiet --no-quiet / - /  /  / ",
    ]


def test_a_frame_that_is_not_closed_is_text() -> None:
    assert "│ a" in read("Usage: sprinkle\n\n╭─ Notes ─╮\n│ a  b │\n").sections[-1].blocks[0].text  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("text", "summary"),
    [
        ("sprinkle 1.2.3\n\nWaters the beds.\n\nUsage: sprinkle", "Waters the beds"),
        ("sprinkle - water the beds\n\nUsage: sprinkle", "water the beds"),
        ("Usage: sprinkle BED\n\nShow this help message.\n", ""),
        ("Usage: sprinkle BED\n\nBy default, output is written to stdout.\n", ""),
        ("Usage: sprinkle BED\n\nNora Fern <nora@fern.example>\n\nWaters beds.", "Waters beds"),
        ("Usage: list [options]\n\nLists the beds of the house.\n", ""),
        ("sprinkle: unknown option --help\nUsage: sprinkle BED\n", ""),
        ("Usage: sprinkle BED\n\n2026-01-02 10:00 started\n\nWaters the beds.", "Waters the beds"),
    ],
)  # fmt: skip
def test_what_a_text_says_of_its_program(text: str, summary: str) -> None:
    assert read(text).summary == summary
