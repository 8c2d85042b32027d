"""Arguments, exit statuses, and input that is no good."""

from __future__ import annotations

import json
import os
import subprocess
import sys

import pytest
from conftest import Program

PROGRAM = os.path.join(os.path.dirname(sys.executable), "dowsing")


@pytest.mark.parametrize(
    ("arguments", "status", "says"),
    [
        (["find"], 2, "say what to look for"),
        (["find", ""], 2, "say what to look for"),
        (["find", "x", "--limit", "0"], 2, "a limit is a number from 1 to 100000"),
        (["find", "x", "--limit"], 2, "--limit wants a value after it; see dowsing find --help"),
        (
            ["find", "--nonsense", "x"],
            2,
            "dowsing find has no option --nonsense; see dowsing find --help; a name that",
        ),
        (["find", "x", "--format", "html"], 2, "this command prints text or json, not html"),
        (
            ["find", "x", "--format", "yaml"],
            2,
            "--format is one of text, json, html, markdown, csv, not “yaml”",
        ),
        (["index", "--sttus"], 2, "dowsing index has no option --sttus; nearest: --status"),
        (
            ["words", "verb"],
            2,
            "is one of verbs, nouns, packages, families, kinds, not “verb”; nearest: verbs",
        ),
        (["take", "x"], 2, "N is a number, not “x”; see dowsing take --help"),
        (["near", "vent", "mist", "--limit", "0"], 2, "--limit is a number from 1 to"),
        (["index", "--status=x"], 2, "--status takes no value"),
        (["take", "1", "2"], 2, "“2” is a word too many; see dowsing take --help"),
        (["take", "--copy", "--run"], 2, "--run does not go together with --copy"),
        (["read"], 2, "say a name"),
        (["read", ""], 2, "say a name"),
        (["read", "-x"], 2, "goes after --: dowsing read -- -x"),
        (["read", "--", "-x"], 1, "there is no page named -x"),
        (["read", "../../etc/passwd"], 1, "cannot be a name"),
        (["read", "a\x1b[31mb"], 1, "cannot be a name"),
        (["read", "vent\n"], 0, ""),
        (["read", "x" * 5000], 1, "cannot be a name"),
        (["read", "prunne"], 1, "there is no page named prunne; nearest names: prune(1)"),
        (["read", "vent", "--width", "none"], 2, "a width is a number"),
        (["read", "vent", "--part", ""], 1, "has no part without a name"),
        (["--nonsense"], 2, "see dowsing --help"),
        (["--width"], 2, "see dowsing --help"),
        (["card"], 2, "say a name"),
        (["demo", "--format", "html"], 2, "this command prints text, not html"),
    ],
)
def test_bad_input_is_one_clear_line(
    garden: Program, arguments: list[str], status: int, says: str
) -> None:
    garden.run("index")
    done = garden.run(*arguments)
    assert done.returncode == status, done.stderr
    assert says in done.stderr
    assert len(done.stderr.splitlines()) == (1 if says else 0)
    assert "\x1b" not in done.stderr


def test_errors_as_json(garden: Program) -> None:
    garden.run("index")
    done = garden.run("read", "prunne", "--format", "json")
    assert done.returncode == 1
    error = json.loads(done.stdout)["error"]
    assert error["says"].startswith("there is no page named prunne")
    assert error["nearest"] == ["prune(1)"]


def test_global_options_before_and_after_the_command(garden: Program) -> None:
    before = garden.out("--format", "json", "--width", "50", "read", "vent")
    after = garden.out("read", "vent", "--format", "json", "--width", "50")
    assert json.loads(before) == json.loads(after)
    assert garden.out("find", "--limit", "1", "water", "--format=json", "beds") == garden.out(
        "--format=json", "find", "water", "beds", "--limit=1"
    )


def test_demo_option_uses_the_demo_library(program: Program) -> None:
    done = program.run("--demo", "read", "moth")
    assert done.returncode == 0
    assert done.stdout.startswith("moth(6)  catch moths")


