"""What a sentence says: conditions, names in their places, parts that it calls for, several values,
amounts.
"""

from __future__ import annotations

import pytest

from dowsing.knowledge.recipes import make_recipe
from dowsing.knowledge.stems import stem
from dowsing.tasks.amounts import minutes_of, number_of, size_of
from dowsing.tasks.answers import as_root
from dowsing.tasks.bare_names import Ordinary
from dowsing.tasks.conditions import conditions_in
from dowsing.tasks.conditions import tests_of as written
from dowsing.tasks.filling import fill
from dowsing.tasks.part_phrases import find_phrase, parts_called_for, tokens_of
from dowsing.tasks.sentence import understand, understood
from dowsing.tasks.values import values_in

WORDS = """find list delete pack files file folder folders picture pictures older newer than bigger
    under below in the last day days
    week month hour owned by user empty hidden without named called starting with ending name names
    start begin all every copy
    from to host server machine sort by reverse numbers lines log logs docs build music put show
    and port search for word text
    changed modified not but only no subfolders anybody may write since yesterday today call it
    make new group service script"""
ORDINARY = Ordinary(
    frozenset(stem(word) for word in WORDS.split()),
    frozenset(stem(word) for word in "older last all".split()),
)


def as_tests(sentence: str) -> str:
    """The conditions of a sentence as find takes them."""
    return written(conditions_in(sentence, values_in(sentence, ORDINARY)))


@pytest.mark.parametrize(
    ("sentence", "expected"),
    [
        ("files older than 30 days", "-type f -mtime +30"),
        ("files older than a month", "-type f -mtime +30"),
        ("files that were not changed for two weeks", "-type f -mtime +14"),
        ("files changed in the last hour", "-type f -mmin -60"),
        ("files changed in the past 3 days", "-type f -mtime -3"),
        ("files changed today", "-type f -daystart -mtime 0"),
        ("files changed since 2024-02-01", "-type f -newermt 2024-02-01"),
        ("files newer than stamp.txt", "-type f -newer stamp.txt"),
        ("files nobody opened for a year", "-type f -atime +365"),
        ("files bigger than 1.5 GB", "-type f -size +1536M"),
        ("files smaller than 20 kilobytes", "-type f -size -20k"),
        ("empty folders", "-type d -empty"),
        ("empty files", "-type f -empty"),
        ("hidden files", "-type f -name '.*'"),
        ("*.txt files, not the hidden ones", "-type f -name '*.txt' -not -path '*/.*'"),
        ("files owned by fern", "-type f -user fern"),
        ("files owned by group gardeners", "-type f -group gardeners"),
        ("fern's files", "-type f -user fern"),
        ("files that anybody may write to", "-type f -perm -o+w"),
        ("all .png and .jpg files", r"-type f \( -name '*.png' -o -name '*.jpg' \)"),
        (
            "every picture",
            r"-type f \( -iname '*.jpg' -o -iname '*.jpeg' -o -iname '*.png' -o -iname '*.gif' \)",
        ),
        ("files starting with bed", "-type f -name 'bed*'"),
        ("files with rose in their name", "-type f -name '*rose*'"),
        ("*.log files without subfolders", "-maxdepth 1 -type f -name '*.log'"),
        ("everything but no folders named x.y", "-type f -name x.y"),
        ("the folder", ""),
    ],
)
def test_conditions_on_files(sentence: str, expected: str) -> None:
    assert as_tests(sentence) == expected


@pytest.mark.parametrize(
    ("sentence", "expected"),
    [
        ("pack docs", []),
        ("files below docs", [("docs", "name")]),
        ("files in the docs folder", [("docs", "name")]),
        ("the folder build", [("build", "name")]),
        ("pack the largest folder", []),
        ("copy music and docs", [("docs", "name")]),
        ("user fern, group gardeners", [("fern", "name"), ("gardeners", "name")]),
        ("call it charts", [("charts", "name")]),
        ("search for ERROR in the log", [("ERROR", "text")]),
        (
            "copy garden.example:/var/log here",
            [("garden.example:/var/log", "remote"), ("here", "name")],
        ),
        ("sort by the third column", [("3", "number")]),
        ("sort by a comma-separated list", [(",", "separator")]),
        ("two weeks", [("2", "number")]),
        ("3 * 4 + 1", [("3 * 4 + 1", "sum")]),
    ],
)
def test_names_and_values_in_their_places(sentence: str, expected: list[tuple[str, str]]) -> None:
    assert [
        pair for one in values_in(sentence, ORDINARY) if (pair := (one.text, one.kind)) in expected
    ] == expected


