"""Filters of `find`, `words` and `near`, on the demo library."""

from __future__ import annotations

import json

import pytest
from conftest import Program


def found(program: Program, *words: str) -> list[str]:
    answer = json.loads(program.out("--demo", "find", *words, "--format", "json", "--limit", "100"))
    return [
        f"{entry['name']}({entry['section']})" if entry["section"] else entry["name"]
        for entry in answer["entries"]
    ]


def test_filters_without_words(program: Program) -> None:
    assert sorted(found(program, "--package", "loam")) == [
        "endrow(builtin)",
        "hollo(builtin)",
        "loam(1)",
        "mulch(builtin)",
        "note(builtin)",
        "row(builtin)",
        "walk(builtin)",
    ]
    assert found(program, "--kind", "keyword") == ["row(builtin)", "endrow(builtin)"]
    assert sorted(found(program, "--section", "8")) == [
        "boiler(8)",
        "compost(8)",
        "irrigate(8)",
        "nightwatch(8)",
    ]
    assert len(found(program, "--family", "GLASSHOUSE")) == 6


def test_filters_combine_with_words_and_with_each_other(program: Program) -> None:
    assert found(program, "mulch", "--kind", "command")[0] == "mulch(1)"
    assert found(program, "mulch", "--kind", "builtin") == ["mulch(builtin)"]
    assert found(program, "*o*", "--section", "8", "--package", "fern*") == [
        "compost(8)",
        "boiler(8)",
    ]
    assert program.out("--demo", "find", "--kind", "sub*", "--count") == "5\n"


def test_loosening_stays_within_the_filters(program: Program) -> None:
    done = program.run("--demo", "find", "mulch", "zeppelin", "--kind", "builtin")
    assert done.stdout.startswith("nothing has every word; left out: “zeppelin”\n1  mulch(builtin)")


@pytest.mark.parametrize(
    ("arguments", "status", "says"),
    [
        (["find", "--kind", "tool"], 2, "there is no kind “tool”; kinds are command, subcommand"),
        (
            ["find", "--package", "nothing"],
            1,
            "there is no package “nothing”; what there is: dowsing --demo words packages",
        ),
        (
            ["find", "vent", "--family", "x", "--section", "1"],
            1,
            "there is no family “x”; what there is: dowsing --demo words families",
        ),
        (["find"], 2, "say what to look for"),
        (
            ["words", "colours"],
            2,
            "is one of verbs, nouns, packages, families, kinds, not “colours”",
        ),
        (["words", "kinds", "--section", "9"], 1, "there is no section “9”; there are 1, "),
        (["near", "nothing"], 1, "there is no page named nothing"),
        (["near"], 2, "say a name"),
        (["near", "vent", "--limit", "0"], 2, "--limit is a number from 1 to"),
        (["find", "--package", "[", "--kind", "*" * 300], 1, "nothing found in package ["),
        (
            ["find", "--package", "'; DROP TABLE entries; --"],
            1,
            "nothing found in package '; DROP TABLE",
        ),
    ],
)
def test_bad_input(program: Program, arguments: list[str], status: int, says: str) -> None:
    done = program.run("--demo", *arguments)
    assert (done.returncode, done.stdout) == (status, "")
    assert says in done.stderr
    assert done.stderr.count("\n") == 1


def test_words(program: Program) -> None:
    kinds = json.loads(program.out("--demo", "words", "kinds", "--format", "json"))
    counts = {word["word"]: word["count"] for word in kinds["words"]}
    assert (kinds["what"], counts["subcommand"], counts["builtin"], counts["keyword"]) == (
        "kinds",
        5,
        4,
        2,
    )
    text = program.out("--demo", "words", "packages", "--kind", "builtin")
    assert text == "packages  1 in all\n\n1  loam  4\n\nnext: dowsing --demo find --package loam\n"


def test_near(program: Program) -> None:
    answer = json.loads(program.out("--demo", "near", "mulch.1", "--format", "json"))
    assert answer["name"] == "mulch(1)"
    groups = {
        group["why"]: [entry["name"] for entry in group["entries"]] for group in answer["groups"]
    }
    assert groups["the same name"] == ["mulch"]
    assert groups["its page refers to it"] == ["compost", "weed"]
    assert list(groups) == [
        "the same name", "its page refers to it", "package fernhollow-glasshouse",
        "same noun: bed, take",
    ]  # fmt: skip
    text = program.out("--demo", "near", "glasshouse", "water")
    assert "FAMILY GLASSHOUSE\n 1  glasshouse(1) " in text
    assert "Next: dowsing --demo" in text
    builtin = program.out("--demo", "near", "walk")
    assert "PACKAGE LOAM\n1  row(builtin) " in builtin


def test_a_family_is_left_out(program: Program) -> None:
    assert "glasshouse-water(1)" in found(program, "water")
    assert not [one for one in found(program, "water", "--without", "glasshouse") if "glass" in one]


@pytest.mark.parametrize(
    ("words", "says"),
    [
        (["find", "--does", "watr"], "there is no verb “watr”; nearest: water"),
        (["find", "--family", "glashouse"], "there is no family “glashouse”; nearest: glasshouse"),
        (["find", "x", "--package", "loma"], "there is no package “loma”; nearest: loam"),
        (["words", "verbs", "--family", "glashouse"], "there is no family “glashouse”; nearest: "
         "glasshouse"),
        (["words", "verbs", "zzz"], "there are no verbs like “zzz” in the index"),
    ],
)  # fmt: skip
def test_values_with_a_slip(program: Program, words: list[str], says: str) -> None:
    done = program.run("--demo", *words)
    assert (done.returncode, done.stderr.strip().split("\n")[-1]) == (1, f"dowsing: {says}")


def test_a_kind_with_a_slip(program: Program) -> None:
    done = program.run("--demo", "find", "--kind", "comand")
    says = done.stderr.strip().split("\n")[-1]
    assert says.startswith(
        "dowsing: there is no kind “comand”; nearest: command; kinds are command"
    )


def test_words_that_a_pattern_or_a_part_asks_for(program: Program) -> None:
    def words(pattern: str) -> list[str]:
        answer = program.run("--demo", "words", "verbs", pattern, "--format", "json").stdout
        return [one["word"] for one in json.loads(answer)["words"]]

    assert words("wate*") == ["water"]
    assert words("displ") == words("view") == ["display"]  # a word that means the same
    assert words("xyz*") == []


def test_a_pattern_shows_the_other_name_that_it_matches(program: Program) -> None:
    program.page("hoe.1", ".TH X 1\n.SH NAME\nhoe, scuffle \\- hoe beds\n.SH D\nx\n")
    assert program.run("find", "scuf*").stdout.split("\n")[0] == "1  hoe(1)  hoe beds  also scuffle"
    assert program.run("find", "ho*").stdout.split("\n")[0] == "1  hoe(1)  hoe beds"
