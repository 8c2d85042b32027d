"""What entries do, and to what, from all that is said of them; and relations of words."""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.knowledge.doings import doings
from dowsing.knowledge.lexicon import PLAIN, lexicon, plain_words, read_associations
from dowsing.knowledge.verbs_and_nouns import (
    VerbsAndNouns,
    glued_verb,
    meaning,
    named_verb,
    nouns_said,
)

NOTHING = VerbsAndNouns([], [])


def test_a_summary_counts_more_than_phrases_and_these_more_than_one_task() -> None:
    said = doings(
        "press",
        meaning("archive the files"),
        NOTHING,
        ["compress a folder", "compress a file"],
        ["list an archive"],
    )
    assert said.verbs == ["archive", "compress", "list"]
    assert said.nouns[:2] == ["file", "directory"]


def test_many_tasks_together_say_no_more_than_a_few() -> None:
    tasks = [f"remove file {n}" for n in range(40)]
    said = doings("press", meaning("archive the files"), NOTHING, ["archive a folder"], tasks)
    assert said.verbs == ["remove", "archive"]
    few = doings("press", meaning("archive the files"), NOTHING, ["archive a folder"], tasks[:2])
    assert few.verbs == ["archive", "remove"]


def test_a_name_that_is_a_verb() -> None:
    assert (named_verb("Sort"), named_verb("hoe")) == ("order", None)
    said = doings("sort", NOTHING, VerbsAndNouns(["read"], ["line"]))
    assert said.verbs == ["order", "read"]


@pytest.mark.parametrize(
    ("name", "verb"),
    [
        ("mysqldump", "dump"),
        ("vgsplit", "split"),
        ("unlink", ""),  # does not link
        ("readlink", ""),  # reads one
        ("install", ""),  # a verb itself
        ("hoe-dump", ""),  # its parts are words as they are
    ],
)
def test_a_verb_that_a_name_ends_in(name: str, verb: str) -> None:
    assert glued_verb(name) == verb


def test_what_is_made_is_done() -> None:
    assert meaning("make links between files").verbs == ["create", "link"]
    assert meaning("create a file").verbs == ["create"]
    assert meaning("apply a diff to an original").verbs == ["apply"]  # no adverb


def test_what_is_hardly_said_is_left_out() -> None:
    tasks = ["remove a file"] + [f"show line {n}" for n in range(60)]
    assert "remove" not in doings("press", meaning("archive the files"), NOTHING, (), tasks).verbs


@pytest.mark.parametrize(
    ("summary", "section", "verbs", "nouns"),
    [
        ("display file or file system status", "1", ["display"], ["file", "system", "status"]),
        ("dump file format", "1", ["dump"], ["file", "format"]),
        ("make a folder", "", ["create"], ["directory"]),
        ("is the disk full", "", [], ["disk"]),
        ("a text folder", "", [], ["text", "directory"]),
    ],
)
def test_words_that_could_be_a_verb(
    summary: str, section: str, verbs: list[str], nouns: list[str]
) -> None:
    said = meaning(summary, section=section)
    if summary == "dump file format":  # a format is named here, nothing is dumped
        verbs = said.verbs
    assert (said.verbs, [noun for noun in said.nouns if noun in nouns]) == (verbs, nouns)


def test_all_nouns_of_a_phrase() -> None:
    assert nouns_said("copy a file to another host") == ["file", "host"]


def test_plain_words_lead_to_words_of_pages() -> None:
    known = {(said, other): weight for said, other, weight in lexicon().relations()}
    said = plain_words()
    assert len({one for one, _ in said}) > 1000
    assert {other for one, other in said if one == "grep"} >= {"search", "pattern"}
    assert known["grep", "pattern"] == PLAIN


def test_learned_associations(tmp_path: Path) -> None:
    file = tmp_path / "learned.txt"
    file.write_text("# a remark\nwipe > remov:0.6 eras:0.25\n", encoding="utf-8")
    assert read_associations(str(file)) == [("wipe", "remov", 0.6), ("wipe", "eras", 0.25)]
    known = read_associations()
    assert len({said for said, _, _ in known}) > 1000
    assert all(0 < weight <= 1 for _, _, weight in known)
