"""The lexicon, stems, and verbs and nouns worked out of summaries."""

from __future__ import annotations

import re

import pytest

from dowsing.knowledge.lexicon import EQUAL, NEAR, Lexicon, WordGroup, faults, lexicon, singular
from dowsing.knowledge.page_phrases import purposes
from dowsing.knowledge.stems import EMPTY, stem, stems, words
from dowsing.knowledge.verbs_and_nouns import VerbsAndNouns, meaning
from dowsing.model.names import SECTION_ORDER


def test_the_lexicon_is_consistent() -> None:
    assert faults(lexicon()) == []


def test_what_is_not_consistent_is_told() -> None:
    verbs = [WordGroup("mow", ["cut", "trim"], []), WordGroup("trim", ["mow"], ["trim"])]
    told = faults(Lexicon(verbs, [WordGroup("Bed", [], [])], {"a b": "a-b"}))
    assert "verb trim: in mow and in trim" in told
    assert "verb mow: in mow and in trim" in told
    assert "verb trim: trim is near and equal" in told
    assert "Bed is not in lower case" in told
    assert "joined a b: a-b is in no group" in told


def test_related_words() -> None:
    known = lexicon()
    related = {(one, other): weight for one, other, weight in known.relations()}
    assert related["delet", "eras"] == related["eras", "delet"] == EQUAL
    assert related["shred", "remov"] == NEAR
    assert ("file", "fork") not in related
    assert ("hard drive", "disk") in known.joins()
    assert [known.verb(word) for word in ("removes", "deleting", "written", "reinstall")] == [
        "remove", "remove", "write", "install",
    ]  # fmt: skip
    assert [
        known.noun(word) for word in ("folders", "subdirectories", "wide-character", "stone")
    ] == [
        "directory",
        "directory",
        "character",
        None,
    ]


@pytest.mark.parametrize(
    ("plural", "one"),
    [
        ("files", "file"),
        ("entries", "entry"),
        ("boxes", "box"),
        ("status", "status"),
        ("access", "access"),
        ("des", "des"),
    ],
)
def test_singular(plural: str, one: str) -> None:
    assert singular(plural) == one


def test_words_and_stems() -> None:
    assert words("Don't touch x86_64-linux: ÄÖ, 日本") == [
        "don",
        "t",
        "touch",
        "x86",
        "64",
        "linux",
        "äö",
        "日本",
    ]
    assert stems("removes removing removed") == ["remov"] * 3
    assert stem("files") is stem("files")
    assert len(stem("x" * 5000)) <= 40
    assert not {word for word in EMPTY if word != word.casefold()}


@pytest.mark.parametrize(
    ("summary", "verbs", "nouns"),
    [
        ("remove files or directories", ["remove"], ["file", "directory"]),
        ("Removes the bed", ["remove"], ["bed"]),
        ("Removing old logs", ["remove"], ["log"]),
        ("file removal tool", ["remove"], ["file"]),
        ("tool to remove packages", ["remove"], ["package"]),
        ("utility for listing users", ["list"], ["user"]),
        ("convert and copy a file", ["convert", "copy"], ["file"]),
        ("shut down part of a connection", ["shutdown"], ["connection"]),
        ("read from standard input and write to standard output", ["read", "write"], ["input"]),
        ("prune the trees in the orchard", ["prune"], ["tree"]),
        ("format of the bed plan", [], ["format", "plan"]),
        ("", [], []),
        ("日本語", [], []),
        ("[[[ ((( ", [], []),
    ],
)
def test_summaries(summary: str, verbs: list[str], nouns: list[str]) -> None:
    assert meaning(summary, "x", "1") == VerbsAndNouns(verbs, nouns)


def test_a_subcommand_without_a_verb_has_that_of_its_name() -> None:
    assert meaning("tools of the greenhouse", "shed-list", "1").verbs == ["list"]


def test_purposes_are_labels_with_phrases() -> None:
    found = purposes()
    assert len(found) > 2000
    for label, phrases in found.items():
        match = re.fullmatch(r"\S+\(([^()]+)\)", label)
        assert match, label
        assert match[1][0] in "".join(SECTION_ORDER), label
        assert phrases and all(phrase and phrase == phrase.strip() for phrase in phrases), label
