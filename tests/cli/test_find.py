"""`find` and the front door, through the program."""

from __future__ import annotations

import json

from conftest import Program


def names(text: str) -> list[str]:
    return [
        line.split()[1]
        for line in text.splitlines()
        if line[:3].strip().isdigit() and line[:1].strip()[:1] != "─"
    ]


def test_words_narrow(garden: Program) -> None:
    one = json.loads(garden.out("find", "beds", "--format", "json"))
    two = json.loads(garden.out("find", "beds", "water", "--format", "json"))
    told = [e["name"] for e in two["entries"] if "text" not in e["why"][0]]
    assert told == ["glasshouse-water", "mist", "irrigate"]
    assert set(told) < {e["name"] for e in one["entries"]}


def test_a_name_comes_before_a_summary_before_text(garden: Program) -> None:
    entries = json.loads(garden.out("find", "compost", "--format", "json"))["entries"]
    assert entries[0]["name"] == "compost"
    assert entries[0]["why"][0].startswith("“compost” is its name and in its name (+")
    assert {e["name"] for e in entries[1:]} == {"mulch", "prune", "weed"}
    assert entries[-1]["why"][0] == "every word is somewhere in its text (+2.1)"


def test_the_list_on_a_pipe(garden: Program) -> None:
    text = garden.out("find", "prune")
    lines = text.splitlines()
    assert lines[0].split()[:2] == ["1", "prune(1)"]
    assert "cut back plants that grew too far" in lines[0]
    assert "\x1b" not in text
    assert lines[-1] == "next: dowsing prune"


def test_patterns_match_whole_names(garden: Program) -> None:
    assert {
        e["name"] for e in json.loads(garden.out("find", "gr*", "--format", "json"))["entries"]
    } == {"graft"}
    found = json.loads(garden.out("find", "glasshouse-[rw]*", "--format", "json"))
    assert {e["name"] for e in found["entries"]} == {"glasshouse-report", "glasshouse-water"}
    assert found["query"]["patterns"] == ["glasshouse-[rw]*"]


def test_a_pattern_that_matches_nothing_is_widened_and_says_so(garden: Program) -> None:
    done = garden.run("find", "hous*")
    assert done.returncode == 0
    assert done.stdout.splitlines()[0] == "no name matches that whole; these have it inside"
    assert "glasshouse(1)" in done.stdout


def test_an_alias_is_found(garden: Program) -> None:
    entry = json.loads(garden.out("find", "fog", "--format", "json"))["entries"][0]
    assert (entry["name"], entry["aliases"]) == ("mist", ["fog"])


def test_loosening_says_what_was_left_out(garden: Program) -> None:
    found = json.loads(garden.out("find", "compost", "zeppelin", "--format", "json"))
    assert found["relaxed"] == "nothing has every word; left out: “zeppelin”"
    assert found["entries"][0]["name"] == "compost"


def test_a_family_that_floods_the_list_is_folded(program: Program) -> None:
    program.page("kit.1", ".TH K 1\n.SH NAME\nkit \\- the tool box\n.SH D\nx")
    for n in range(12):
        program.page(f"kit-{n}.1", f".TH K 1\n.SH NAME\nkit-{n} \\- mend a rope, way {n}\n.SH D\nx")
    program.page("splice.1", ".TH S 1\n.SH NAME\nsplice \\- mend a rope by hand\n.SH D\nx")
    entries = json.loads(program.out("find", "mend", "rope", "--format", "json", "--limit", "4"))[
        "entries"
    ]
    assert sorted((e["name"].split("-")[0], e["folded"]) for e in entries) == [
        ("kit", 0),
        ("kit", 0),
        ("kit", 9),
        ("splice", 0),
    ]
    text = program.out("find", "mend", "rope", "--limit", "4")
    assert "… and 9 more in this family" in " ".join(text.split())
    assert "--family kit shows that family" in text
    assert len(json.loads(program.out("find", "mend", "rope", "--format", "json"))["entries"]) == 13
    named = json.loads(
        program.out("find", "kit", "mend", "rope", "--format", "json", "--limit", "4")
    )["entries"]
    assert [e["name"].split("-")[0] for e in named] == ["kit"] * 4


def test_limit_and_count(garden: Program) -> None:
    assert (
        len(json.loads(garden.out("find", "*", "--limit", "3", "--format", "json"))["entries"]) == 3
    )
    assert int(garden.out("find", "*", "--count")) == 34
    assert int(garden.out("find", "--count", "compost")) == 4


def test_nothing_found_is_one_line_and_status_1(garden: Program) -> None:
    done = garden.run("find", "zeppelin")
    assert (done.returncode, done.stdout) == (1, "")
    assert done.stderr.splitlines()[-1].startswith("dowsing: nothing found for “zeppelin”; try")
    as_json = garden.run("find", "zeppelin", "--format", "json")
    assert as_json.returncode == 1
    assert json.loads(as_json.stdout)["total"] == 0


def test_the_front_door(garden: Program) -> None:
    assert garden.out("vent").startswith("vent(1)  open and close the roof vents")
    assert garden.out("glasshouse", "water").startswith(
        "glasshouse-water(1)  water the beds of a house"
    )
    assert "1  irrigate(8)" in garden.out("beds", "timetable")
    done = garden.run("moths")
    assert done.returncode == 0
    assert "dowsing: nothing here is called moths; searching for the word" in done.stderr


def test_the_shape_of_an_entry(garden: Program) -> None:
    entry = json.loads(garden.out("find", "thermo*", "--format", "json"))["entries"][0]
    assert entry["path"].endswith("man1/thermo.1")
    assert entry.pop("why")[0] == "its name matches thermo*"
    del entry["path"], entry["score"]
    assert entry == {
        "name": "thermo",
        "section": "1",
        "aliases": ["hygro"],
        "kind": "command",
        "summary": "read the thermometers and hygrometers",
        "package": None,
        "family": None,
        "verbs": ["read", "display"],
        "nouns": ["thermometer", "hygrometer", "line"],
        "sources": ["manual"],
        "folded": 0,
        "options": [],
    }
    assert (
        json.loads(garden.out("find", "glasshouse-open", "--format", "json"))["entries"][0]["kind"]
        == "subcommand"
    )


def test_odd_words(garden: Program) -> None:
    for words in (
        ["NEAR("],
        ['"'],
        ["a:b"],
        ["-x"],
        ["*" * 300],
        ["?" * 10_000],
        ["["],
        ["[" * 50],
        ["'; DROP TABLE"],
        ["☂"],
    ):
        done = garden.run("find", "--", *words)
        assert done.returncode in (0, 1), done.stderr
        assert "Traceback" not in done.stderr
        assert len(done.stderr.splitlines()) <= 3
    assert garden.run("find", "--", *["bed"] * 10_000).returncode == 0
