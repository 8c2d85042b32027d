"""What may come next."""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from dowsing.commandline.expecting import Next, what_next
from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import ProblemCode
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.machine.known_values import values_here
from dowsing.model.told import told
from dowsing.render.phrases import words


def texts(found: Next, what: str) -> list[str]:
    """The texts of one kind."""
    return [one.text for one in found.expects if one.what == what]


def test_commands_that_begin_so(finder: CommandFinder) -> None:
    found = what_next("la", finder)
    assert texts(found, "command") == ["lamp", "later"]
    assert (found.complete, found.problem, found.typed) == (False, None, "la")


def test_options_that_begin_so_without_those_used(finder: CommandFinder) -> None:
    assert texts(what_next("crate --fi", finder), "option") == ["--file"]
    assert "--file" not in texts(what_next("crate -f x --", finder), "option")
    assert "--verbose" in texts(what_next("crate -v --", finder), "option"), "it may be given again"


def test_what_a_form_rules_out_is_not_offered(finder: CommandFinder) -> None:
    before = texts(what_next("crate --", finder), "option")
    assert {"--pack", "--unpack"} <= set(before)
    after = texts(what_next("crate -p --", finder), "option")
    assert not {"--pack", "--unpack"} & set(after)


def test_the_value_an_option_wants(finder: CommandFinder) -> None:
    [level] = what_next("crate --level ", finder).expects
    assert (level.what, level.placeholder, level.kind, level.range, level.required) == (
        "value", "NUM", "number", ["1", "9"], True,
    )  # fmt: skip
    [color] = what_next("crate --color=a", finder).expects
    assert color.values == ["always", "auto"]


def test_subcommands_come_first_and_are_required(finder: CommandFinder) -> None:
    found = what_next("lamp ", finder)
    assert texts(found, "subcommand") == ["light", "dim", "status", "repair"]
    assert all(one.required for one in found.expects if one.what == "subcommand")
    assert found.expects[0].what == "subcommand"
    assert texts(what_next("lamp st", finder), "subcommand") == ["status"]


def test_the_operand_of_a_listed_subcommand(finder: CommandFinder) -> None:
    [operand] = [one for one in what_next("lamp light ", finder).expects if one.what == "operand"]
    assert (operand.placeholder, operand.required) == ("LAMP", True)


@pytest.mark.parametrize(
    ("line", "complete", "missing"),
    [
        ("lamp status", True, []),
        ("lamp repair", False, ["lamp"]),
        ("lamp repair a", True, []),
        ("later 5", False, ["the command to run"]),
        ("later 5 lamp status", True, []),
        ("grant 750", False, ["FILE"]),
        ("crate -f", False, ["FILE for -f"]),
        ("crate -p 'a", False, ["' is opened here and not closed"]),
        ("lamp status |", False, ["a command"]),
    ],
)
def test_whether_it_can_be_run(
    finder: CommandFinder, line: str, complete: bool, missing: list[str]
) -> None:
    found = what_next(line, finder)
    assert (found.complete, [words(one) for one in found.missing]) == (complete, missing)


def test_a_mistake_before_the_cursor_is_told_one_in_the_making_is_not(
    finder: CommandFinder,
) -> None:
    found = what_next("crate --colour a", finder)
    reason = told(ProblemCode.UNKNOWN_OPTION, "crate(1)", "--colour")
    assert found.problem == Problem(6, 14, reason, ["--color"])
    assert what_next("crate --col", finder).problem is None
    assert what_next("lamp lig", finder).problem is None
    assert what_next("lamp lihgt", finder).problem is not None


def test_the_cursor_may_stand_within_the_line(finder: CommandFinder) -> None:
    found = what_next("crate --fi -p", finder, at=10)
    assert (found.typed, texts(found, "option")) == ("--fi", ["--file"])


def test_inside_a_substitution_and_after_an_operator(finder: CommandFinder) -> None:
    assert texts(what_next("crate $(lamp st", finder), "subcommand") == ["status"]
    assert texts(what_next("crate -p | la", finder), "command") == ["lamp", "later"]
    assert texts(what_next("later 5 lam", finder), "command") == ["lamp"]


def test_files_folders_and_hidden_ones(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    (tmp_path / "beds").mkdir()
    (tmp_path / "bed.txt").write_text("")
    (tmp_path / ".bare").write_text("")
    monkeypatch.chdir(tmp_path)
    assert values_here("file", "", "be") == ["bed.txt", "beds/"]
    assert values_here("folder", "", "") == ["beds/"]
    assert values_here("file", "", ".b") == [".bare"]
    assert values_here("file", "", f"{tmp_path}/bed.") == [f"{tmp_path}/bed.txt"]
    assert values_here("file", "", "~/be", str(tmp_path)) == ["~/bed.txt", "~/beds/"]


def test_hosts_from_the_files_of_ssh(tmp_path: Path) -> None:
    (tmp_path / ".ssh").mkdir()
    (tmp_path / ".ssh" / "config").write_text("Host dome *.garden\n  User fern\nHost dune\n")
    (tmp_path / ".ssh" / "known_hosts").write_text(
        "dory.garden ssh-ed25519 A\n|1|hidden ssh-rsa B\n"
    )
    assert values_here("host", "", "do", str(tmp_path)) == ["dome", "dory.garden"]
    assert values_here("host", "", "fern@du", str(tmp_path)) == ["fern@dune"]


def test_signals_and_kinds_without_a_list() -> None:
    assert values_here("signal", "", "sigt") == ["TRAP", "TERM", "TSTP", "TTIN", "TTOU"]
    assert values_here("number", "", "") is None


def test_names_in_folders_are_words_that_are_just_them(tmp_path: Path) -> None:
    os.mkdir(tmp_path / "a\x1b[31mb")
    os.mkdir(tmp_path / "a c")
    assert values_here("folder", "", f"{tmp_path}/a") == [f"'{tmp_path}/a c/'"], (
        "what cannot be seen is not offered"
    )


@pytest.mark.parametrize(
    ("line", "complete", "offered"),
    [
        ("sort -o", False, []),
        ("cp a ", False, ["DEST"]),
        ("cp a b", True, ["DEST"]),
        ("tar -z", False, []),
        ("tar -z ", False, ["FILE", "-c", "-x"]),
        ("find . -type ", False, ["f", "d"]),
        ("dd conv=", False, ["ucase", "notrunc"]),
        ("dd conv=ucase,no", True, ["ucase,notrunc", "ucase,noerror"]),
        ("find . -exec rm {} ", False, ["\\;", "+"]),
        ("cut -f1 --comp", False, ["--complement"]),
        ("sort --rev", False, ["--reverse"]),
        ("kill -s T", False, ["TERM"]),
        ("ssh -o Strict", True, ["StrictHostKeyChecking"]),
    ],
)
def test_by_our_facts(
    facts_finder: CommandFinder, line: str, complete: bool, offered: list[str]
) -> None:
    found = what_next(line, facts_finder)
    every = {
        text for one in found.expects for text in (one.text, one.placeholder, *(one.values or ()))
    }
    assert set(offered) <= every
    assert found.complete is complete
