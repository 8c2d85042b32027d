"""What a line lacks of a sentence, and misspelled words in lines that destroy something."""

from __future__ import annotations

import json

import pytest
from conftest import Program

from dowsing.tasks.completeness import Lacking


def asked(program: Program, sentence: str) -> dict:  # type: ignore[type-arg]
    done = program.run("task", "--format", "json", "--", sentence)
    found: dict = json.loads(done.stdout)  # type: ignore[type-arg]
    return found


@pytest.mark.parametrize(
    "sentence",
    [
        "remove the brnch old-login",
        "remove the grop staff2",
        "delete the fodler drafts",
        "stop the contaner web1",
        "drop the databse shop",
        "remove the packge htop",
        "kill the prcess nginx",
    ],
)
def test_a_misspelled_noun_is_nothing_to_be_removed(program: Program, sentence: str) -> None:
    noun = sentence.split()[2]
    for answer in asked(program, sentence).get("answers", []):
        assert noun not in answer["line"], answer["line"]


@pytest.mark.parametrize(
    ("sentence", "line"),
    [
        ("delete notes.txt", "rm notes.txt"),
        ("stop nginx", "systemctl stop nginx"),
        ("remove the branch old-login", "git branch -d old-login"),
        ("remove the user fred", "userdel fred"),
        ("stop the container web1", "docker stop web1"),
    ],
)
def test_what_is_named_is_removed_or_stopped(program: Program, sentence: str, line: str) -> None:
    assert asked(program, sentence)["answers"][0]["line"] == line


@pytest.mark.parametrize(
    ("sentence", "lacks"),
    [
        ("pages 3 to 7 of book.pdf into extract.pdf, and rotate cover.pdf", "cover.pdf"),
        ("logs of container api, last 100 lines, translated into welsh", "translated"),
        ("wrap notes.txt at 72 columns and write it to notes-72.txt", "notes-72.txt"),
    ],
)
def test_a_line_that_lacks_something_is_not_sure(
    program: Program, sentence: str, lacks: str
) -> None:
    found = asked(program, sentence)
    assert lacks in found["not_used"]
    assert found["likely"] < 0.75
    assert not any(lacks in one for one in found["understood"])
    told = program.run("task", sentence).stdout
    assert "not in the line: " in told


def test_what_would_change_something_and_lacks_much_is_not_shown_first(program: Program) -> None:
    found = asked(program, "remove stopped containers older than 24 hours without asking me")
    first = (found.get("answers") or [{"line": ""}])[0]["line"]
    assert "-delete" not in first and "rm" not in first


def test_much_is_a_value_or_several_words() -> None:
    assert not Lacking([], []).much and not Lacking([], ["one"]).much
    assert Lacking([], ["one", "two"]).much and Lacking(["a.txt"], []).much
    assert Lacking(["a.txt"], ["one", "one"]).told == ["a.txt", "one"]
