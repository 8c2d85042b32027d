"""`browse --plain`: one question at a time."""

from __future__ import annotations

import subprocess
import sys

from conftest import Program


def browse(program: Program, answers: str, *arguments: str) -> subprocess.CompletedProcess[str]:
    program.seed(True)
    return subprocess.run(
        [f"{sys.prefix}/bin/dowsing", "--demo", "browse", "--plain", *arguments],
        input=answers,
        capture_output=True,
        text=True,
        check=False,
        timeout=60,
        cwd=program.folder,
        env=program.environment(),
    )


def test_find_read_and_take_a_line(program: Program) -> None:
    done = browse(program, "open roof\n1\n5\ne\n2\n")
    assert (done.returncode, done.stdout) == (0, "vent --all --close --wait=<seconds>\n")
    said = done.stderr
    assert "1 found\n1: vent(1), open and close the roof vents of a glasshouse\n" in said
    assert "vent(1)  open and close the roof vents of a glasshouse\n" in said
    assert "5: EXAMPLES\n" in said
    assert "Close everything before a storm and wait for a minute at most:\n" in said
    assert "2: close all vents before a storm: vent --all --close --wait=<seconds>\n" in said


def test_parts_come_a_screen_at_a_time(program: Program) -> None:
    done = browse(program, "3\nb\n3\n\n\n", "vent")
    assert done.returncode == 0 and done.stdout == ""
    assert done.stderr.count("10 more lines (Enter goes on, b back): ") == 2
    assert done.stderr.count("say how vent is called, and do nothing else") == 1


def test_words_and_other_texts(program: Program) -> None:
    done = browse(program, "/ridge\n/balloon\n/\ns\n9\n1\n\n", "vent")
    said = done.stderr
    assert "1 place\nDESCRIPTION: only the vents on one SIDE of the ridge" in said
    assert "“balloon” is not in this text\n" in said
    assert "say a word behind the slash\n" in said
    assert "a number from 1 to 2\n" in said
    assert "s another text (manual, package)" in said


def test_wrong_answers_are_asked_again(program: Program) -> None:
    done = browse(program, "qqzzxx\nbed\n99\nx\n\n\n")
    said = done.stderr
    assert "nothing found; try other or fewer words\n" in said
    assert said.count("a number from 1 to 10\n") == 2
    assert done.returncode == 0 and "Traceback" not in said


def test_the_end_of_the_input_ends_it(program: Program) -> None:
    assert browse(program, "").returncode == 0
    assert browse(program, "", "vent").returncode == 0
    done = browse(program, "", "nosuchname")
    assert (done.returncode, "nosuchname" in done.stderr) == (1, True)
