"""Wordings of recipes, and the model that is fitted to them."""

from __future__ import annotations

import sys
from array import array
from pathlib import Path

import pytest

from dowsing.knowledge.recipes import SLOT, Recipe, own_recipes
from dowsing.knowledge.slot_cues import around, pieces_of, slot_kind
from dowsing.knowledge.task_choice import (
    Choice,
    StemWeights,
    pack,
    read_choice,
    sentence_marks,
    sentence_stems,
    unpack,
)
from dowsing.knowledge.wordings import parse_wordings, read_wordings

BENCH = Path(__file__).parent.parent.parent / "bench"


def test_the_format() -> None:
    text = "# a remark\n\nsow <bed>\n    put seeds into <bed>\n    sow\n\nweed\n    weed it\n"
    assert parse_wordings(text) == {
        "sow <bed>": ["put seeds into <bed>", "sow"],
        "weed": ["weed it"],
    }


def test_every_wording_is_of_a_recipe_and_has_only_its_places() -> None:
    recipes = {one.line: one for one in own_recipes()}
    wordings = read_wordings()
    assert set(wordings) <= set(recipes)
    for line, texts in wordings.items():
        places = {place for text in texts for place in SLOT.findall(text)}
        assert places <= set(SLOT.findall(line)), line


def test_the_model_is_of_these_recipes() -> None:
    """If not: python bench/fit_tasks.py --write."""
    choice = read_choice()
    assert choice is not None
    assert choice.lines == [one.line for one in own_recipes()]
    assert all(
        number < len(choice.lines) for one in choice.stems.values() for number in one.numbers
    )


def test_stems_and_marks_of_a_sentence() -> None:
    assert sentence_stems("Please unpack <archive> into the folders") == [
        "unpack",
        "into",
        "folder",
    ]
    assert sentence_marks("Which packages are installed?") == [
        "which", "packag", "are", "instal", "=packages", "=installed", "^which", "?",
    ]  # fmt: skip
    assert sentence_marks("install it")[-1] == "^install"


def test_the_model_as_bytes() -> None:
    stems = {
        "sow": StemWeights(3.25, -1.5, 0.5, array("H", [0, 300]), bytes([7, 255])),
        "?": StemWeights(0.0, 0.25, -2.0, array("H"), b""),
    }
    cues = {"bed": {"l into": 2.5}}
    choice = Choice(["a", "b"], [-0.5, 0.0], -3.5, 0.25, [1], stems, cues, {"sow": ["seed"]})
    found = unpack(pack(choice))
    assert (found.lines, found.offsets, found.harm, found.change) == (
        ["a", "b"],
        [-0.5, 0.0],
        -3.5,
        0.25,
    )
    assert (found.changing, found.cues, found.domains) == ([1], cues, {"sow": ["seed"]})
    for name, one in stems.items():
        other = found.stems[name]
        assert (other.telling, other.harm, other.change) == (one.telling, one.harm, one.change)
        assert (other.numbers, other.steps) == (one.numbers, one.steps)


def test_what_stands_around_a_place() -> None:
    words = [word for word, _, _ in pieces_of("put seeds into <bed>, now")]
    assert words == ["put", "seeds", "into", "<bed>", ",", "now"]
    assert around(words, 3, 3) == ["l into", "r ,", "L seeds into", "R , now"]
    assert around(words, 0, 1) == ["l ^", "r into", "L ^ ^", "R into <>"]
    assert slot_kind("file2") == "file"


@pytest.fixture
def fit_tasks(monkeypatch: pytest.MonkeyPatch) -> object:
    """The script that fits."""
    pytest.importorskip("sklearn")
    monkeypatch.syspath_prepend(str(BENCH))
    sys.modules.pop("fit_tasks", None)
    import fit_tasks as script  # type: ignore[import-not-found]

    return script


GARDEN = [
    Recipe("sow a bed", [], "sow <bed>", [], "sow"),
    Recipe("pull weeds", [], "weed", [], "weed"),
    Recipe("water a bed", [], "water <bed>", [], "water"),
]
TEXTS = [
    ["sow a bed", "put seeds into <bed>", "plant <bed>"],
    ["pull weeds", "which weeds are there", "get rid of weeds"],
    ["water a bed", "give <bed> a drink", "sprinkle <bed>"],
]


def test_a_small_model(fit_tasks: object) -> None:
    made = fit_tasks.choice_of(GARDEN, TEXTS, [False, True, False], [True, True, False])  # type: ignore[attr-defined]
    again = fit_tasks.choice_of(GARDEN, TEXTS, [False, True, False], [True, True, False])  # type: ignore[attr-defined]
    assert pack(made) == pack(again), "fitting again gives the same file"
    seed = made.stems["seed"]
    assert (next(iter(seed.numbers)), seed.steps[0] > 20) == (0, True)
    best = {
        stem: max(zip(one.steps, one.numbers, strict=True))[1]
        for stem, one in made.stems.items()
        if one.steps
    }
    assert [best[stem] for stem in ("seed", "weed", "sprinkl", "drink")] == [0, 1, 2, 2]
    assert made.stems["weed"].harm > 0
    assert made.changing == [0, 1]
