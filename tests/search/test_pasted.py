"""What people paste at the front door."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from dowsing.knowledge.message_files import read_message_files
from dowsing.knowledge.messages import NumberedKind, message_fact, numbered_fact
from dowsing.knowledge.pattern_words import needed_words
from dowsing.render.pasted_lines import says_of_pasted
from dowsing.search.message_words import may_be_pasted
from dowsing.search.pasted import (
    Pasted,
    PastedKind,
    has_sign_of_a_line,
    pasted_sign,
    pasted_text,
)

#: Not what is installed, which has the one file alone that is made of them.
SOURCES = Path(__file__).parents[2] / "src" / "dowsing" / "knowledge" / "messages"


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
        ("signal 1", PastedKind.SIGNAL, "the terminal is gone; many services read their settings "
         "anew"),
        ("exit status 137", PastedKind.STATUS, "the process was killed with SIGKILL (128+9), in "
         "most cases because memory ran out"),
        ("exited with code 127", PastedKind.STATUS, "the shell did not find the command"),
        ("127", PastedKind.STATUS, "the shell did not find the command"),
        ("EXDEV", PastedKind.MESSAGE, "rename or hard link from one file system to another: that "
         "does not work, it must be copied"),
        ("status: 144", PastedKind.STATUS, "ended by signal 16"),
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
        ("what is vent", Pasted(PastedKind.NAME, "what is vent", see=["vent"])),
        ("what does vent do?", Pasted(PastedKind.NAME, "what does vent do?", see=["vent"])),
        ("vent a", None),
        ("vent", None),
    ],
)
def test_what_a_text_is(text: str, expected: Pasted | None) -> None:
    assert pasted_text(text) == expected


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("vent --open 3", True),
        ("vent a | mist b", True),
        ("vent a", False),
        ("--open", False),
        ("a - b", False),
    ],
)
def test_the_signs_of_a_line(text: str, expected: bool) -> None:
    assert has_sign_of_a_line(text.split(" ")) is expected


@pytest.mark.parametrize(
    ("text", "program", "code", "see"),
    [
        ("cat: x: No such file or directory", "", "ENOENT", "errno(3)"),
        ("install: cannot stat 'a': Permission denied", "", "EACCES", "errno(3)"),
        ("me@host: Permission denied (publickey).", "ssh", "", "ssh"),
        ("bash: foo: command not found", "bash", "", "bash"),
        ("bash: jupyter: command not found", "jupyter", "", "jupyter"),
        ("umount: /mnt: target is busy", "umount", "", "umount"),
        ("fatal: not a git repository (or any of the parents)", "git", "", "git"),
        # the program that is named counts more than what any shell says, and a failure's last line
        # least of all
        ("tar: a.tgz: Cannot open: No such file or directory\ntar: Error is not recoverable: "
         "exiting now", "", "ENOENT", "errno(3)"),
        ("tar: Error is not recoverable: exiting now", "tar", "", "tar"),
    ],
)  # fmt: skip
def test_what_a_message_means(text: str, program: str, code: str, see: str) -> None:
    fact = message_fact(text)
    assert fact is not None
    assert (fact.program, fact.code) == (program, code)
    found = pasted_text(text)
    assert found is not None
    assert (found.kind, found.says, found.see[0]) == (PastedKind.MESSAGE, fact.says, see)


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("connect: errno 111", "ECONNREFUSED"),
        ("Failed: os error 13", "EACCES"),
        ("mount error(13)", "EACCES"),
        ("read ETIMEDOUT", "ETIMEDOUT"),
        ("ended by signal 9", "SIGKILL"),
        ("app: code=killed, status=11/SEGV", "SIGSEGV"),
        ("return code -15", "SIGTERM"),
    ],
)
def test_numbers_and_names_that_stand_for_messages(text: str, code: str) -> None:
    fact = message_fact(text)
    assert fact is not None
    assert fact.code == code


def test_a_message_that_nobody_knows() -> None:
    assert message_fact("the roof is open") is None
    assert numbered_fact(NumberedKind.STATUS, "77") is None
    assert message_fact("it took 13 days") is None


def test_each_example_of_a_message_leads_to_it() -> None:
    wrong = []
    count = 0
    for program, rows in read_message_files(str(SOURCES)).items():
        for row in rows:
            for text in row.get("like", []):
                count += 1
                fact = message_fact(text)
                if fact is None or fact.says != row["says"]:
                    wrong.append((program, text, fact and fact.says))
    assert wrong == []
    assert count > 1200


@pytest.mark.parametrize(
    ("row", "fault"),
    [
        ('match = "a("\nsays = "x"', "the pattern is wrong: missing ), unterminated subpattern at "
         "position 1"),
        ('says = "x"', "it has neither a pattern nor a number"),
        ('match = "a"', "it does not say what it means"),
        ('match = "a"\nsays = "x"\ncauses = [1]', "causes is no list of texts"),
        ('match = "a"\nsays = "x"\nhelps = []', "there is no key helps"),
    ],
)  # fmt: skip
def test_what_is_wrong_in_a_file_of_messages_is_said(tmp_path: Path, row: str, fault: str) -> None:
    (tmp_path / "vent.toml").write_text(f"[[message]]\n{row}\n")
    with pytest.raises(ValueError, match=re.escape(f"vent.toml, message 1: {fault}")):
        read_message_files(str(tmp_path))


@pytest.mark.parametrize(
    ("pattern", "words"),
    [
        (r"cannot find -l\w+", ["cannot find -l"]),
        (r"no (?:space|room) left", [" left"]),
        (r"(?:space|room) le", ["room", "space"]),
        (r"(?:space)?\d", []),
        ("(?:Ab|\\d+)xyZ", ["xyz"]),
        (r"a+bcd", ["bcd"]),
    ],
)
def test_what_a_text_must_hold_for_a_pattern(pattern: str, words: list[str]) -> None:
    assert needed_words(pattern) == words


@pytest.mark.parametrize("text", ["cat: beds: Is a directory", "Broken pipe", "No space left"])
def test_words_that_may_be_a_message(text: str) -> None:
    """`find` loads what knows messages only where one of some words, or a colon, stands."""
    assert may_be_pasted(text.split())


def test_the_names_of_lines_that_look_further() -> None:
    """The program that says it, the command of each line, and the page that one opens."""
    found = pasted_text("main.o: undefined reference to `sqrt'")
    assert found is not None
    assert found.look == ["make -n", "dowsing 'sqrt(3)'"]
    assert found.see == ["ld", "make", "sqrt(3)"]
