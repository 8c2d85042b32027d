"""unpick, next, options and syntax, on the demo library and on lines that are odd."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from pathlib import Path

import pytest
from conftest import Program


def test_unpick_shows_sentence_pieces_and_changes(garden: Program) -> None:
    assert garden.out("unpick", "harvest -m 60 tomato1 > basket.txt").split("\n") == [
        "   harvest -m 60 tomato1 > basket.txt",
        "",
        "   Gathers what is ripe and weighs it (harvest): tomato1, and writes that to",
        "   basket.txt.",
        "",
        "CHANGES",
        "   > basket.txt: replaces the contents of basket.txt, if there is such a file",
        "",
        "   harvest       gather what is ripe and weigh it  harvest(1)",
        "   -m 60         --min-weight: leave fruit lighter than this on the plant",
        "                 [default: 40]",
        "   tomato1       bed",
        "   > basket.txt  what it prints goes to basket.txt, whose contents are replaced",
        "",
        "From harvest(1). Next: dowsing options harvest · dowsing syntax harvest",
        "",
    ]


def test_unpick_marks_a_mistake_and_ends_with_1(garden: Program) -> None:
    done = garden.run("unpick", "harvest --min-wieght 60 tomato1")
    assert done.returncode == 1
    lines = done.stdout.split("\n")
    assert lines[0] == "   harvest --min-wieght 60 tomato1"
    assert lines[1].startswith("           ^^^^^^^^^^^^")
    assert "unknown option: harvest(1) has no --min-wieght; nearest: --min-weight" in done.stdout


def test_unpick_as_json(garden: Program) -> None:
    answer = json.loads(garden.out("unpick", "harvest -m 60 tomato1", "--format", "json"))
    assert list(answer) == ["line", "says", "pieces", "changes", "effects", "problem"]
    command, option, value, operand = answer["pieces"]
    assert {
        key: option[key]
        for key in ("text", "start", "end", "role", "flags", "value", "page", "problem")
    } == {
        "text": "-m",
        "start": 8,
        "end": 10,
        "role": "option",
        "flags": ["-m", "--min-weight"],
        "value": "60",
        "page": "harvest(1)",
        "problem": None,
    }
    assert (command["role"], value["of"], operand["what"]) == ("command", "-m", "bed")


def test_the_line_may_come_as_words_or_from_the_standard_input(garden: Program) -> None:
    whole = garden.out("unpick", "harvest -m 60 tomato1")
    assert garden.out("unpick", "harvest", "-m", "60", "tomato1") == whole
    done = subprocess.run(
        [os.path.join(os.path.dirname(sys.executable), "dowsing"), "unpick"],
        input="harvest -m 60 tomato1\n",
        env=garden.environment(),
        cwd=garden.folder,
        capture_output=True,
        text=True,
        check=True,
    )
    assert done.stdout == whole


def test_rewriting(garden: Program) -> None:
    assert (
        garden.out("unpick", "--long", "harvest -m 60 tomato1")
        == "harvest --min-weight 60 tomato1\n"
    )
    assert (
        garden.out("unpick", "--short", "harvest --min-weight 60 tomato1")
        == "harvest -m 60 tomato1\n"
    )
    done = garden.run("unpick", "--tidy", "harvest -m 40 tomato1")
    assert (done.stdout, done.stderr) == (
        "harvest tomato1\n",
        "dowsing: left out -m 40: that is the default\n",
    )


def test_aliases(garden: Program) -> None:
    (garden.folder / "aliases").write_text("alias hv='harvest -m 60'\n")
    assert "stands for: harvest -m 60" in garden.out("unpick", "--aliases", "aliases", "hv tomato1")
    assert garden.run("unpick", "--aliases", "none", "hv").returncode == 3


@pytest.mark.parametrize(
    "line", ['harvest "tomato', "harvest |", "harvest $(", "for b in x; do", "harvest <<END"]
)
def test_unfinished_lines_give_their_pieces_and_1(garden: Program, line: str) -> None:
    done = garden.run("unpick", line)
    assert done.returncode == 1
    assert "^" in done.stdout.split("\n")[1]


def test_unknown_commands_are_said_to_be_unknown(garden: Program) -> None:
    done = garden.run("unpick", "frobnicate -x bed")
    assert done.returncode == 0
    assert "nothing here has that name, and nothing documents it" in done.stdout
    done = garden.run("unpick", "harvset bed")
    assert done.returncode == 1
    assert "nearest: harvest" in done.stdout


def test_binary_bytes_and_long_lines(garden: Program) -> None:
    for data in (bytes(range(256)) * 20, b"harvest " + b"-m 1 " * 8_000, b"\xff\xfe'\x1b[31m"):
        done = subprocess.run(
            [os.path.join(os.path.dirname(sys.executable), "dowsing"), "unpick"],
            input=data,
            env=garden.environment(),
            cwd=garden.folder,
            capture_output=True,
            timeout=60,
            check=False,
        )
        assert done.returncode in (0, 1)
        assert b"Traceback" not in done.stderr
        assert b"\x1b" not in done.stdout


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["unpick", ""], "the line is empty"),
        (["next", "harvest", "--at", "99"], "--at is a place in the line, 0 to 7"),
        (["options"], "say a name"),
        (["options", "nosuch"], "there is no page named nosuch"),
        (
            ["options", "harvest", "--min-wieght"],
            "harvest(1) has no option for “--min-wieght”; nearest: --min-weight",
        ),
        (["options", "fernhollow"], "the text of fernhollow(7) lists no options"),
        (["syntax", "nosuch"], "there is no page named nosuch"),
        (["syntax", "fernhollow"], "the text of fernhollow(7) shows no form"),
    ],
)
def test_wrong_input_gets_one_line(garden: Program, arguments: list[str], says: str) -> None:
    done = garden.run(*arguments)
    assert done.returncode in (1, 2)
    assert done.stdout == ""
    assert says in done.stderr
    assert (
        len(
            [
                line
                for line in done.stderr.splitlines()
                if "pages read" not in line and "building" not in line
            ]
        )
        == 1
    )


def test_next_tells_what_is_required_first(garden: Program) -> None:
    assert garden.out("next", "glasshouse ").split("\n")[:10] == [
        "   glasshouse ",
        "   cannot be run yet: needs <command>",
        "",
        "SUBCOMMANDS (required)",
        "   close   see visitors out and lock the doors",
        "   open    let visitors into a house",
        "   report  say how the houses are",
        "   shade   draw or open the blinds",
        "   water   water the beds of a house",
        "",
    ]


def test_next_as_json(garden: Program) -> None:
    answer = json.loads(garden.out("next", "glasshouse wa", "--format", "json"))
    assert (answer["complete"], answer["problem"], answer["typed"]) == (False, None, "wa")
    [one] = answer["expects"]
    assert {
        key: one[key] for key in ("what", "text", "placeholder", "values", "required", "says")
    } == {
        "what": "subcommand",
        "text": "water",
        "placeholder": "",
        "values": None,
        "required": True,
        "says": "water the beds of a house",
    }


def test_next_marks_where_it_went_wrong(garden: Program) -> None:
    done = garden.run("next", "harvest --wsah tomato1 ")
    assert done.returncode == 1
    assert "unknown option: harvest(1) has no --wsah; nearest: --wash" in done.stdout


def test_next_completes_files(garden: Program) -> None:
    (garden.folder / "basket.txt").write_text("")
    assert "basket.txt" in garden.out("next", "harvest > ba")


def test_options_as_a_table_one_spelling_and_words(garden: Program) -> None:
    table = garden.out("options", "harvest")
    assert table.startswith("harvest(1)  ")
    assert "   -m, --min-weight <grams>  leave fruit lighter than this on the plant" in table
    one = garden.out("options", "harvest", "-m")
    assert "1 of " in one.split("\n")[0]
    assert "default: 40" in one
    assert "--min-weight" in garden.out("options", "harvest", "lighter", "fruit")
    assert "--wash" not in garden.out("options", "harvest", "lighter", "fruit")


def test_options_as_json(garden: Program) -> None:
    answer = json.loads(garden.out("options", "harvest", "-m", "--format", "json"))
    [option] = answer["options"]
    assert (answer["name"], answer["section"], option["flags"], option["default"]) == (
        "harvest", "1", ["-m", "--min-weight"], "40",
    )  # fmt: skip


def test_syntax_in_words(garden: Program) -> None:
    assert garden.out("syntax", "prune").split("\n") == [
        "prune(1)  cut back plants that grew too far",
        "",
        "FORM 1",
        "   prune [--hard | --soft] [-k buds] {plant...}",
        "",
        "   one of 2  may be left out",
        "     --hard  Cut down to the old wood.",
        "     --soft  Cut a third. This is the default.",
        "   -k buds   Keep at least so many buds.  may be left out",
        "   plant     required, may be repeated",
        "",
        "ONE OR THE OTHER",
        "   --hard or --soft",
        "",
        "From prune(1). Next: dowsing options prune · dowsing card prune",
        "",
    ]


def test_syntax_as_json(garden: Program) -> None:
    answer = json.loads(garden.out("syntax", "prune", "--format", "json"))
    [form] = answer["forms"]
    assert form["line"] == "prune [--hard | --soft] [-k buds] {plant...}"
    assert [(e["text"], e["what"], e["required"], e["repeats"]) for e in form["elements"]] == [
        ("prune", "command", True, False), ("--hard | --soft", "choice", False, False),
        ("-k buds", "option", False, False), ("plant", "operand", True, True),
    ]  # fmt: skip
    assert answer["apart"] == [["--hard", "--soft"]]


def test_a_number_after_a_letter_whose_long_spelling_takes_one(program: Program) -> None:
    [_, option, house] = json.loads(
        program.out("--demo", "unpick", "vent -o33 palmhouse", "--format", "json")
    )["pieces"]
    assert (option["text"], option["value"], option["problem"]) == ("-o", "33", None)
    assert house["role"] == "operand"
    assert program.run("--demo", "unpick", "vent -a33 palmhouse").returncode == 1


def test_options_of_ours_behind_what_is_asked(garden: Program) -> None:
    """Behind a name, an option of ours counts only as it must be written."""
    assert garden.out("options", "mist", "-nq").split("\n")[0] == "mist(1)  2 of 5 options for -nq"
    assert garden.out("options", "mist", "-f").split("\n")[0] == "mist(1)  1 of 5 options for -f"
    unknown = garden.run("options", "mist", "--color")
    assert (unknown.returncode, unknown.stderr.split(";")[0]) == (
        1,
        "dowsing: mist(1) has no option for “--color”",
    )
    assert "mist(1)" in garden.out("options", "mist", "-f", "--color", "never")
    assert json.loads(garden.out("options", "mist", "-f", "--format", "json"))["name"] == "mist"
    wrong = garden.run("task", "pack", "a", "folder", "--limit", "0")
    assert (wrong.returncode, wrong.stderr) == (
        2,
        "dowsing: --limit is a number from 1 to 20, not 0\n",
    )


SCRIPT = """\
#!/bin/sh
vent --open 40 palmhouse
vent --opne 40 palmhouse
rm -rf $old/x
"""


def test_unpick_reads_a_script(garden: Program, tmp_path: Path) -> None:
    path = tmp_path / "round.sh"
    path.write_text(SCRIPT)
    done = garden.run("unpick", str(path))
    assert done.returncode == 1
    lines = done.stdout.split("\n")
    assert lines[0] == "round.sh  shell script, 4 lines, 3 commands"
    assert "   unsafe    quoted so that it may go wrong: $old/x (line 4)" in lines
    assert any(
        line.startswith("   3  --opne  unknown option: vent(1) has no --opne") for line in lines
    )
    assert "   4 ! Removes $old/x, with all that is in it, without asking" in lines


def test_unpick_of_a_script_only_effects_as_json(garden: Program, tmp_path: Path) -> None:
    path = tmp_path / "round.sh"
    path.write_text(SCRIPT)
    done = garden.run("unpick", str(path), "--only", "effects", "--format", "json")
    found = json.loads(done.stdout)
    assert set(found) == {"file", "kind", "lines", "effects"}
    assert [(one["line"], one["does"], one["words"]) for one in found["effects"]] == [
        (4, "destroys", "rm")
    ]


def test_unpick_reads_a_script_on_its_input(garden: Program) -> None:
    garden.seed(False)
    done = subprocess.run(
        [os.path.join(os.path.dirname(sys.executable), "dowsing"), "unpick", "--format", "json"],
        input="vent a\nmist b\n",
        env=garden.environment(),
        capture_output=True,
        text=True,
        check=False,
    )
    found = json.loads(done.stdout)
    assert (found["file"], found["kind"]) == ("standard input", "shell script")
    assert [(one["line"], one["text"]) for one in found["steps"]] == [(1, "vent a"), (2, "mist b")]


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["--long"], "--long, --short and --tidy rewrite one line, not a script"),
        (["--only", "all"], "--only takes problems or effects"),
    ],
)
def test_wrong_usage_with_a_script(
    garden: Program, tmp_path: Path, arguments: list[str], says: str
) -> None:
    path = tmp_path / "round.sh"
    path.write_text(SCRIPT)
    done = garden.run("unpick", str(path), *arguments)
    assert done.returncode == 2
    assert says in done.stderr
    assert "Traceback" not in done.stderr


def test_a_script_for_another_interpreter_is_refused(garden: Program, tmp_path: Path) -> None:
    path = tmp_path / "a.py"
    path.write_text("#!/usr/bin/env python3\nprint(1)\n")
    done = garden.run("unpick", str(path))
    assert done.returncode == 2
    assert (
        "is a program for another interpreter; of scripts those of the shell are read"
        in done.stderr
    )


def test_unpick_says_what_it_left_as_it_was(garden: Program) -> None:
    done = garden.run("unpick", "--long", "vent -o 40 -x palmhouse")
    assert done.stdout == "vent --open 40 -x palmhouse\n"
    assert "kept -x: nothing here tells of it" in done.stderr
