"""Values of fields: what can be right, how it is written for the shell, how it is completed."""

from __future__ import annotations

import shutil
import subprocess
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dowsing.composing.completing import completed, completions
from dowsing.composing.existence import must_exist
from dowsing.composing.field import Field, wrong
from dowsing.model.quoting import value_word
from dowsing.model.value_kinds import FILE_KINDS
from dowsing.render.phrases import words


def field(**more: object) -> Field:
    """A field with a text value."""
    return Field(**{"key": "k", "what": "operand", "label": "X", "kind": "text", **more})  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("more", "value", "says"),
    [
        ({"kind": "number"}, "12", ""),
        ({"kind": "number"}, "many", "a number is wanted here"),
        ({"limits": ["1", "9"]}, "10", "it must be from 1 to 9"),
        ({"limits": ["1", "9"]}, "9", ""),
        (
            {"values": ["north", "south"], "strict": True},
            "nort",
            "“nort” is none of the allowed values: north",
        ),
        (
            {"values": ["north", "south"], "strict": True},
            "up",
            "“up” is none of the allowed values: north, south",
        ),
        ({"values": ["north"]}, "up", ""),
        ({"kind": "mode"}, "u+q", "a mode is wanted here, such as 750 or u+rw"),
        ({"kind": "number"}, "$n", ""),
        ({"takes": False}, "x", "this is on or off: it takes no value"),
        ({}, "a\x1bb", "there are characters in it that cannot be typed"),
        ({"separator": ",", "kind": "number"}, "1,x", "a number is wanted here"),
        ({"what": "column", "pattern": "[a-z]+", "wanted": "a word"}, "A", "a word is wanted here"),
        (
            {"what": "column", "kind": "address"},
            "192.0.2.300",
            "an address of IPv4 or IPv6 is wanted here, such as 192.0.2.7",
        ),
        ({"what": "column", "kind": "address"}, "2001:db8::7", ""),
    ],
)
def test_what_can_be_right(more: dict[str, object], value: str, says: str) -> None:
    assert words(wrong(field(**more), value)) == says


@pytest.mark.parametrize(
    ("value", "says"),
    [
        ("*", ""),
        ("*/10", ""),
        ("1-5", ""),
        ("1,15,30-40/2", ""),
        ("60", "60 is not from 0 to 59"),
        ("1-70", "70 is not from 0 to 59"),
        ("5-1", "the range 5-1 runs backwards"),
        ("*/0", "a step of 0 never comes"),
        ("3/2", "a step goes with * or a range: */2"),
        ("mon", ""),
        ("mno", "“mno” is no number: mon?"),
        ("a b", "a number, *, a range 1-5, a list 1,3 or a step */2 is wanted here"),
    ],
)
def test_times_of_a_crontab(value: str, says: str) -> None:
    minute = field(what="column", kind="schedule", limits=["0", "59"], values=["mon", "tue"])
    assert words(wrong(minute, value)) == says


def test_files_that_must_be_there(tmp_path: Path) -> None:
    (tmp_path / "seeds").mkdir()
    (tmp_path / "seeds" / "a.txt").write_text("x")
    file, folder = field(kind="file", exists=True), field(kind="folder", exists=True)
    assert words(wrong(file, "seeds/a.txt", str(tmp_path))) == ""
    assert words(wrong(file, "seeds/b.txt", str(tmp_path))) == "there is no such file here"
    assert words(wrong(folder, "seed", str(tmp_path))) == "there is no such folder here"
    assert words(wrong(folder, "seeds/a.txt", str(tmp_path))) == "this is no folder"
    for value in ("-", "*.txt", "https://garden.example/x", "rose@fern:notes"):
        assert words(wrong(file, value, str(tmp_path))) == ""


def test_which_files_must_be_there_is_told_by_words() -> None:
    assert must_exist("file", "SOURCE", "")
    assert must_exist("file", "FILE", "Read the names from FILE.")
    assert not must_exist("file", "FILE", "Write the result to FILE.")
    assert not must_exist("file", "DEST", "copy files")
    assert not must_exist("file", "LOGFILE", "")
    assert not must_exist("text", "SOURCE", "")


@pytest.mark.parametrize(
    ("value", "kind", "word"),
    [
        ("plain-1.txt", "text", "plain-1.txt"),
        ("two words", "text", "'two words'"),
        ("it's", "text", "'it'\\''s'"),
        ("*.txt", "file", "*.txt"),
        ("*.txt", "pattern", "'*.txt'"),
        ("$HOME", "folder", '"$HOME"'),
        ("~/notes", "file", "~/notes"),
        ("'quoted already'", "text", "'quoted already'"),
        ('"$a b"', "text", '"$a b"'),
        ("a;b", "file", "'a;b'"),
        ("", "text", "''"),
    ],
)
def test_a_value_is_one_word_of_the_shell(value: str, kind: str, word: str) -> None:
    assert value_word(value, with_patterns=kind in FILE_KINDS) == word


@pytest.mark.skipif(shutil.which("bash") is None, reason="there is no bash")
@given(st.text(st.characters(min_codepoint=32, max_codepoint=126), min_size=1, max_size=24))
def test_what_is_typed_runs_nothing(value: str) -> None:
    word = value_word(value)
    script = f"set -f; f() {{ printf '%s' \"$#\"; }}; f {word}"
    done = subprocess.run(
        [shutil.which("bash") or "bash", "-c", script],
        capture_output=True,
        text=True,
        check=False,
        env={"PATH": ""},
    )
    assert (done.stdout, done.stderr) == ("1", ""), word


def test_values_are_completed(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.chdir(tmp_path)
    (tmp_path / "seeds").mkdir()
    (tmp_path / "seedlings.txt").write_text("")
    (tmp_path / "soil").write_text("")
    file = field(kind="file", repeats=True)
    assert completions(file, "se") == ["seedlings.txt", "seeds/"]
    assert completed(file, "se") == "seed"
    assert completed(file, "soil seeds") == "soil seeds/", "the last of several is completed"
    assert completed(file, "seed") == "seedlings.txt", "where nothing more is certain, the first"
    choice = field(values=["north", "south", "both"])
    assert completions(choice, "") == ["north", "south", "both"]
    assert (completed(choice, "s"), completed(choice, "south")) == ("south", "both")
    options = field(values=["ro", "rw", "noexec"], separator=",")
    assert completed(options, "ro,n") == "ro,noexec"
    assert completed(field(), "x") == "x"
