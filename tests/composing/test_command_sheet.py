"""A command's forms and options as fields, filled in with what a line has, and written as a line
again.
"""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.composing.command_sheet import CommandSheet
from dowsing.composing.field import SWITCH
from dowsing.model.errors import NotComposable
from dowsing.render.phrases import words


def labels(sheet: CommandSheet, step: str) -> list[str]:
    """The spellings of the fields of a step."""
    return [field.label for field in sheet.of_step(step)]


def held(sheet: CommandSheet) -> dict[str, list[str]]:
    """What is filled in, by spelling."""
    return {field.label: sheet.values(field) for field in sheet.fields if sheet.is_on(field)}


def fill(sheet: CommandSheet, key: str, *values: str) -> None:
    """Fill in a field by its key."""
    sheet.put(sheet.field(key), list(values))


def test_steps_with_their_counts(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate", finder)
    assert sheet.counts() == {"required": 2, "often used": 9, "all": 11}
    assert labels(sheet, "required") == ["-p, --pack", "-u, --unpack"]
    assert labels(sheet, "often used")[:3] == ["FILE", "-f, --file", "-C, --directory"]
    assert (sheet.title, sheet.summary, sheet.page) == ("crate", "a storage utility", "crate(1)")
    assert [words(fault.reason) for fault in sheet.missing()] == ["needs --pack or --unpack"]
    assert sheet.first_step() == "required"
    fill(sheet, "option -p", SWITCH)
    assert sheet.missing() == []
    assert sheet.first_step() == "often used"


def test_what_a_field_tells(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate", finder)
    level = sheet.field("option -n")
    assert (level.flags, level.placeholder, level.kind, level.limits, level.default) == (
        ["-n", "--level"], "NUM", "number", ["1", "9"], "6",
    )  # fmt: skip
    assert level.says == "Press it so hard, a number from 1 to 9; the default is 6."
    color = sheet.field("option --color")
    assert (color.values, color.bare, color.takes) == (["always", "never", "auto"], True, True)
    assert sheet.field("option -v").repeats
    assert not sheet.field("option -p").takes


def test_what_is_typed_is_filled_in(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate -pvf x.crate 'a b' c", finder)
    assert held(sheet) == {
        "FILE": ["a b", "c"],
        "-p, --pack": [SWITCH],
        "-v, --verbose": [SWITCH],
        "-f, --file": ["x.crate"],
    }
    assert sheet.line() == "crate -pvf x.crate 'a b' c"


def test_a_line_that_nothing_was_changed_in_stays_as_it_was_typed(finder: CommandFinder) -> None:
    for line in (
        "crate   -p  'a'",
        "crate --wobble -p a",
        'crate -p "$x"*.txt',
        "crate -p $(ls) > out",
        "crate --pack --level=3 -- -x",
        "sudo crate -u x",
        "crate -p a; crate",
        "crate -p 'it'\\''s'",
    ):
        assert CommandSheet(line, finder).line() == line


def test_a_change_keeps_what_is_around_the_command(finder: CommandFinder) -> None:
    sheet = CommandSheet("cd x && crate -p a > out.txt | sort", finder, at=15)
    fill(sheet, "option -n", "3")
    assert sheet.line() == "cd x && crate -p -n 3 a > out.txt | sort"
    assert sheet.cursor == len("cd x && crate -p -n 3 a")


def test_the_command_at_the_cursor_is_composed(finder: CommandFinder) -> None:
    line = "crate -p a | grant 755 b"
    assert CommandSheet(line, finder, at=3).title == "crate"
    assert CommandSheet(line, finder).title == "grant"
    assert CommandSheet("crate -p $(grant 1 b) c", finder).title == "crate", (
        "the cursor has left the substitution"
    )
    assert CommandSheet("later 5 crate -p a", finder).title == "crate"


def test_spellings_and_letters_together(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate", finder)
    fill(sheet, "option -p", SWITCH)
    fill(sheet, "option -v", SWITCH, SWITCH)
    fill(sheet, "option -f", "x.crate")
    fill(sheet, "operand 1 FILE", "a", "b c")
    assert sheet.line() == "crate -p -v -v -f x.crate a 'b c'"
    assert sheet.line("long") == "crate --pack --verbose --verbose --file x.crate a 'b c'"
    assert sheet.line("short") == "crate -pvvf x.crate a 'b c'"


def test_a_value_that_is_the_default_is_left_out(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate -p a", finder)
    fill(sheet, "option -n", "6")
    assert sheet.line() == "crate -p a"
    fill(sheet, "option -n", "7")
    assert sheet.line() == "crate -p -n 7 a"
    fill(sheet, "option -n")
    assert sheet.line() == "crate -p a"


def test_an_option_whose_value_may_be_left_out(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate -p a", finder)
    fill(sheet, "option --color", SWITCH)
    assert sheet.line() == "crate -p --color a"
    fill(sheet, "option --color", "never")
    assert sheet.line() == "crate -p --color=never a"


def test_a_value_that_stood_after_an_equals_sign_stays_there(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate -p --level=3 a", finder)
    fill(sheet, "option -n", "4")
    assert sheet.line() == "crate -p --level=4 a"


def test_operands_that_look_like_options_come_after_two_dashes(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate -p", finder)
    fill(sheet, "operand 1 FILE", "-x", "y")
    assert sheet.line() == "crate -p -- -x y"


def test_one_of_an_exclusive_group_rules_the_others_out(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate", finder)
    assert sheet.ruled_out() == {}
    fill(sheet, "option -u", SWITCH)
    assert sheet.ruled_out() == {"option -p": "-u"}
    fill(sheet, "option -u")
    assert sheet.ruled_out() == {}


def test_faults_are_told_of_the_field(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate -p --level 12 a", finder)
    [fault] = sheet.faults()
    assert (fault.field.key, fault.value, words(fault.reason)) == (
        "option -n",
        "12",
        "it must be from 1 to 9",
    )
    fill(sheet, "option -n", "deep")
    assert [words(one.reason) for one in sheet.faults()] == ["a number is wanted here"]
    fill(sheet, "option -n", SWITCH)
    assert [words(one.reason) for one in sheet.faults()] == ["NUM is wanted here"]


def test_a_file_that_is_read_must_be_there(finder: CommandFinder, tmp_path: Path) -> None:
    (tmp_path / "here.txt").write_text("x")
    sheet = CommandSheet("grant 755 here.txt gone.txt", finder, folder=str(tmp_path))
    assert [words(fault.reason) for fault in sheet.faults()] == ["there is no such file here"]
    assert CommandSheet("grant 755 here.txt", finder, folder=str(tmp_path)).faults() == []
    assert CommandSheet("grant 755 *.md $x", finder, folder=str(tmp_path)).faults() == [], (
        "the shell makes names of them"
    )


def test_a_subcommand_brings_its_own_fields(finder: CommandFinder) -> None:
    sheet = CommandSheet("lamp --house palm", finder)
    [command] = sheet.of_step("required")
    assert command.values == ["dim", "light", "repair", "status"]
    sheet.put(command, ["light"])
    assert sheet.line() == "lamp --house palm light"
    assert sheet.settle() and not sheet.settle()
    assert sheet.title == "lamp light"
    assert labels(sheet, "required") == ["LAMP"]
    fill(sheet, "operand 1 LAMP", "one", "two")
    assert sheet.line() == "lamp --house palm light one two"


def test_words_that_cannot_be_told_apart_stay_as_they_are(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate -p \"$(ls)\"x 'a'b", finder)
    fill(sheet, "option -n", "2")
    line = sheet.line()
    assert line.startswith("crate ") and "-n 2" in line and '"$(ls)"x' in line and "'a'b" in line


def test_fields_are_found_by_words(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate", finder)
    assert [field.label for field in sheet.search("level")] == ["-n, --level"]
    assert [field.label for field in sheet.search("packed remove")] == ["--purge"]
    assert sheet.search("balloon") == []
    assert sheet.search("pack")[0].label == "-p, --pack", "the one that is spelled so comes first"


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("nosuch -x", "nothing here documents nosuch"),
        ("", "there is no command there yet"),
        ("$x -a", "only known when"),
    ],
)
def test_what_cannot_be_composed_is_said(finder: CommandFinder, line: str, says: str) -> None:
    with pytest.raises(NotComposable, match=says.replace("(", r"\(")):
        CommandSheet(line, finder)


REAL = os.path.exists("/usr/share/man/man1/tar.1.gz")


@pytest.mark.skipif(not REAL, reason="the machine has no such pages")
def test_recipes_stay_whole_on_the_pages_of_this_machine(tmp_path: Path) -> None:
    from dowsing.composing.filling_in import same_words
    from dowsing.index.index_file import index_path
    from dowsing.index.store import Store
    from dowsing.ingest.build import build
    from dowsing.machine.settings import Settings

    pages = tmp_path / "man" / "man1"
    pages.mkdir(parents=True)
    for name in ("tar", "cp", "ls", "grep", "find", "sort", "head", "chmod", "cut", "dd"):
        source = f"/usr/share/man/man1/{name}.1.gz"
        if os.path.exists(source):
            os.symlink(source, pages / f"{name}.1.gz")
    settings = Settings("", "", "", str(pages.parent), [], info_path="/none")
    path = index_path(str(tmp_path))
    build(path, settings, [str(pages.parent)])
    found = CommandFinder(Store(path), settings)
    lines = (
        "tar -xzf notes.tgz -C attic",
        "tar xzf notes.tgz",
        "cp -r a b c",
        "ls -la",
        "grep -rn --include='*.py' word .",
        "find . -name '*.txt' -mtime -7",
        "find . -type f -size +2G -exec rm {} \\;",
        "sort -t: -k3,3n list",
        "head -5 x",
        "chmod u+rw,go-w x",
        "cut -d: -f1,3 /etc/passwd",
        "dd if=a of=b bs=1M",
    )
    told_apart = 0
    for line in lines:
        sheet = CommandSheet(line, found)
        assert same_words(line, sheet.command_line()), line
        told_apart += not sheet.fixed
    assert told_apart >= len(lines) - 1


@pytest.mark.parametrize(
    ("line", "at", "title"),
    [
        ("later 5 crate -p | lamp status", 3, "later"),
        ("later 5 crate -p | lamp status", 16, "crate"),
        ("later 5 crate -p | lamp status", 30, "lamp status"),
        ("crate $(lamp status) -p", 12, "lamp status"),
        ("crate $(lamp status) -p", 23, "crate"),
        ("crate $(lamp", 12, "lamp"),
        ("crate > $(lamp status", 21, "lamp status"),
        ("sh -c 'crate -p' && lamp", 15, "crate"),
        ("sh -c 'crate -p' && lamp", 24, "lamp"),
    ],
)
def test_the_command_at_the_cursor(finder: CommandFinder, line: str, at: int, title: str) -> None:
    sheet = CommandSheet(line, finder, at)
    assert sheet.title == title
    assert sheet.line() == line


def test_a_word_of_letters_and_quotes_is_filled_in(finder: CommandFinder) -> None:
    sheet = CommandSheet("crate -pf'a b' -v x  # now", finder, 8)
    assert held(sheet) == {
        "-p, --pack": [SWITCH],
        "-f, --file": ["a b"],
        "-v, --verbose": [SWITCH],
        "FILE": ["x"],
    }
    assert sheet.after == "  # now"
    fill(sheet, "option -n", "3")
    assert sheet.line() == "crate -pf 'a b' -vn 3 x  # now"
