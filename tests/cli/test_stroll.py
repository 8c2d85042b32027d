"""stroll, what counts as read, and lists that `take` goes on from."""

from __future__ import annotations

import json
import os
import subprocess
import sys

from conftest import Program

DOWSING = os.path.join(os.path.dirname(sys.executable), "dowsing")


def read(program: Program) -> list[str]:
    """The names that were read."""
    path = program.folder / "data" / "demo" / "read.jsonl"
    return (
        [json.loads(line)["name"] for line in path.read_text().splitlines()]
        if path.exists()
        else []
    )


def test_a_stroll_goes_through_all_that_is_not_read_yet(program: Program) -> None:
    seen = set()
    for left in range(5, -1, -1):
        done = program.run("--demo", "stroll", "--family", "glasshouse")
        assert done.returncode == 0
        seen.add(done.stdout.split("  ")[0])
        assert f"{left} of 6 in family glasshouse not read yet" in done.stderr
    assert sorted(seen) == sorted(read(program)) and len(seen) == 6
    over = program.run("--demo", "stroll", "--family", "glasshouse")
    assert (over.returncode, over.stdout) == (1, "")
    assert over.stderr == (
        "dowsing: all 6 of family glasshouse are read; "
        "begin again with: dowsing --demo stroll --family glasshouse --reset\n"
    )
    program.run("--demo", "stroll", "--family", "glasshouse", "--reset", "--yes")
    assert read(program) == []


def test_card_read_and_examples_count_as_read(program: Program) -> None:
    program.out("--demo", "vent")
    program.out("--demo", "read", "mist")
    program.out("--demo", "examples", "harvest")
    program.out("--demo", "read", "mist")
    program.out("--demo", "options", "tine")
    program.out("--demo", "card", "sow", "--format", "json")
    assert read(program) == ["vent(1)", "mist(1)", "harvest(1)"]


def test_progress_in_bars(program: Program) -> None:
    program.out("--demo", "vent")
    program.out("--demo", "glasshouse", "water")
    text = program.out("--demo", "stroll", "--progress")
    assert text.split("\n")[0] == "read  1 of 33 entries that a stroll picks from, 3 %"
    rows = [line.split() for line in text.split("\n") if line[:1].isdigit()]
    assert [(row[0], row[1], row[-3], row[-1]) for row in rows] == [
        ("1", "fernhollow-glasshouse", "2", "33"),
        ("2", "loam", "0", "7"),
        ("3", "dibble", "0", "1"),
        ("4", "glasshouse", "1", "6"),
    ]
    bars = [row[2] for row in rows]
    assert bars[0].startswith("━━·") and bars[1].startswith("·") and bars[3].startswith("━━━━━·")
    told = json.loads(program.out("--demo", "stroll", "--progress", "--format", "json"))
    assert (told["read"], told["total"]) == (1, 33)
    assert told["families"] == [{"name": "glasshouse", "read": 1, "total": 6}]


def test_forgetting_asks_first(program: Program) -> None:
    program.out("--demo", "vent")
    program.out("--demo", "mist")
    done = program.run("--demo", "stroll", "--reset")
    assert done.returncode == 2 and "--yes does it" in done.stderr
    assert read(program) == ["vent(1)", "mist(1)"]
    assert (
        "nothing of package loam was read yet"
        in program.run("--demo", "stroll", "--reset", "--package", "loam").stderr
    )
    assert "2 forgotten" in program.run("--demo", "stroll", "--reset", "--yes").stderr


def test_wrong_use(program: Program) -> None:
    for arguments, status, says in (
        (("--package", "nosuch"), 1, "nothing is in package nosuch"),
        (("--yes",), 2, "--yes goes with --reset"),
        (("--kind", "flower"), 2, "there is no kind"),
        (("--progress", "--reset"), 2, "does not go together with"),
    ):
        done = program.run("--demo", "stroll", *arguments)
        assert done.returncode == status and says in done.stderr


def test_a_progress_that_cannot_be_noted_is_no_reason_to_fail(program: Program) -> None:
    folder = program.folder / "data" / "demo"
    folder.mkdir(parents=True)
    (folder / "read.jsonl").mkdir()
    assert program.out("--demo", "vent").startswith("vent(1)")


def in_one_terminal(program: Program, script: str) -> str:
    """What a script prints in a session of its own, in which `d` is the program on the demo
    library.
    """
    return subprocess.run(
        ["bash", "-c", f'd() {{ "{DOWSING}" --demo "$@"; }}\n{script}'],
        env=program.environment(PATH=os.environ["PATH"]),
        cwd=program.folder,
        stdin=subprocess.DEVNULL,
        capture_output=True,
        text=True,
        start_new_session=True,
        check=False,
        timeout=120,
    ).stdout


def test_every_list_has_numbers_for_take(program: Program) -> None:
    assert in_one_terminal(program, "d near vent >/dev/null; d take 1 | head -n 1").startswith(
        "mist(1)"
    )
    assert in_one_terminal(program, "d words verbs >/dev/null; d take 2").startswith("1  ")
    assert in_one_terminal(program, "d words packages >/dev/null; d take 3") == in_one_terminal(
        program, "d find --package dibble"
    )
    assert (
        in_one_terminal(program, "d vent >/dev/null; d take 2")
        == "vent --all --close --wait=<seconds>\n"
    )
    usage = in_one_terminal(program, "d sources vent >/dev/null; d take 2")
    assert "usage, as the program prints it" in usage
    assert in_one_terminal(
        program, "d stroll --progress >/dev/null; d take 3 2>&1 | tail -n 1"
    ).startswith("dowsing: 0 of 1")
    assert in_one_terminal(
        program,
        "d find vent >/dev/null; d find --count mist >/dev/null; d find zzzz; d take 1 | head -n 1",
    ).startswith("vent(1)")
    composed = "d compose --kinds >/dev/null; d take 1 2>&1"
    assert "there is no terminal to draw on" in in_one_terminal(program, composed)
    assert "fernhollow" in in_one_terminal(
        program, "d words packages >/dev/null; d take 1 --copy 2>&1; d words packages"
    )