@pytest.mark.parametrize(
    ("sentence", "phrase", "found"),
    [
        ("copy it and everything in it", "everything in it", True),
        ("ask me before overwriting", "ask me", True),
        ("do not ask me", "ask me", False),
        ("never ask", "never ask", True),
        ("ask that old friend of me", "ask me", False),
    ],
)
def test_phrases(sentence: str, phrase: str, found: bool) -> None:
    assert bool(find_phrase(tokens_of(sentence), phrase)) is found


def test_named_parts_stand_where_the_sentence_says_so() -> None:
    recipe = make_recipe(
        {
            "task": "x", "line": "sort {?numeric:-n ?}{?up:-u ?}{?-k <column> ?}<file>",
            "parts": {"up": ["only once"]},
        }, "", "",
    )  # fmt: skip
    called = parts_called_for(tokens_of("numerically, each only once"), recipe.parts)
    values = values_in("sort n.txt by column 2", ORDINARY)
    assert sorted(called) == ["numeric", "up"]
    assert fill(recipe, values, frozenset(called)).line == "sort -n -u -k 2 n.txt"
    assert fill(recipe, values_in("sort n.txt", ORDINARY)).line == "sort n.txt"


@pytest.mark.parametrize(
    ("line", "slots", "sentence", "expected"),
    [
        (
            "cat <file> > <target>",
            {},
            "put a.txt, b.txt and c.txt into d.txt",
            "cat a.txt b.txt c.txt > d.txt",
        ),
        (
            "scp <file> <user>@<host>:",
            {},
            "copy a.txt to fern@garden.example",
            "scp a.txt fern@garden.example:",
        ),
        (
            "tar -czf x {?--exclude=<excluded> ?}<folder>",
            {"excluded": {"kind": "glob"}},
            "pack the folder docs without *.bak",
            "tar -czf x --exclude='*.bak' docs",
        ),
        (
            "find <folder> <conditions> -delete",
            {},
            "delete *.tmp below build",
            "find build -type f -name '*.tmp' -delete",
        ),
        ("sleep <minutes>", {"minutes": {"kind": "number"}}, "2 hours", "sleep 120"),
        ("timeout <time> x", {"time": {"kind": "duration"}}, "5 minutes", "timeout 5m x"),
    ],
)
def test_filling_from_sentences(
    line: str, slots: dict[str, object], sentence: str, expected: str
) -> None:
    values = values_in(sentence, ORDINARY)
    conditions = conditions_in(sentence, values)
    recipe = make_recipe({"task": "x", "line": line, "slots": slots}, "", "")
    left = [
        v
        for v in values
        if "conditions" not in line
        or not any(c.start < v.end and v.start < c.end for c in conditions)
    ]
    assert fill(recipe, left, frozenset(), written(conditions)).line == expected


def test_what_was_said_last_counts() -> None:
    said = understand(
        "files older than 3 days under docs", ["older than 5 days, in /srv instead"], ORDINARY
    )
    assert written(said.conditions) == "-type f -mtime +5"
    assert [value.text for value in said.values][:2] == ["5", "/srv"]
    assert "older than 5 days (-mtime +5)" in understood(said, "find /srv -mtime +5", [], [])


def test_tools_that_are_wanted_and_refused() -> None:
    said = understand("pack the folder docs with zstd", ["use xz instead", "without tar"], ORDINARY)
    assert ("zstd" in said.with_tools, "xz" in said.with_tools, "tar" in said.without_tools) == (
        True,
        True,
        True,
    )


def test_amounts() -> None:
    assert (number_of("half an"), number_of("a dozen"), number_of("2.5")) == (0.5, 12, 2.5)
    assert (minutes_of("a", "week"), minutes_of("2", "months"), minutes_of("30", "seconds")) == (
        10080,
        86400,
        0.5,
    )
    assert (size_of("2", "TB"), size_of("500", "bytes"), size_of("1.5", "k")) == (
        "2048G",
        "500c",
        "1536c",
    )


