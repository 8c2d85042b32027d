"""Values of sentences into slots, and their quoting."""

from __future__ import annotations

import subprocess

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dowsing.knowledge.recipes import KINDS, make_recipe
from dowsing.knowledge.stems import stem
from dowsing.tasks.bare_names import Ordinary
from dowsing.tasks.filling import fill, quoted
from dowsing.tasks.values import Value, values_in

KNOWN = Ordinary(
    frozenset(
        stem(word)
        for word in "pack copy the folder under into files file older than days delete pictures "
        "named as user on host larger column pointing".split()
    )
)


def kinds(sentence: str) -> list[tuple[str, str]]:
    """Text and kind of each value."""
    return [(value.text, value.kind) for value in values_in(sentence, KNOWN)]


@pytest.mark.parametrize(
    ("sentence", "expected"),
    [
        ("pack notes.txt into notes.tar.gz", [("notes.txt", "file"), ("notes.tar.gz", "file")]),
        ("files under /var/log older than 30 days", [("/var/log", "path"), ("30", "number")]),
        ("files larger than 700 MB", [("700M", "size")]),
        ("the 3rd column", [("3", "number")]),
        ("find 'a b' in x.log", [("a b", "text"), ("x.log", "file")]),
        ("all .png files", [("png", "extension")]),
        ("the mp4s under media", [("mp4", "extension"), ("media", "name")]),
        ("get https://a.example/x.dat, please", [("https://a.example/x.dat", "url")]),
        ("as fern@garden.example", [("fern@garden.example", "host")]),
        ("delete *.tmp", [("tmp", "extension")]),
        ("restart dome-heater", [("dome-heater", "name")]),
        ("everything under spectra", [("spectra", "name")]),
        ("replace foo with 'b c' in x.ini", [("foo", "text"), ("b c", "text"), ("x.ini", "file")]),
        ("copy the folder", []),
        ("tariq's files on dome-pc", [("tariq", "name"), ("dome-pc", "name")]),
        ("", []),
    ],
)
def test_values_of_a_sentence(sentence: str, expected: list[tuple[str, str]]) -> None:
    assert kinds(sentence) == expected


def recipe(line: str, **slots: dict[str, str]):  # type: ignore[no-untyped-def]
    """A recipe of that line."""
    return make_recipe({"task": "x", "line": line, "slots": slots}, "", "")


@pytest.mark.parametrize(
    ("line", "sentence", "expected"),
    [
        (
            "find <folder> -mtime +<days>",
            "files under spectra older than 2 weeks",
            "find spectra -mtime +14",
        ),
        (
            "find <folder> {?-name <glob> ?}-print",
            "all .png files under spectra",
            "find spectra -name '*.png' -print",
        ),
        ("find <folder> {?-name <glob> ?}-print", "files under spectra", "find spectra -print"),
        ("ln -s <existing> <link>", "named latest pointing at a/b", "ln -s a/b latest"),
        (
            "scp <file> <user>@<host>:",
            "send a.txt to tariq's files on dome-pc",
            "scp a.txt tariq@dome-pc:",
        ),
        ("cut -f<column> <file>", "the 3rd column of x.tsv", "cut -f3 x.tsv"),
        (
            "date -d '<date> -<days> days' +%F",
            "3 weeks before 2026-05-01",
            "date -d '2026-05-01 -21 days' +%F",
        ),
        (
            "awk '{print $<column1>, $<column2>}' <file>",
            "columns 4 and 1 of x.txt",
            "awk '{print $4, $1}' x.txt",
        ),
        ("split -b <size> <file>", "split x.txt into 1000 lines", "split -b <size> x.txt"),
        ("cp <file> <target>", "cover.png to 800x600", "cp cover.png <target>"),
        (
            "(crontab -l; echo '<schedule> <command>') | crontab -",
            "run ./a.sh every weekday at 6:15",
            "(crontab -l; echo '15 6 * * 1-5 ./a.sh') | crontab -",
        ),
        (
            "sed s/<old>/<new>/ <file>",
            "replace foo with 'b/c d' in x.ini",
            "sed 's/foo/b\\/c d/' x.ini",
        ),
        ("wc -l <file>", "count all .py files", "wc -l *.py"),
        ("rm <file>", "delete 'a b; rm -rf ~'", "rm 'a b; rm -rf ~'"),
        ("awk '{print $<number>}' <file>", "column 2 of x.txt", "awk '{print $2}' x.txt"),
    ],
)
def test_filling(line: str, sentence: str, expected: str) -> None:
    assert fill(recipe(line), values_in(sentence, KNOWN)).line == expected


def test_a_slot_says_what_its_values_are_like() -> None:
    one = recipe(
        "tar -xf <archive> <member>",
        archive={"kind": "file", "like": "*.tgz"},
        member={"kind": "file"},
    )
    assert (
        fill(one, values_in("get read.me out of kit.tgz", KNOWN)).line == "tar -xf kit.tgz read.me"
    )


