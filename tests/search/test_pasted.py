"""What people paste at the front door."""

from __future__ import annotations

import re

import pytest

from dowsing.knowledge.messages import _tables, message_fact, status_words
from dowsing.render.pasted_lines import says_of_pasted
from dowsing.search.message_words import may_be_pasted
from dowsing.search.pasted import Pasted, PastedKind, pasted_sign, pasted_text


@pytest.mark.parametrize(
    ("text", "kind", "says"),
    [
        ("$?", PastedKind.SIGN, "the exit status of the command before"),
        ("$@", PastedKind.SIGN, "all arguments, each a word of its own"),
        ("${x%.*}", PastedKind.SIGN, "the value of x without the shortest end that matches .*"),
        ("$((n+1))", PastedKind.SIGN, "n plus 1"),
        ("&&", PastedKind.SIGN, "goes on only if the command before succeeded"),
        ("2>&1", PastedKind.SIGN, "its errors go where its output goes"),
        (">>", PastedKind.SIGN, "what it prints goes to the end of a file"),
        ("<", PastedKind.SIGN, "input comes from a file"),
        ("[[", PastedKind.SIGN, "begins a test"),
        ("$HOME", PastedKind.VARIABLE, "your home folder"),
        ("PATH", PastedKind.VARIABLE, "the folders that commands are looked for in"),
        ("SIGHUP", PastedKind.SIGNAL, "the terminal is gone; many services read their settings "
         "anew"),
        ("exit status 137", PastedKind.STATUS, "ended by signal 9 (KILL), most often because "
         "memory ran out"),
        ("exited with code 127", PastedKind.STATUS, "the command was not found"),
        ("status: 140", PastedKind.STATUS, "ended by signal 12"),
        ("/etc/fstab", PastedKind.PATH, ""),
        ("difference between kill and killall", PastedKind.DIFFERENCE, ""),
        ("cp vs. mv", PastedKind.DIFFERENCE, ""),
    ],
)  # fmt: skip
def test_what_a_sign_is(text: str, kind: PastedKind, says: str) -> None:
    found = pasted_sign(text.split(" "))
    assert found is not None
    assert (found.kind, says_of_pasted(found)) == (kind, says)


@pytest.mark.parametrize(
    "text",
    ["tar", "open the roof", "HOUSE", "printf(3)", "*zip*", "a/b", "exit", "status", "git log"],
)
def test_what_may_be_a_name_or_words(text: str) -> None:
    assert pasted_sign(text.split()) is None


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("vent --open 3", Pasted(PastedKind.LINE, "vent --open 3")),
        ("vent a | mist b", Pasted(PastedKind.LINE, "vent a | mist b")),
        ("what is vent", Pasted(PastedKind.NAME, "what is vent", see=["vent"])),
        ("what does vent do?", Pasted(PastedKind.NAME, "what does vent do?", see=["vent"])),
        ("vent a", None),
        ("tar --open 3", None),
        ("vent", None),
    ],
)
def test_what_a_text_is(text: str, expected: Pasted | None) -> None:
    assert pasted_text(text.split(), lambda word: word in ("vent", "mist")) == expected


@pytest.mark.parametrize(
    ("text", "code", "see"),
    [
        ("cat: x: No such file or directory", "ENOENT", "ls"),
        ("bash: ./a: Permission denied", "EACCES", "ls"),
        ("me@host: Permission denied (publickey).", "", "ssh"),
        ("bash: foo: command not found", "", "type"),
        ("connect: Connection refused", "ECONNREFUSED", "ss"),
        ("umount: /mnt: target is busy", "EBUSY", "lsof"),
        ("fatal: not a git repository (or any of the parents)", "", "git"),
        ("sh: 1: Syntax error: Unexpected token", "", "bash(1)"),
    ],
)
def test_what_a_message_means(text: str, code: str, see: str) -> None:
    fact = message_fact(text)
    assert fact is not None
    assert (fact.code, fact.see[0]) == (code, see)
    found = pasted_text(text.split(), lambda word: False)
    assert found is not None
    assert found.kind is PastedKind.MESSAGE
    assert found.says == fact.says


def test_a_message_that_nobody_knows() -> None:
    assert message_fact("the roof is open") is None
    assert status_words("77") == ""


def test_every_row_of_messages_is_whole() -> None:
    rows = _tables()["message"]
    assert isinstance(rows, list)
    assert len(rows) > 50
    for row in rows:
        re.compile(row["match"])
        assert set(row) <= {"match", "code", "says", "causes", "see"}
        assert row["says"][0].islower() and row["says"][-1] != "."
        assert row["see"]
        assert not row.get("code") or re.fullmatch(r"E[A-Z0-9]+", row["code"])


#: Messages of which every word is too common to look for them: they are asked for by a colon.
ONLY_WITH_A_COLON = {"is a directory"}


def test_each_message_has_a_word_that_tells_it() -> None:
    """`find` loads what knows messages only where one of these words, or a colon, stands."""
    rows = _tables()["message"]
    assert isinstance(rows, list)
    plain = {one for row in rows for one in _alternatives(str(row["match"]))}
    assert len(plain) > 80
    missed = {one for one in plain if not may_be_pasted(one.split())}
    assert missed == ONLY_WITH_A_COLON
    assert may_be_pasted(["cat:", "beds:", "Is", "a", "directory"])


def _alternatives(pattern: str) -> list[str]:
    """The plain messages that a simple pattern stands for."""
    pattern = re.sub(r"\\b|\$|\\\(.*", "", pattern)
    group = re.search(r"\((?:\?:)?([^()]*)\)(\??)", pattern)
    if group:
        ways = [*group[1].split("|"), *([""] if group[2] else [])]
        return [
            one
            for way in ways
            for one in _alternatives(pattern[: group.start()] + way + pattern[group.end() :])
        ]
    plain = re.sub(r"\[- \]\??|-\?", "-", pattern)
    return [one.strip() for one in plain.split("|") if " " in one.strip()]
