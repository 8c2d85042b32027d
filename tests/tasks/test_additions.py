"""What is asked for beside the recipe: options, values in a row, columns, pipes; and words that are
spelled wrongly.
"""

from __future__ import annotations

import pytest

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.knowledge.asks import faults_of_asks, phrase_items
from dowsing.tasks.answers import SURE, lines_for
from dowsing.tasks.inserting import around, command_places, inserted, replaced, stands_in

KNOWN = frozenset(("tar", "find", "git log", "git", "ffmpeg", "dd", "sort", "ps", "zip"))


def first(finder: CommandFinder, *said: str) -> str:
    found = lines_for(said[0], list(said[1:]), finder)
    return found.answers[0].line if found.answers else "-"


@pytest.mark.parametrize(
    ("sentence", "line"),
    [
        (
            "install nginx and curl with apt, without any question and without the recommended "
            "packages",
            "apt-get --no-install-recommends install -y nginx curl",
        ),
        (
            "pack the folder letters into letters.tar.xz without node_modules and without .git",
            "tar --exclude=node_modules -cJf letters.tar.xz --exclude=.git letters",
        ),
        (
            "list the block devices with name, size, file system and mount point, but no loop "
            "devices",
            "lsblk -e 7 -o NAME,SIZE,FSTYPE,MOUNTPOINT",
        ),
        (
            "play song.mp3 in the terminal without a window",
            "ffplay -nodisp song.mp3",
        ),
        (
            "unzip photos.zip to ~/pics but don't overwrite what is there, and be quiet",
            "unzip -q -n photos.zip -d ~/pics",
        ),
        (
            "bring back only the table customers from shop.dump into database shop_test with 4 "
            "parallel jobs",
            "pg_restore -t customers -j 4 -d shop_test shop.dump",
        ),
        (
            "give the processes 4312 and 4313 a nice value of 15",
            "renice -n 15 -p 4312 4313",
        ),
    ],
)
def test_what_is_asked_for_beside_the_recipe_is_in_the_line(
    bare_finder: CommandFinder, sentence: str, line: str
) -> None:
    assert first(bare_finder, sentence) == line


@pytest.mark.parametrize(
    ("sentence", "not_in_it"),
    [
        ("tcp ports that are being listened on, no udp", " -u"),
        ("how many times does the word storm occur in log.txt", " -w"),
        ("pages 3 to 7 of book.pdf into extract.pdf, and rotate cover.pdf", "--rotate"),
        ("what's in this zip without unpacking it", "-d zip"),
    ],
)
def test_what_is_denied_or_only_named_is_not_put_in(
    bare_finder: CommandFinder, sentence: str, not_in_it: str
) -> None:
    assert not_in_it not in first(bare_finder, sentence)


def test_what_was_put_in_is_told_with_the_words_that_asked(bare_finder: CommandFinder) -> None:
    found = lines_for("play song.mp3 in the terminal without a window", [], bare_finder)
    assert "without a window (-nodisp)" in found.understood
    assert found.answers[0].longer


@pytest.mark.parametrize(
    ("sentence", "read", "line"),
    [
        (
            "delte the brnch old-login",
            {"delte": "delete", "brnch": "branch"},
            "git branch -d old-login",
        ),
        ("pip outdatd list", {"outdatd": "outdated"}, "pip list --outdated"),
    ],
)
def test_a_misspelled_word_is_read_as_it_is_meant(
    bare_finder: CommandFinder, sentence: str, read: dict[str, str], line: str
) -> None:
    found = lines_for(sentence, [], bare_finder)
    assert {one.typed: one.read for one in found.misspelled} == read
    assert found.answers[0].line == line
    assert found.likely < SURE


@pytest.mark.parametrize(
    "sentence",
    [
        "kill marko's processes",
        "add user marko",
        "restart portainer",
        "remove the package acme",
        "lock the account of otto",
        "run 'delte' in letters",
    ],
)
def test_a_name_is_left_as_it_is(bare_finder: CommandFinder, sentence: str) -> None:
    assert lines_for(sentence, [], bare_finder).misspelled == []


def test_a_misspelled_word_is_never_what_is_destroyed(bare_finder: CommandFinder) -> None:
    for answer in lines_for("delete the fodler", [], bare_finder).answers:
        assert "folder " not in f"{answer.line} " or "<folder>" in answer.line


@pytest.mark.parametrize(
    ("line", "text", "longer"),
    [
        ("git log main", "--oneline", "git log --oneline main"),
        ("sudo tar -cf a.tar b", "-v", "sudo tar -v -cf a.tar b"),
        ("find . -name '*.c' -delete", "-maxdepth 1", "find . -maxdepth 1 -name '*.c' -delete"),
        ("find . -name '*.c'", "-print0", "find . -name '*.c' -print0"),
        ("ffmpeg -i a.mov b.mp4", "-an", "ffmpeg -i a.mov -an b.mp4"),
        ("dd if=a of=b", "bs=4M", "dd if=a of=b bs=4M"),
        ("cat a | sort | head", "-r", "cat a | sort -r | head"),
        ("echo 'a | sort'; sort b", "-n", "echo 'a | sort'; sort -n b"),
    ],
)
def test_where_an_addition_stands(line: str, text: str, longer: str) -> None:
    place = command_places(line, KNOWN)[-1]
    assert inserted(line, place, text) == longer


@pytest.mark.parametrize(
    ("line", "text", "is_there"),
    [
        ("tar -czf a b", "-z", True),
        ("tar -czf a b", "-v", False),
        ("tar --exclude=x -cf a b", "--exclude=<pattern>", True),
        ("find . -type d", "-type f", False),
        ("find . -type d", "-type d", True),
        ("find . -delete", "-d", False),
        ("dd if=a of=b", "of=<file>", True),
        ("dd if=a of=b", "bs=<size>", False),
        ("ps -o pid,user -e", "-o comm,args", True),
    ],
)
def test_whether_an_option_is_there(line: str, text: str, is_there: bool) -> None:
    assert stands_in(line, command_places(line, KNOWN)[0], text) is is_there


def test_words_that_an_addition_takes_the_place_of() -> None:
    line = "ps -o pid,comm aux --sort=-%mem | head -n 3"
    place = command_places(line, KNOWN)[0]
    made = replaced(line, place, {"aux": "-e"})
    assert made == "ps -o pid,comm -e --sort=-%mem | head -n 3"


@pytest.mark.parametrize(
    ("line", "text", "longer"),
    [
        ("ls", "<line> | wc -l", "ls | wc -l"),
        ("ls > a", "<line> | wc -l", None),
        ("ls", "nice -n 19 <line>", "nice -n 19 ls"),
        ("ls | sort", "nice -n 19 <line>", None),
        ("ls", "(cd a && <line>)", None),
    ],
)
def test_what_every_line_may_get(line: str, text: str, longer: str | None) -> None:
    assert around(line, text) == longer


def test_a_phrase_without_what_says_nothing() -> None:
    assert phrase_items("Don't show the <n> oldest of them") == "no show <n> oldest"


def test_what_is_wrong_in_a_file_of_phrases() -> None:
    rows = {
        "tar": {
            "-v": {"asks": ["telling <file>"]},
            "-z": {"asks": [], "wrong": 1},
        },
        "any": {"| wc": {"asks": ["counted"]}},
    }
    assert list(faults_of_asks("tar.asks", rows)) == [
        "tar.asks: tar -v: no place <file>",
        "tar.asks: tar -z: unknown key ['wrong'], or nothing asks for it",
        "tar.asks: | wc has no place for the line",
    ]