def test_a_default_stands_where_nothing_is_said() -> None:
    one = recipe("find <folder> -empty", folder={"kind": "folder", "default": "."})
    assert fill(one, []).line == "find . -empty"
    assert fill(recipe("rm <file>"), []).line == "rm <file>"


@settings(max_examples=60, deadline=None)
@given(
    st.lists(
        st.text(
            alphabet=st.characters(codec="utf-8", exclude_characters="\x00"),
            min_size=1,
            max_size=12,
        ),
        min_size=1,
        max_size=8,
    )
)
def test_a_value_is_one_argument_whatever_is_in_it(values: list[str]) -> None:
    line = "printf '%s\\0' " + " ".join(quoted(value) for value in values)
    out = subprocess.run(["bash", "-c", line], capture_output=True, check=True).stdout
    got = out.decode("utf-8", "surrogateescape").split("\0")[:-1]
    home = [value for value in values if value == "~" or value.startswith("~/")]
    if not home:  # a home folder is what the user means by ~
        assert got == values


@pytest.mark.parametrize(
    "value",
    ["$(touch x)", "`id`", ";rm -rf .", "a\nb", "-rf", "--", "'", '"', "$HOME", "a b", "*", "é"],
)
def test_nothing_of_a_value_is_run(value: str) -> None:
    line = fill(recipe("printf '%s\\n' <file>"), [Value(value, "file", 0, 1)]).line
    out = subprocess.run(["bash", "-c", line], capture_output=True, text=True, check=True).stdout
    assert out == ("./" if value.startswith("-") else "") + value + "\n"


@pytest.mark.parametrize(
    ("line", "value", "expected"),
    [
        ("sed s/<old>/x/g y", "-d", "sed s/-d/x/g y"),
        ("grep -e <pattern> y", "-v", "grep -e -v y"),
        ("mail --to=<text>", "-x", "mail --to=-x"),
        ("rm <file>", "-rf", "rm ./-rf"),
        ("rm <file>", "-r f", "rm './-r f'"),
        ("grep <pattern> y", "-v", "grep <pattern> y"),
        ("ssh <text>", "-oProxyCommand=x", "ssh <text>"),
    ],
)
def test_a_leading_dash_is_guarded_where_it_would_be_an_option(
    line: str, value: str, expected: str
) -> None:
    """Within a word or behind an option it means nothing; a file gets `./`; other words stay
    open.
    """
    kind = "file" if "<file>" in line else "text"
    assert fill(recipe(line), [Value(value, kind, 0, 1)]).line == expected


@pytest.mark.parametrize(
    ("line", "value", "expected"),
    [
        ("sh -c 'cat <word>'", "a b", r"sh -c 'cat '\''a b'\'''"),
        ("ssh garden 'cat <word>'", "$(id)", r"ssh garden 'cat '\''$(id)'\'''"),
        ("awk '/<word>/' y", "bed", "awk '/bed/' y"),
        ("awk '/<word>/' y", '/; system("id")', "awk '/<word>/' y"),
        ("jq '.<word>' y", "wind-speed", "jq '.wind-speed' y"),
    ],
)
def test_a_place_in_quotes_takes_what_means_nothing_there(
    line: str, value: str, expected: str
) -> None:
    """A text that another shell reads has it quoted for that shell; in other programs it stays open
    if it could act.
    """
    assert fill(recipe(line), [Value(value, "name", 0, 1)]).line == expected


@settings(max_examples=120, deadline=None)
@given(
    value=st.text(
        alphabet=st.characters(codec="utf-8", exclude_characters="\x00"), min_size=1, max_size=12
    ),
    kind=st.sampled_from(sorted(KINDS - {"command", "conditions"})),
    said=st.sampled_from(
        "file path name glob text extension host url remote number size date time sum "
        "separator".split()
    ),
)
def test_whatever_the_kinds_a_value_is_one_argument(value: str, kind: str, said: str) -> None:
    one = recipe("set -f; printf '%s\\0' <slot>", slot={"kind": kind})
    line = fill(one, [Value(value, said, 0, 1)]).line
    if "<slot>" in line:
        return  # no value of that kind goes into such a slot
    out = subprocess.run(["bash", "-c", line], capture_output=True, check=True).stdout
    assert out.count(b"\0") == 1


@pytest.mark.parametrize(
    ("value", "expected"), [("3 * 4 + 1", "3*4+1"), (")", "0"), ("-e 5", "5"), ("$(x)1", "1")]
)
def test_a_sum_is_digits_and_signs_alone(value: str, expected: str) -> None:
    one = recipe("echo '<sum>' | bc", sum={"kind": "sum"})
    assert fill(one, [Value(value, "sum", 0, 1)]).line == f"echo '{expected}' | bc"
