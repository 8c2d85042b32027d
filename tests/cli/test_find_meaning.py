"""Finding by verb, noun and option, reasons, hints and the front door, through the program."""

from __future__ import annotations

import json

import pytest
from conftest import Program


def found(program: Program, *words: str) -> list[str]:
    answer = json.loads(program.out("--demo", "find", *words, "--format", "json", "--limit", "100"))
    return [f"{entry['name']}({entry['section']})" for entry in answer["entries"]]


def test_verbs_and_nouns(program: Program) -> None:
    # open is the first thing that vent does and the name of the next one; shade draws or opens
    assert found(program, "--does", "open") == [
        "vent(1)",
        "glasshouse-open(1)",
        "glasshouse-shade(1)",
        "glasshouse-water(1)",
    ]
    assert found(program, "--does", "show") == found(program, "--does", "display") != []
    assert found(program, "--does", "op*n", "--what", "v*nt") == ["vent(1)"]
    entry = json.loads(program.out("--demo", "find", "vent.1", "--format", "json"))["entries"][0]
    assert (entry["name"], entry["verbs"], entry["nouns"]) == (
        "vent",
        ["open", "close", "move"],
        ["vent", "glasshouse", "house"],
    )


def test_options_are_a_facet(program: Program) -> None:
    taking = found(program, "--takes=-n")
    assert set(taking) == {"mist(1)", "mulch(builtin)", "vent(1)", "mulch(1)", "loam(1)"}
    assert set(found(program, "--takes", "--dry-*")) == {"mulch(1)", "vent(1)"}
    assert set(found(program, "--takes=--dry-*")) == {"mulch(1)", "vent(1)"}
    assert found(program, "beds", "--takes", "dry run")[0] == "mulch(1)"
    assert found(program, "--takes=-n", "--kind", "builtin") == ["mulch(builtin)"]
    text = program.out("--demo", "find", "vents", "--takes=-n")
    assert "-n, --dry-run  say what would be moved, move nothing" in " ".join(
        text.split(" " * 11)
    ).replace("\n", " ")
    options = json.loads(program.out("--demo", "find", "--takes=-n", "--format", "json"))[
        "entries"
    ][0]["options"]
    assert options and "-n" in options[0]["flags"]
    by_name = found(program, "--takes", "from")
    assert by_name[0] == "glasshouse-open(1)"  # the flag itself before texts that have the word


def test_words_of_verbs_and_nouns(program: Program) -> None:
    verbs = json.loads(program.out("--demo", "words", "verbs", "--format", "json"))
    counts = {word["word"]: (word["count"], word["equal"]) for word in verbs["words"]}
    assert counts["open"][0] == len(found(program, "--does", "open"))
    assert "show" in counts["display"][1]
    nouns = json.loads(
        program.out("--demo", "words", "nouns", "--does", "open", "--format", "json")
    )
    assert "vent" in {word["word"] for word in nouns["words"]}
    narrowed = json.loads(program.out("--demo", "words", "kinds", "--takes=-n", "--format", "json"))
    assert {word["word"]: word["count"] for word in narrowed["words"]} == {
        "command": 4,
        "builtin": 1,
    }
    assert "open" in program.out("--demo", "words", "verbs")


def test_why(program: Program) -> None:
    text = program.out("--demo", "find", "beds", "--why", "--limit", "2")
    assert "“beds” in its summary (+" in " ".join(text.split())
    assert "how it ranks among pages and packages" in " ".join(text.split())
    assert "“beds” in its" not in program.out("--demo", "find", "beds", "--limit", "2")


def test_on_a_terminal_words_are_marked_and_the_last_line_narrows(program: Program) -> None:
    text = program.out("--demo", "find", "beds", "--limit", "3", "--color", "always")
    assert "\x1b[3;33mbed\x1b[0m" in text
    assert "fernhollow-glasshouse" in text
    assert "narrow: --" in text
    assert "match, 3 shown" in text


@pytest.mark.parametrize(
    ("arguments", "status", "says"),
    [
        (
            ["--does", "fly"],
            1,
            "there is no verb “fly”; what there is: dowsing --demo words verbs",
        ),
        (["--what", "["], 1, "nothing found in noun ["),
        (["vent", "--takes", "--teleport"], 1, "without that: dowsing --demo find vent"),
        (["vent", "--takes", "--limit", "3"], 2, "--takes wants a value after it"),
        (["vent", "--takes=--teleport"], 1, "without that: dowsing --demo find vent"),
        (["--takes", "--x" + "*" * 300], 1, "nothing found in option --x***"),
        (["--does", "?" * 10_000], 1, "nothing found in verb ???"),
    ],
)
def test_bad_input(program: Program, arguments: list[str], status: int, says: str) -> None:
    done = program.run("--demo", "find", *arguments)
    assert (done.returncode, done.stdout) == (status, "")
    assert says in done.stderr
    assert done.stderr.count("\n") == 1


@pytest.mark.parametrize(
    "words",
    [
        ["["],
        ["***"],
        ["?" * 10_000],
        ['"'],
        ["NEAR(a b)"],
        ["a:b"],
        ["-"],
        ["--", "-x"],
        ["☂"],
        ["שלום"],
        ["'; DROP TABLE entries"],
        ["a" * 5_000],
        ["bed"] * 10_000,
        [f"w{n}" for n in range(10_000)],
        ["\x1b[31mred"],
        ["日本語", "bed"],
    ],
)
def test_odd_words_get_an_answer_or_one_line(program: Program, words: list[str]) -> None:
    done = program.run("--demo", "find", *words)
    assert done.returncode in (0, 1, 2), done.stderr
    assert "Traceback" not in done.stderr
    assert "\x1b" not in done.stdout + done.stderr
    assert bool(done.stdout) != bool(done.stderr)
    assert done.stderr.count("\n") <= 1


def test_the_front_door_says_when_a_name_is_a_word_too(program: Program) -> None:
    assert "is a word, too" not in program.out("--demo", "vent")
    program.page("bed.1", ".TH B 1\n.SH NAME\nbed \\- a bed\n.SH D\nx\n")
    for n in range(9):
        program.page(f"p{n}.1", f".TH P 1\n.SH NAME\np{n} \\- dig a bed\n.SH D\nx\n")
    assert program.out("bed").splitlines()[-1] == "“bed” is a word, too: dowsing find bed"
    assert "is a word" not in program.out("bed", "--format", "json")
    assert program.out("dig", "bed").splitlines()[0].split()[0] == "1"


def test_near_tells_what_does_the_same(program: Program) -> None:
    program.page("mend.1", ".TH M 1\n.SH NAME\nmend \\- repair a rope\n.SH D\nx\n")
    program.page("patch.1", ".TH M 1\n.SH NAME\npatch \\- repair ropes\n.SH D\nx\n")
    program.page("cure.1", ".TH M 1\n.SH NAME\ncure \\- repair a sail\n.SH D\nx\n")
    program.page("coil.1", ".TH M 1\n.SH NAME\ncoil \\- wind a rope\n.SH D\nx\n")
    answer = json.loads(program.out("near", "mend", "--format", "json"))
    assert {g["why"]: [e["name"] for e in g["entries"]] for g in answer["groups"]} == {
        "same verb and noun: repair · rope": ["patch"],
        "same verb: repair": ["cure"],
        "same noun: rope": ["coil"],
    }
