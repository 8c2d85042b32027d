"""compose without a screen: questions in plain lines, JSON, and what is said where nothing can be
drawn.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys

from conftest import Program

DOWSING = os.path.join(os.path.dirname(sys.executable), "dowsing")


def answered(
    program: Program, answers: list[str], *arguments: str
) -> subprocess.CompletedProcess[str]:
    """A run of `compose --plain` with these answers."""
    return subprocess.run(
        [DOWSING, "--demo", "compose", "--plain", *arguments],
        cwd=program.folder,
        env=program.environment(),
        input="".join(f"{answer}\n" for answer in answers),
        capture_output=True,
        text=True,
        check=False,
        timeout=60,
    )


def test_required_fields_are_asked_for_and_options_looked_for(program: Program) -> None:
    done = answered(program, ["palmhouse", "", "wait", "soon", "30", "close", "y", ""], "vent")
    assert (done.returncode, done.stdout) == (0, "vent -w 30 -c palmhouse\n")
    assert "required: 1 · often used: 6 · all: 9" in done.stderr
    assert "a time is wanted here, such as 10; say it again" in done.stderr


def test_what_is_typed_is_kept_and_help_is_the_text_of_the_page(program: Program) -> None:
    done = answered(
        program, ["?", "south", "", "side", "?", "", ""], "vent", "--side=north", "palmhouse"
    )
    assert done.stdout == "vent --side=north palmhouse south\n"
    assert "HOUSE [palmhouse]: " in done.stderr
    assert "SIDE [north]: " in done.stderr and "From vent(1)." in done.stderr


def test_one_of_a_group_is_enough(program: Program) -> None:
    done = answered(program, ["rose", "", "12", ""], "glasshouse", "water")
    assert (done.returncode, done.stdout) == (0, "glasshouse water --litres 12 rose\n")
    assert "--until-wet?" not in done.stderr, "it is ruled out"


def test_what_is_missing_is_said_and_is_a_mistake(program: Program) -> None:
    done = answered(program, [], "glasshouse", "water")
    assert (done.returncode, done.stdout) == (1, "glasshouse water\n")
    assert "bed: needs bed" in done.stderr and "needs --litres or --until-wet" in done.stderr


def test_a_subcommand_is_asked_for_first(program: Program) -> None:
    done = answered(program, ["remove", "fern3", ""], "irrigate")
    assert (done.returncode, done.stdout) == (0, "irrigate remove fern3\n")


def test_a_form_is_chosen_by_its_number(program: Program) -> None:
    done = answered(program, ["9", "2", "", ""], "sow")
    assert "   2  sow --list" in done.stderr and "a number from 1 to 2" in done.stderr
    assert done.stdout.startswith("sow")


def test_a_line_of_a_file_is_asked_for_column_by_column(program: Program) -> None:
    done = answered(program, ["fern9", "palm", "palms", "41", "4", "4", "4m"], "--line", "bedplan")
    assert (done.returncode, done.stdout) == (0, "fern9 palms 4 4m\n")
    assert "“palm” is none of the allowed values: palms" in done.stderr
    assert "it must be from 1 to 40" in done.stderr
    changed = answered(program, ["", "", "", "9"], "--line", "seedbank", "lettuce:2025:300:4")
    assert changed.stdout == "lettuce:2025:300:9\n"


def test_as_json(program: Program) -> None:
    sheet = json.loads(program.out("--demo", "compose", "vent", "--side=north", "--format", "json"))
    assert (sheet["name"], sheet["line"], sheet["page"]) == ("vent", "vent --side=north", "vent(1)")
    assert sheet["steps"] == {"required": 1, "often used": 6, "all": 9}
    assert sheet["missing"] == ["needs HOUSE"]
    side = next(field for field in sheet["fields"] if field["label"] == "--side")
    assert (side["holds"], side["default"], side["step"]) == (["north"], "both", "often used")
    line = json.loads(
        program.out("--demo", "compose", "--line", "bedplan", "fern3 palms 41", "--format", "json")
    )
    assert line["faults"] == [{"field": "row", "value": "41", "says": "it must be from 1 to 40"}]
    long = json.loads(program.out("--demo", "compose", "vent -c x", "--long", "--format", "json"))
    assert long["line"] == "vent --close x"


def test_the_kinds_of_lines(program: Program) -> None:
    text = program.out("--demo", "compose", "--kinds")
    assert text.startswith(" 1  bedplan       which bed is where  bedplan(5)\n")
    kinds = json.loads(program.out("compose", "--kinds", "--format", "json"))["kinds"]
    names = [kind["name"] for kind in kinds]
    assert {"fstab", "crontab", "passwd", "group", "hosts", "services", "service-unit"} <= set(
        names
    )
    assert "bedplan" not in names, "that is the demo library's"


def test_without_a_terminal_plain_lines_are_offered(program: Program) -> None:
    for command in ("compose", "browse"):
        dumb = program.run("--demo", command, "vent", TERM="dumb")
        assert (dumb.returncode, dumb.stdout) == (3, "")
        assert "a terminal that can be drawn on is needed, and TERM is dumb" in dumb.stderr
    alone = subprocess.run(
        [DOWSING, "--demo", "compose", "vent"],
        env=program.environment(TERM="xterm"),
        stdin=subprocess.DEVNULL,
        capture_output=True,
        text=True,
        check=False,
        start_new_session=True,
    )
    assert (alone.returncode, alone.stderr) == (
        3,
        "dowsing: there is no terminal to draw on; --plain asks field by field instead\n",
    )


def test_what_cannot_be_composed(program: Program) -> None:
    cases = {
        ("compose",): (2, "say what to compose"),
        ("compose", "nosuchthing"): (
            1,
            "nothing here documents nosuchthing, so there is nothing to fill in",
        ),
        ("compose", "vnet"): (1, "nearest names: vent"),
        ("compose", "--line", "fstap"): (2, "there is no kind of line named fstap; there are: "),
        ("compose", "--at", "99", "vent"): (2, "--at is a place in the line, 0 to 4"),
        ("compose", "--format", "html", "vent"): (2, "this command prints text or json"),
    }
    for arguments, (status, says) in cases.items():
        done = program.run("--demo", *arguments)
        assert (done.returncode, done.stdout) == (status, ""), arguments
        assert says in done.stderr and done.stderr.count("\n") == 1, done.stderr


def test_a_description_that_is_broken_is_named(program: Program) -> None:
    folder = program.folder / "config" / "lines"
    folder.mkdir(parents=True)
    (folder / "visits.toml").write_text("name = ")
    done = program.run("--demo", "compose", "--line", "visits", "x", "--format", "json")
    assert (
        done.returncode == 3
        and "visits.toml is not TOML" in json.loads(done.stdout)["error"]["says"]
    )
    assert "visits.toml" in program.run("--demo", "compose", "--kinds").stderr