@pytest.mark.parametrize(
    ("again", "root"),
    [([], True), (["without sudo"], False), (["without sudo", "as root after all"], True)],
)
def test_root_is_to_do_it_if_that_was_said_last(again: list[str], root: bool) -> None:
    said = understand("delete the folder docs with sudo", again, ORDINARY)
    assert said.as_root is root
    assert "sudo" not in [word.text for word in said.words]


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("rm -r docs", "sudo rm -r docs"),
        ("mount <device> <folder>", "sudo mount <device> <folder>"),
        ("echo a > b", "echo a > b"),
        ("cd docs", "cd docs"),
        ("sudo ls", "sudo ls"),
        ("a | b", "a | b"),
    ],
)
def test_a_line_for_root(line: str, expected: str) -> None:
    assert as_root(fill(make_recipe({"task": "x", "line": line}, "", ""), [])).line == expected


@pytest.mark.parametrize(
    ("sentence", "expected"),
    [
        ("files not older than a week", "-type f -not -mtime +7"),
        ("files, but not the empty ones", "-type f -not -empty"),
        ("*.txt files, not in the folder old.d", "-type f -name '*.txt' -not -path '*/old.d/*'"),
        ("all .c files except those owned by fern", "-type f -name '*.c' -not -user fern"),
        ("the folder is not empty", ""),
        ("today's date", ""),
        ("mistd's configuration", ""),
    ],
)
def test_conditions_that_are_turned_round_or_are_none(sentence: str, expected: str) -> None:
    assert as_tests(sentence) == expected


@pytest.mark.parametrize(
    ("sentence", "values"),
    [
        ("lines 10-20 of a.txt", [("10", "number", "from"), ("20", "number", "until")]),
        ("rows 3 to 9", [("3", "number", "from"), ("9", "number", "until")]),
        ("connect to 10.0.0.7:8443", [("10.0.0.7", "host", ""), ("8443", "number", "port")]),
        ("what day was 1700000000", [("1700000000", "number", "epoch")]),
        ("who is in 192.168.7.0/24", [("192.168.7.0/24", "host", "")]),
        ("build from the Makefile", [("Makefile", "file", "")]),
        ("17 times 23", [("17*23", "sum", "")]),
        ("100 divided by 4 plus 2", [("100/4+2", "sum", "")]),
        ("what the -z in tar -xzf does", [("tar -xzf", "command", "")]),
        ("explain what find . -type f means", [("find . -type f", "command", "")]),
        ("list tar.gz files", []),
        ("files of 20 megabytes", [("20M", "size", "megabyte")]),
    ],
)
def test_values_that_cannot_be_mistaken(sentence: str, values: list[tuple[str, str, str]]) -> None:
    found = [one for one in values_in(sentence, ORDINARY) if one.sure]
    assert [(one.text, one.kind, one.unit) for one in found][: len(values)] == values


def test_what_stands_for_kinds_of_values_in_the_choice() -> None:
    said = understand("copy a.txt to b.txt on port 80 every day at 6:15", [], ORDINARY)
    assert [one for one in said.stems if one.startswith("<")] == [
        "<file",
        "<number",
        "<time",
        "<file 2",
    ]


def test_words_of_endings_are_hints_and_words_of_conditions_stand_inside() -> None:
    said = understand("find a.png files older than 30 days", [], ORDINARY)
    assert said.hints == {"pictur", "imag"}
    assert said.inside == {"older", "than", "<duration"}


def test_can_not_is_read_like_any_negation() -> None:
    assert "not" in understand("I can't sort files", [], ORDINARY).stems


def test_a_revision_opens_a_value_or_puts_another_in_its_place() -> None:
    opened = understand("forward port 8080", ["on another port"], ORDINARY)
    assert [one.text for one in opened.values] == []
    assert "8080" not in opened.text
    changed = understand("files in /srv", ["only below /srv/media"], ORDINARY)
    assert [(one.text, one.turn) for one in changed.values] == [("/srv/media", 1), ("/srv", 0)]


def test_what_is_there_instead_of_what_is_wanted() -> None:
    found = values_in("semicolons instead of commas", ORDINARY)
    assert {(one.text, one.unit) for one in found if one.unit} == {(";", "old"), (",", "new")}
