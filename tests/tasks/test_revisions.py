"""What is said again about a task."""

from __future__ import annotations

import pytest

from dowsing.tasks.revisions import Step, StepKind, left_open, steps_of


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("no, not that", StepKind.NOT_THAT),
        ("not that one", StepKind.NOT_THAT),
        ("that's wrong", StepKind.NOT_THAT),
        ("something else, please", StepKind.SAYS),
        ("something else please", StepKind.NOT_THAT),
        ("the next one", StepKind.NOT_THAT),
        ("no", StepKind.NOT_THAT),
        ("with the other tool", StepKind.OTHER_TOOL),
        ("use another command", StepKind.OTHER_TOOL),
        ("not the hidden ones", StepKind.SAYS),
        ("no folders", StepKind.SAYS),
        ("with tar", StepKind.SAYS),
        ("on another port", StepKind.SAYS),
    ],
)
def test_what_a_revision_does(text: str, kind: StepKind) -> None:
    assert steps_of([text]) == [Step(kind, text)]


@pytest.mark.parametrize(
    ("again", "held"),
    [
        (["into b.tgz", "undo that"], []),
        (["into b.tgz", "verbose", "never mind"], ["into b.tgz"]),
        (["into b.tgz", "not that", "take that back"], ["into b.tgz"]),
        (["undo"], []),
        (["a", "b", "undo that", "undo that", "c"], ["c"]),
        (["no, to c.txt"], ["to c.txt"]),
        (["undo the changes of a.txt"], ["undo the changes of a.txt"]),
    ],
)
def test_what_was_taken_back_is_gone(again: list[str], held: list[str]) -> None:
    assert [step.text for step in steps_of(again)] == held


def test_what_is_left_open() -> None:
    assert left_open("on another port and for a different user") == ["port", "user"]
    assert left_open("another line") == []
