"""task, examples and take on the demo library."""

from __future__ import annotations

import json
import os
import subprocess
import sys

import pytest
from conftest import Program


def demo(program: Program, *arguments: str) -> str:
    """What a run on the demo library prints."""
    return program.out("--demo", *arguments)


def in_one_terminal(program: Program, script: str) -> str:
    """What a script of a shell prints that runs in a terminal of its own."""
    done = subprocess.run(
        ["bash", "-c", script],
        env=program.environment(PATH=os.environ["PATH"]),
        cwd=program.folder,
        capture_output=True,
        text=True,
        start_new_session=True,
        check=True,
    )
    return done.stdout


def test_a_sentence_to_a_line_with_its_values(program: Program) -> None:
    out = demo(program, "task", "gather fruit heavier than 60 grams in tomato1")
    assert out.split("\n")[:3] == [
        "1  harvest --min-weight 60 tomato1",
        "   gather only fruit of a certain weight",
        "   every option found in harvest(1)",
    ]


def test_json_carries_slots_pieces_and_origin(program: Program) -> None:
    answer = json.loads(demo(program, "task", "cut rose1 back hard", "--format", "json"))[
        "answers"
    ][0]
    assert (answer["line"], answer["checked"], answer["from"]["kind"], answer["from"]["page"]) == (
        "prune --hard rose1", True, "recipe", "prune(1)",
    )  # fmt: skip
    assert answer["slots"] == [{"name": "plant", "value": "rose1", "kind": "text"}]
    assert [piece["role"] for piece in answer["pieces"]] == ["command", "option", "operand"]


def test_the_tasks_of_the_tutorial_give_what_they_promise(program: Program) -> None:
    dowsing = os.path.join(os.path.dirname(sys.executable), "dowsing")
    script = (
        f"{dowsing} --demo task open the vents of the palmhouse a little && "
        f"{dowsing} --demo task --again 'try it first'"
    )
    out = in_one_terminal(program, script)
    lines = [line for line in out.split("\n") if line.startswith("1  ")]
    assert lines == ["1  vent --open=30 palmhouse", "1  vent --dry-run --open=30 palmhouse"]


def test_open_slots_and_defaults(program: Program) -> None:
    assert "prune --hard <plant>" in demo(program, "task", "prune down to the old wood")
    assert "vent --all --close --wait=60" in demo(program, "task", "shut every vent and wait")


def test_again_and_take_in_one_terminal(program: Program) -> None:
    dowsing = os.path.join(os.path.dirname(sys.executable), "dowsing")
    script = (
        f"{dowsing} --demo task harvest a bed in tomato1 >/dev/null && "
        f"{dowsing} --demo task --again 'write it to gathered.csv as a table' >/dev/null && "
        f"{dowsing} --demo take 1 && "
        f"{dowsing} --demo take 1 --unpick | head -n 1; {dowsing} --demo take 99; echo $?"
    )
    out = in_one_terminal(program, script)
    assert out.split("\n") == [
        "harvest --format csv tomato1 > gathered.csv",
        "   harvest --format csv tomato1 > gathered.csv",
        "2",
        "",
    ]


def test_examples_recipes_first_then_those_of_the_page(program: Program) -> None:
    out = demo(program, "examples", "harvest")
    assert out.index("our recipes") < out.index("1 harvest <bed>") < out.index("from harvest(1)")
    assert "harvest --no-wash --format json carrot3" in out
    assert "4 harvest" not in demo(program, "examples", "harvest", "csv")


@pytest.mark.parametrize(
    ("arguments", "status", "says"),
    [
        (["task"], 2, "say what is to be done"),
        (["task", "--again", "faster"], 2, "there was no task in this terminal yet"),
        (["task", "zzqx vvkp"], 1, "nothing known here does that"),
        (
            ["task", " ".join(["zzqx"] * 10_000)],
            2,
            "a task is said in at most 2,000 characters; say the main thing first",
        ),
        (["save"], 2, "the line is empty"),
        (["save", "a\nb"], 2, "one line of at most"),
        (["saved"], 1, "no line is saved yet"),
        (["saved", "--import", "nosuch.toml"], 3, "cannot be read"),
        (["saved", "--drop", "1"], 2, "--drop N means the last list"),
        (["note", "nosuch", "text"], 1, "there is no page named nosuch"),
        (["note"], 1, "there is no remark yet"),
        (["note", "harvest"], 1, "there is no remark on harvest(1) yet"),
        (["take", "--yes"], 2, "nothing was listed"),
        (["examples", "nosuch"], 1, "there is no page named nosuch"),
        (["examples", "moth"], 1, "there is no recipe for moth"),
        (["take"], 2, "nothing was listed in this terminal yet"),
    ],
)
def test_wrong_input_gets_one_line(
    program: Program, arguments: list[str], status: int, says: str
) -> None:
    done = program.run("--demo", *arguments)
    assert done.returncode == status
    assert says in done.stderr
    assert done.stdout == ""


def test_where_no_recipe_serves_a_line_is_put_together_and_said_to_be_that(garden: Program) -> None:
    text = garden.out("--demo", "task", "fold a hen")
    assert text.startswith("Nothing known here does just that; this comes nearest:\n\n1  loam\n")
    assert "no recipe: put together from the forms and options of loam(1)" in text
