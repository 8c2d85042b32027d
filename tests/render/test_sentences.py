"""Whole lines in plain English: `sentences.tsv` has lines with what is said of them. The commands
are those that our facts have words for; no page here tells of them.
"""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.render.line_sentence import sentence, sentences
from dowsing.render.meanings import meanings_here
from dowsing.render.redirections_in_words import redirected
from dowsing.render.tests_in_words import test_words as condition
from dowsing.render.verb_forms import third_person

ROWS = [
    line.split("\t")
    for line in (Path(__file__).parent / "sentences.tsv").read_text("utf-8").splitlines()
]


@pytest.mark.parametrize(("line", "says"), ROWS, ids=[row[0] for row in ROWS])
def test_a_line_in_a_sentence(finder: CommandFinder, line: str, says: str) -> None:
    assert sentence(unpick(line, finder)) == says


@pytest.mark.parametrize(
    ("line", "flag", "says"),
    [
        ("sort -k2,2nr f", "-k", "by the second field, as numbers, largest first"),
        ("find . -mtime +30", "-mtime", "changed more than 30 days ago"),
        ("ssh -L 80:a:80 h", "-L", "forwards port 80 here to port 80 of a, as seen "
         "from there"),
        ("head -n 5 f", "-n", "the first 5 lines"),
        ("crate -f x.crate -p a", "-f", None),
        ("crate -pC attic a", "-C", "Go to attic first."),
    ],
)  # fmt: skip
def test_an_option_with_its_value_put_in(
    finder: CommandFinder, line: str, flag: str, says: str | None
) -> None:
    here = meanings_here(unpick(line, finder).commands)
    assert next((text for (_, _, one), text in here.items() if one == flag), None) == says


@pytest.mark.parametrize(
    ("words", "says"),
    [
        (["-f", "x"], "x is a file"),
        (["!", "-d", '"$x"'], "$x is not a folder"),
        (["$a", "-ge", "3"], "$a is at least 3"),
        (["$a", "=", '""'], "$a is empty"),
        (["$a", "==", "b*"], "$a matches b*"),
        (["$#", "-eq", "2"], "the number of arguments is 2"),
        (["-n", "$1", "-a", "-r", "$1"], "argument 1 is not empty and argument 1 can be read"),
        (["-x", "a", "||", "-x", "b"], "a can be run or b can be run"),
        (["a", "-nt", "b"], "a is newer than b"),
        (["$x"], "$x is not empty"),
        (["!", "(", "-e", "a", ")"], "a is not there"),
        (["a", "b", "c", "d"], ""),
    ],
)
def test_a_test_in_words(words: list[str], says: str) -> None:
    assert condition(words) == says


def test_verbs_in_the_third_person() -> None:
    verbs = ["copy", "push", "fix", "do", "be", "play", "pass", "watch", "list"]
    assert [third_person(one) for one in verbs] == [
        "copies", "pushes", "fixes", "does", "is", "plays", "passes", "watches", "lists",
    ]  # fmt: skip


def test_a_clause_without_redirections_stays() -> None:
    assert redirected("lists a", [], "") == "lists a"


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("rm $(sort a)", "Removes $(sort a). $(sort a) sorts the lines of a."),
        (
            "cat <(sort a) <(sort b)",
            "Shows <(sort a) and <(sort b). <(sort a) sorts the lines of a. "
            "<(sort b) sorts the lines of b.",
        ),
        ("rm $(nosuch)", "Removes $(nosuch)."),  # of which nothing more can be said
        ("rm a", "Removes a."),
    ],
)
def test_substitutions_have_sentences_of_their_own(
    line: str, expected: str, finder: CommandFinder
) -> None:
    assert sentences(unpick(line, finder)) == expected
