"""The files of commands: what classes put in, what is made of all, and what is refused."""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.knowledge.command_files import CommandFiles, read_command_files
from dowsing.knowledge.compiling import SOURCES

CLASSES = """
[digger]
never_asked = "it digs"
carries = { before = 1 }
members = ["spade*", "fork"]
"""
SOW = """
[sow]
is = ["digger", "feeds"]
forms = ["sow SEED BED"]
carries = { needs = true }
used = "-n"

[[sow.acts]]
says = "sows {SEED} in {BED}"

["sow deep"]
exact = true

[[recipe]]
task = "sow seeds"
line = "sow <seed> <bed>"
"""


def read(folder: Path, **files: str) -> CommandFiles:
    """The files of a folder: by their names, a `_` for the dot."""
    texts = {"classes_toml": CLASSES + "[feeds]\n", "programs_toml": "", "sow_toml": SOW}
    for name, text in {**texts, **files}.items():
        (folder / name.replace("_", ".")).write_text(text, encoding="utf-8")
    return read_command_files(str(folder))


def test_what_classes_share_and_what_a_command_says_itself(tmp_path: Path) -> None:
    found = read(tmp_path, sow_wordings="sow <seed> <bed>\n    put <seed> into <bed>\n")
    assert found.faults == []
    assert found.rows["sow"]["never_asked"] == "it digs"
    assert found.rows["sow"]["carries"] == {"needs": True}
    assert found.rows["fork"]["carries"] == {"before": 1}
    assert found.recipes == [{"task": "sow seeds", "line": "sow <seed> <bed>", "where": "sow.toml"}]
    assert found.wordings == {"sow <seed> <bed>": ["put <seed> into <bed>"]}
    names = found.names()
    assert names["never_asked"] == {"sow": "it digs", "spade*": "it digs", "fork": "it digs"}
    assert names["classes"]["feeds"] == ["sow"]
    assert names["interpreters"] == {}
    conventions = found.conventions()
    assert conventions["exact"] == {"sow deep": True}
    assert set(conventions["carries"]) == {"sow", "spade*", "fork"}
    assert conventions["starred"] == []
    assert found.rows["sow"]["is"] == ["digger", "feeds"]
    assert found.facts()["sow"] == {
        "forms": ["sow SEED BED"],
        "used": "-n",
        "acts": [{"says": "sows {SEED} in {BED}"}],
    }
    assert "sow deep" not in found.facts()


@pytest.mark.parametrize(
    ("text", "fault"),
    [
        ("[dig]\ndepth = 1\n", "dig: unknown key depth"),
        ("[dig]\nis = ['tool']\n", "dig: there is no class tool"),
        ("[sow]\nexact = true\n", "sow.toml: sow stands in two files"),
        (
            "[dig.options]\n-d = { adds = 'deep' }\n'-d|-e' = { looks = true }\n",
            "dig: the option -d stands twice",
        ),
        ("[dig.options]\n-d = { value = 'deep' }\n", "dig: 'deep' is not a valid ValueKind"),
        (
            "[dig]\nforms = ['dig BED']\n[[dig.acts]]\nsays = 'digs {HOLE}'\n",
            "dig: “digs {HOLE}” names HOLE, which no form has",
        ),
        (
            "[[dig.acts]]\nsays = 'removes {*}'\n",
            "dig: “removes {*}” has no effect and is not harmless",
        ),
        (
            "[[dig.acts]]\nwhen = '-r'\nsays = 'removes {*}'\n"
            "[[dig.acts]]\neffect = { does = 'destroys', says = 'removes it', when = ['-x'] }\n",
            "dig: “removes {*}” has no effect and is not harmless",
        ),
        (
            "[[recipe]]\ntask = 'sow again'\nline = 'sow <seed> <bed>'\n",
            "sow.toml: the line sow <seed> <bed> stands twice",
        ),
        (
            "[[recipe]]\nline = 'dig <bed>'\n",
            "dig.toml: dig <bed>: a recipe needs a task, in words",
        ),
    ],
)
def test_what_is_refused(tmp_path: Path, text: str, fault: str) -> None:
    assert read(tmp_path, dig_toml=text).faults == [fault]


@pytest.mark.parametrize(
    "text",
    [
        "[[dig.acts]]\nsays = 'removes {*}'\nharmless = true\n",
        "[[dig.acts]]\nsays = 'removes {*}'\neffect = { does = 'destroys', says = 'removes' }\n",
        "[[dig.acts]]\nwhen = '-r'\nsays = 'removes {*}'\n"
        "[[dig.acts]]\neffect = { does = 'destroys', says = 'removes it', when = ['-r'] }\n",
        "[dig.options]\n-o = { writes = true }\n[[dig.acts]]\nwhen = '-o'\nsays = 'writes {-o}'\n",
    ],
)
def test_words_of_loss_that_have_their_effect(tmp_path: Path, text: str) -> None:
    assert read(tmp_path, dig_toml=text).faults == []


def test_wordings_without_a_recipe_are_refused(tmp_path: Path) -> None:
    found = read(tmp_path, sow_wordings="sow <bed>\n    sow\n")
    assert found.faults == ["no recipe has the line sow <bed>, which has wordings"]


def test_our_own_files_have_no_fault() -> None:
    if Path(SOURCES).is_dir():  # a wheel has what was made of them
        assert read_command_files(SOURCES).faults == []
