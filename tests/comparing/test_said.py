"""What a text says anywhere."""

from __future__ import annotations

import pytest

from dowsing.comparing.said import Said, is_cluster, is_number, plain_flag

TEXT = """Usage: tine [-LP] [--[no-]prune] [-Olevel] [-b20] FILE
Tine wants --Deep=CM, (--(no-)wait) or a final --end.
Letters: -ilr or -c. Not a-flag, pre--fix, nor x-y.
The variable TINE_HOME is read; tape is not. It ends with 3.5 or 12."""


@pytest.mark.parametrize(
    ("flag", "there"),
    [
        ("-L", True),  # in a cluster of the form
        ("-P", True),
        ("--prune", True),
        ("--no-prune", True),
        ("--wait", True),
        ("--no-wait", True),
        ("--deep", True),  # in any case
        ("--DEEP", True),
        ("--end", True),  # with the full stop of the sentence
        ("-O", True),  # with a value joined to it
        ("-b", True),
        ("-olevel", True),
        ("--fix", False),
        ("-f", False),
        ("-y", False),
        ("--no-deep", False),
        ("--pru", False),
    ],
)
def test_flags(flag: str, there: bool) -> None:
    assert Said(TEXT).has_flag(flag) is there


def test_letters_given_together_are_flags_of_their_own() -> None:
    letters = frozenset(("-i", "-l", "-r", "-c"))
    assert Said(TEXT).has_flag("-l", letters)
    assert not Said(TEXT).has_flag("-l")
    assert is_cluster("-ilr", letters) and not is_cluster("-ils", letters)
    assert not is_cluster("-il", letters)  # two letters may be one flag


def test_a_flag_of_another_option_is_no_value() -> None:
    said = Said("find -delete or -depth")
    assert said.has_flag("-d")
    assert not said.has_flag("-d", frozenset(("-delete", "-depth")))


def test_names_and_numbers() -> None:
    said = Said(TEXT)
    assert said.has_name("TINE_HOME") and not said.has_name("TAPE") and not said.has_name("TINE")
    assert said.has_name("--(no-)wait")
    assert said.has_number("12") and not said.has_number("3") and not said.has_number("2")


def test_flags_as_they_are_compared() -> None:
    assert [plain_flag(flag) for flag in ("--a=", "--a=B", "--a[=B]", "-x<y>", "-b20")] == [
        "--a", "--a", "--a", "-x", "-b",
    ]  # fmt: skip
    flags = ("-NUM", "-5", "+N", "-n", "-x", "-AB", "--ABC")
    assert [flag for flag in flags if is_number(flag)] == ["-NUM", "-5", "+N", "-n", "-AB"]