COMMANDS = ("find", "near", "words", "card", "read", "sources", "resolve", "audit", "index", "demo")


def test_help(program: Program) -> None:
    for arguments in ([], ["--help"], ["-h"]):
        text = program.out(*arguments)
        assert text.startswith("dowsing finds, shows and explains")
        assert all(f"dowsing {command} " in text for command in COMMANDS)
    assert program.out("--version").startswith("dowsing 0.")
    for command in COMMANDS:
        text = program.out(command, "--help")
        assert text.startswith(f"dowsing {command} [-h]")
        assert "--format" in text


@pytest.mark.parametrize("columns", ["1", "7", "0", "-3", "x", "100000"])
def test_any_width_of_the_terminal(garden: Program, columns: str) -> None:
    garden.run("index")
    for arguments in (
        ["read", "seedbank"],
        ["vent"],
        ["find", "water"],
        ["index", "--status"],
        ["near", "vent"],
        ["words", "kinds"],
        ["sources", "vent", "--differences"],
        ["resolve", "vent"],
    ):
        done = garden.run(*arguments, COLUMNS=columns)
        assert (done.returncode, done.stderr) == (0, "")
        assert len(done.stdout.splitlines()) > 2, arguments


def test_a_closed_pipe_is_no_error(garden: Program) -> None:
    garden.run("index")
    run = subprocess.Popen(
        [PROGRAM, "read", "vent", "--width", "20"],
        env=garden.environment(),
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
    )
    run.stdout.close()
    assert run.stderr.read() == b""
    assert run.wait(timeout=30) == 0


def test_an_encoding_that_cannot_show_it_all(garden: Program) -> None:
    done = garden.run("read", "almanac", PYTHONIOENCODING="ascii")
    assert done.returncode == 0
    assert "potting caf??s notes" in done.stdout


def test_control_sequences_in_pages_and_file_names_do_not_get_out(program: Program) -> None:
    program.page(
        "evil.1",
        ".TH E 1\n.SH NAME\nevil \\- \x1b[31mred\x07 \\N'27'[0m\n.SH \x1b[2JD\n\x9b31m text "
        "\x1b]0;x\x07\n",
    )
    program.page("na\x1b[31mme.1", ".TH E 1\n.SH NAME\nname \\- odd\n.SH D\nx\n")
    outputs = [
        program.out("read", "evil"),
        program.out("evil"),
        program.out("find", "*"),
        program.out("index", "--status"),
        program.out("read", "evil", "--format", "html"),
        program.out("read", "evil", "--format", "markdown"),
        program.run("read", "evill").stderr,
        program.out("read", "evil", "--format", "json"),
    ]
    for text in outputs:
        assert not any((char < " " and char != "\n") or "\x7f" <= char < "\xa0" for char in text), (
            repr(text)
        )


def test_the_demo_runs_through(program: Program) -> None:
    done = program.run("demo")
    assert done.returncode == 0
    assert done.stdout.count("$ dowsing --demo ") == 20
    assert "20 of 20" in done.stdout and "That was it." in done.stdout
    assert done.stderr == "dowsing: there is no page named prunne; nearest names: prune(1)\n"


def test_the_pager_gets_what_does_not_fit(garden: Program) -> None:
    garden.run("index")
    pager = garden.folder / "pager"
    pager.write_text('#!/bin/sh\necho PAGED; while IFS= read -r line; do echo "$line"; done\n')
    pager.chmod(0o755)
    paged = garden.run("read", "vent", "--pager", "always", PAGER=str(pager))
    assert paged.stdout.startswith("PAGED\nvent(1)")
    assert not garden.out("read", "vent", PAGER=str(pager)).startswith("PAGED")
    missing = garden.run(
        "read", "vent", "--pager", "always", PAGER="no-such-pager", PATH=str(garden.folder)
    )
    assert missing.stdout.startswith("vent(1)")
    assert "the pager no-such-pager is not there" in missing.stderr
