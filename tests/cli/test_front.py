"""The front door: what people type or paste behind the program's name."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from conftest import Program


def test_a_message_is_explained(garden: Program) -> None:
    lines = garden.out("cat: beds: No such file or directory").split("\n")
    assert lines[:9] == [
        "cat: beds: No such file or directory  a message (ENOENT)",
        "",
        "   The file or directory named (or one of the directories on the way to it) does",
        "   not exist.",
        "",
        "USUAL CAUSES",
        "   – a typing error, or capital letters that differ",
        "   – you stand in another directory than you think, and the path is relative",
        "   – a symbolic link whose target is gone",
    ]
    helps = lines.index("WHAT HELPS")
    assert lines[helps + 1] == "   – ls -la DIRECTORY: shows what is really there"
    assert "   To look further: namei -l PATH · file PATH" in lines


def test_a_message_of_several_lines(garden: Program) -> None:
    text = "tar: a.tgz: Cannot open: No such file or directory\ntar: Error is not recoverable"
    found = json.loads(garden.out(text, "--format", "json"))["pasted"]
    assert (found["code"], found["program"], found["text"]) == ("ENOENT", "", text)
    assert found["remedies"][0] == "ls -la DIRECTORY: shows what is really there"


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
    """How each is written, and the options that only one of them has."""
    lines = garden.out("difference", "between", "vent", "and", "mist").split("\n")
    assert lines[:6] == [
        "   vent(1)  open and close the roof vents of a glasshouse",
        "   mist(1)  spray water mist over the beds",
        "",
        "   vent [OPTION]... HOUSE...",
        "   mist [-fq] [-d seconds] [-n nozzle[,nozzle ...]] bed ...",
        "",
    ]
    assert lines[6:8] == [
        "ONLY vent",
        "   -a, --all             act on all houses; no HOUSE may be given",
    ]
    only = lines.index("ONLY mist")
    assert lines[only + 1] == "   -d seconds, --duration=seconds  How long to spray."
    assert garden.out("vent vs mist") == "\n".join(lines)
    found = json.loads(garden.out("vent vs mist", "--format", "json"))
    assert [side["entry"]["name"] for side in found["sides"]] == ["vent", "mist"]
    assert found["sides"][1]["own"][0]["flags"] == ["-d", "--duration"]


@pytest.mark.parametrize(
    ("words", "begins"),
    [
        (["vent palmhouse.1"], "   vent palmhouse.1"),
        (["vent", "--open", "palmhouse"], "   vent --open palmhouse"),
        (["glasshouse water orchid/3"], "   glasshouse water orchid/3"),
        (["glasshouse water"], "glasshouse-water(1)  "),
        (["vent the palmhouse"], "1  vent(1)"),
        (["vent", "roof", "of", "house"], "1  vent(1)"),
    ],
)
def test_a_line_is_told_from_words(garden: Program, words: list[str], begins: str) -> None:
    assert garden.run(*words).stdout.startswith(begins)


def test_a_request_has_its_line_above_what_is_found(garden: Program) -> None:
    lines = garden.out("--demo", "open the vents of the palmhouse a little").split("\n")
    assert lines[:5] == [
        "vent --open=30 palmhouse",
        "   open the vents of a house a little",
        "   more about this line: dowsing --demo task 'open the vents of the palmhouse a",
        "   little'",
        "",
    ]
    assert lines[5] == "1  vent(1)  open and close the roof vents of a glasshouse"


def test_a_question_for_a_name_has_its_card(garden: Program) -> None:
    assert garden.out("what is vent").startswith("vent(1)  ")


def test_a_misspelled_subcommand(garden: Program) -> None:
    done = garden.run("glasshouse", "watr")
    assert "there is no glasshouse watr here; taken as glasshouse water" in done.stderr
    assert done.stdout.startswith("glasshouse-water(1)  ")


def test_a_path(garden: Program, tmp_path: Path) -> None:
    (tmp_path / "bedplan").write_text("fern9 ferns 4 4m\n")
    lines = garden.out(str(tmp_path / "bedplan")).split("\n")
    assert lines[2] == "   A file."
    assert any(line.startswith("   bedplan(5)") for line in lines)


def test_a_command_that_is_known_and_not_here(garden: Program) -> None:
    """What it does, its options and lines from our facts, and what brings it."""
    lines = garden.out("rsync").split("\n")
    assert lines[:7] == [
        "rsync  is not installed here",
        "",
        "   Copies only what differs between two directories, local or remote.",
        "",
        "   rsync -avz <dir>/ <user>@<host>:<dir>/",
        "",
        "OPTIONS (used most)",
    ]
    assert "   --exclude=PATTERN  without what is like PATTERN" in lines
    assert lines[lines.index("EXAMPLES") + 1] == "1  mirror a folder to another place"
    assert "   To get it: package rsync (its name in Debian)" in lines
    assert garden.run("take", "1").stdout == "rsync -a <folder>/ <target>/\n"
    found = json.loads(garden.out("htop", "--format", "json"))["absent"]
    assert (found["name"], found["usual"], found["options"]) == ("htop", "htop", [])


@pytest.mark.parametrize(
    ("typed", "lines"),
    [
        ("!!", ["!!  a sign of the shell", "", "   The line that was run last, put in here by the "
         "shell at a prompt: sudo !!", "   runs it again as root."]),
        ("`", ["`  a sign of the shell", "", "   A pair of backquotes holds a command whose output "
         "is put in its place; $( )", "   does the same and can be nested."]),
        ("TZ", ["TZ  a variable", "", "   The time zone in which times are shown: TZ=Europe/Berlin "
         "date."]),
        ("http_proxy", ["http_proxy  a variable", "", "   The proxy through which programs fetch "
         "http URLs: http://host:port."]),
        ("Makefile", ["Makefile  a file", "", "   The rules that make builds by."]),
        ("/dev/null", ["/dev/null  a path", "", "   Takes all that is written to it and keeps "
         "nothing; reading it gives nothing;", "   a character device."]),
    ],
)  # fmt: skip
def test_what_people_meet(garden: Program, typed: str, lines: list[str]) -> None:
    assert garden.out("--", typed).split("\n")[: len(lines)] == lines


def test_a_variable_of_a_family(garden: Program) -> None:
    """Nothing is known of it but the command that it begins with."""
    lines = garden.out("GLASSHOUSE_COLOR").split("\n")
    assert lines[0] == "GLASSHOUSE_COLOR  a variable"
    assert lines[2].startswith("   glasshouse(1)  ")


def test_a_file_that_may_be_run_and_is_no_program(garden: Program, tmp_path: Path) -> None:
    text, script = tmp_path / "list", tmp_path / "run"
    for path, begin in ((text, "ferns\n"), (script, "#!/bin/sh\n")):
        path.write_text(begin)
        path.chmod(0o755)
    assert garden.out(str(text)).split("\n")[2] == "   A file."
    assert garden.out(str(script)).split("\n")[2] == "   A program."


def test_what_else_answers_for_a_command_that_is_not_here(garden: Program) -> None:
    lines = garden.out("examples", "rsync", "exclude").split("\n")
    assert " 1 rsync -a --exclude=<excluded> <folder>/ <remote>" in lines
    composed = garden.run("compose", "rsync", "--plain").stderr
    assert "   1  rsync [OPTION]... SOURCE... DEST" in composed.split("\n")
    done = garden.run("options", "rsync")
    assert (done.returncode, done.stderr) == (
        1,
        "dowsing: rsync is not installed here; what is known of it: dowsing rsync\n",
    )


def test_commands_that_are_not_here_are_told_below_what_is_found(program: Program) -> None:
    """Only where none of the best says that it does what is looked for."""
    asked = ("find", "capture packets on an interface")
    program.page("tie.1", ".TH TIE 1\n.SH NAME\ntie \\- tie packets of seeds\n")
    shown = " ".join(program.run(*asked).stdout.split())
    told = "not installed here: tcpdump: captures packets on an interface and prints or saves them"
    assert told in shown
    program.page("tap.1", ".TH TAP 1\n.SH NAME\ntap \\- capture packets on an interface\n")
    assert "not installed" not in program.run(*asked).stdout


def test_a_message_of_a_program_that_is_not_known(garden: Program) -> None:
    """Where no passage has its words, the page of its program is first."""
    lines = garden.out("mist: stopped: frost in the palmhouse vents").split("\n")
    assert "mist(1)" in lines[1]
    assert not any("a message" in line for line in lines)


def test_the_passage_of_a_message(program: Program) -> None:
    program.page(
        "tie.1",
        ".TH TIE 1\n.SH NAME\ntie \\- tie seeds\n.SH DESCRIPTION\nThe twine runs out of the drum.\n"
        ".SH DIAGNOSTICS\n.TP\ntwine drum jammed\nThe drum turns no more: oil it.\n"
        ".TP\nother\nNo.\n",
    )
    lines = program.out("tie: error: twine drum jammed").split("\n")
    assert lines[:3] == [
        "tie: error: twine drum jammed  a message of tie",
        "",
        "   What tie(1) says with these words:",
    ]
    assert lines[4:7] == [
        "DIAGNOSTICS",
        "   twine drum jammed",
        "        The drum turns no more: oil it.",
    ]
    assert lines[-2] == "Next: dowsing read tie --part diagnostics"


def test_a_name_that_nothing_has(garden: Program) -> None:
    done = garden.run("vrnttt")
    assert (done.returncode, done.stdout) == (1, "")
    assert done.stderr == (
        "dowsing: nothing here is called vrnttt; look for what it does: dowsing find WORDS\n"
    )


def test_what_removes_something_is_meant_by_its_own_name_alone(program: Program) -> None:
    for name in ("rmdir", "ruler"):
        program.page(f"{name}.1", f".TH X 1\n.SH NAME\n{name} \\- work on beds\n")
    assert "taken as ruler" in program.run("rulre").stderr
    done = program.run("rmdri")
    assert "taken as" not in done.stderr
    assert "nearest names: rmdir(1)" in done.stderr


@pytest.mark.parametrize("text", ["$(", "/nowhere/at/all", "exit status 999", "what is"])
def test_what_says_nothing_is_searched_for(garden: Program, text: str) -> None:
    done = garden.run(text)
    assert done.returncode in (0, 1)
    assert "Traceback" not in done.stderr


@pytest.mark.parametrize(
    ("typed", "meant", "card"),
    [
        (["vetn"], "vent", "vent(1)  "),
        (["glasshousewater"], "glasshouse water", "glasshouse-water(1)  "),
        (["glashouse", "water"], "glasshouse water", "glasshouse-water(1)  "),
    ],
)
def test_a_slip_of_the_fingers(garden: Program, typed: list[str], meant: str, card: str) -> None:
    done = garden.run(*typed)
    says = f"dowsing: there is no {' '.join(typed)} here; taken as {meant}"
    assert done.stderr.strip().split("\n")[-1] == says
    assert done.stdout.startswith(card)


def test_a_word_that_stands_somewhere_is_no_slip(garden: Program) -> None:
    """`beds` is one letter from `weeds` and `reads`, and a word of summaries."""
    done = garden.run("beds")
    assert "taken as" not in done.stdout + done.stderr
    assert done.stdout.lstrip().startswith("1  ")


def test_a_variable_is_told_by_the_pages_that_define_it(garden: Program) -> None:
    assert garden.out("MIST_NOZZLE").split("\n")[:3] == [
        "MIST_NOZZLE  a variable", "", "   mist(1)  The nozzle that is used without -n.",
    ]  # fmt: skip
    told = json.loads(garden.out("$HEAP", "--format", "json"))["pasted"]
    assert told["kind"] == "variable"
    assert told["defined"] == [
        {"page": "mulch(1)", "tag": "HEAP", "says": "The heap to take from."}
    ]


def test_a_file_is_told_by_the_pages_that_define_it(garden: Program) -> None:
    assert garden.out("mist.lock").split("\n")[:3] == [
        "mist.lock  a file", "", "   mist(1)  held while a bed is sprayed",
    ]  # fmt: skip
    lines = garden.out("/run/mist.lock").split("\n")
    assert lines[2:5] == ["   Nothing is there.", "", "   mist(1)  held while a bed is sprayed"]
    other = garden.run("/home/mist.lock")  # another file of that name
    assert "held while" not in other.stdout


def test_a_line_without_quotes(garden: Program) -> None:
    lines = garden.out("vent", "--open=3", "palmhouse").split("\n")
    assert lines[:3] == [
        "   vent --open=3 palmhouse", "",
        "   Opens and closes the roof vents of a glasshouse (vent): palmhouse.",
    ]  # fmt: skip
    done = garden.run("--opne", "vent")
    assert (done.returncode, done.stderr.split(";")[0]) == (
        2,
        "dowsing: dowsing has no option --opne",
    )


def test_a_message_is_told_above_what_is_found_for_its_words(garden: Program) -> None:
    lines = garden.out("find", "no such file or directory: bed").split("\n")
    assert lines[0].startswith("ENOENT, message: the file or directory named")
    lines = garden.out("find", "MIST_NOZZLE").split("\n")
    assert lines[0] == "MIST_NOZZLE, variable: The nozzle that is used without -n (mist(1))"
    assert lines[1].startswith("1  mist(1)")


def test_several_names_on_a_card_are_a_line_each(garden: Program) -> None:
    done = garden.run("card", "vent", "spade", "mist")
    assert done.stdout.split("\n")[:2] == [
        "   vent(1)  open and close the roof vents of a glasshouse",
        "   mist(1)  spray water mist over the beds",
    ]
    assert (done.returncode, done.stderr.strip()) == (1, "dowsing: there is no page named spade")
    both = json.loads(garden.out("card", "vent", "mist", "--format", "json"))
    assert [one["name"] for one in both] == ["vent", "mist"]


def test_a_subcommand_without_a_page_has_a_card(program: Program) -> None:
    program.page(
        "hoe.1",
        ".TH X 1\n.SH NAME\nhoe \\- hoe beds\n.SH SYNOPSIS\n.B hoe\n[OPTION...] COMMAND BED\n"
        ".SH COMMANDS\n.TP\nturn\nTurn the soil of a bed over. Do not do it in frost.\n"
        ".TP\nedge\nCut the edge of a bed.\n",
    )
    for typed in (["hoe", "turn"], ["card", "hoe", "turn"]):
        done = program.run(*typed)
        assert done.stdout.split("\n")[0] == "hoe turn  Turn the soil of a bed over."
    done = program.run("hoe", "egde")
    assert "there is no hoe egde here; taken as hoe edge" in done.stderr
    assert done.stdout.startswith("hoe edge  Cut the edge of a bed.")
