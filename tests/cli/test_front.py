"""The front door: what people type or paste behind the program's name."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from conftest import Program


def test_a_message_is_explained(garden: Program) -> None:
    lines = garden.out("cat: beds: No such file or directory").split("\n")
    assert lines[:4] == [
        "ENOENT  a message",
        "",
        "   The path leads to nothing: the file, or a folder on the way to it, is not",
        "   there.",
    ]
    assert "   Usual causes" in lines


def test_a_sign_of_the_shell_as_json(garden: Program) -> None:
    found = json.loads(garden.out("2>&1", "--format", "json"))["pasted"]
    assert (found["kind"], found["says"]) == (
        "sign of the shell",
        "its errors go where its output goes",
    )


def test_a_whole_line_is_told_in_brief(garden: Program) -> None:
    done = garden.run("vent --open=33 palmhouse > log")
    assert done.returncode == 0
    assert done.stdout.split("\n") == [
        "   vent --open=33 palmhouse > log",
        "",
        "   Opens and closes the roof vents of a glasshouse (vent): palmhouse, and writes",
        "   that to log.",
        "",
        "CHANGES",
        "   > log: replaces the contents of log, if there is such a file",
        "",
        "Next: dowsing unpick 'vent --open=33 palmhouse > log'",
        "",
    ]


def test_a_mistake_in_a_line(garden: Program) -> None:
    done = garden.run("vent --opne=33 palmhouse")
    assert done.returncode == 1
    assert "unknown option: vent(1) has no --opne" in done.stdout


def test_two_names_side_by_side(garden: Program) -> None:
    lines = garden.out("difference between vent and mist").split("\n")
    assert [line.split()[0] for line in lines if line.startswith("   ")] == ["vent(1)", "mist(1)"]


def test_a_question_for_a_name_has_its_card(garden: Program) -> None:
    assert garden.out("what is vent").startswith("vent(1)  ")


def test_a_misspelled_subcommand(garden: Program) -> None:
    done = garden.run("glasshouse", "watr")
    assert "glasshouse has no watr; taken as glasshouse water" in done.stderr
    assert done.stdout.startswith("glasshouse-water(1)  ")


def test_a_path(garden: Program, tmp_path: Path) -> None:
    (tmp_path / "bedplan").write_text("fern9 ferns 4 4m\n")
    lines = garden.out(str(tmp_path / "bedplan")).split("\n")
    assert lines[2] == "   A file."
    assert any(line.startswith("   bedplan(5)") for line in lines)


def test_a_command_that_is_known_and_not_here(garden: Program) -> None:
    lines = garden.out("htop").split("\n")
    assert lines[0] == "htop  is not here: no page, program or package of that name"
    assert lines[2] == "   Shows what the machine is busy with."


@pytest.mark.parametrize("text", ["$(", "/nowhere/at/all", "exit status 999", "what is"])
def test_what_says_nothing_is_searched_for(garden: Program, text: str) -> None:
    done = garden.run(text)
    assert done.returncode in (0, 1)
    assert "Traceback" not in done.stderr
