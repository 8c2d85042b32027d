"""Kept lines asked for: the same answers from a small file, which is read, and from a large one,
which is remembered.
"""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from dowsing.knowledge.stems import stems
from dowsing.userdata import kept_lines as module
from dowsing.userdata.kept_lines import KeptLines

FIRST = """[[recipe]]
task = "pack the beds"
line = "tar -cf <file> beds"

[[recipe]]
task = "water the roses"
line = "sudo water --now roses"

[[recipe]]
task = "broken"

"""
MORE = '[[recipe]]\ntask = "pack the roses"\nline = "zip roses.zip roses"\n'


@pytest.fixture(params=[1, 10**9], ids=["remembered", "read"])
def small(request: pytest.FixtureRequest, monkeypatch: pytest.MonkeyPatch) -> int:
    """From how many bytes on a file counts as large."""
    monkeypatch.setattr(module, "SMALL", request.param)
    return int(request.param)


def test_the_same_answers_whatever_the_size(tmp_path: Path, small: int) -> None:
    place = tmp_path / "saved.toml"
    cache = str(tmp_path / "cache")
    assert KeptLines(str(tmp_path), cache).all() == []
    place.write_text(FIRST)
    kept = KeptLines(str(tmp_path), cache)
    assert [one.line for one in kept.all()] == ["tar -cf <file> beds", "sudo water --now roses"]
    assert kept.all()[0].where == "saved" and kept.all()[0].slots[0].kind == "file"
    assert [(fault.line, fault.says) for fault in kept.faults] == [(9, "a recipe needs a line")]
    assert [one.task for one in kept.having(set(stems("packing beds")))] == ["pack the beds"]
    assert [one.task for one in kept.having(set())] == ["pack the beds", "water the roses"]
    assert kept.having({"nosuch"}) == []
    assert [one.task for one in kept.about(["water"])] == ["water the roses"]
    assert [one.task for one in kept.about(["sudo", "tar"])] == ["pack the beds", "water the roses"]
    assert kept.shown_as("sudo water --now roses") == "sudo water --now roses"
    assert kept.shown_as("nosuch") == ""


def test_what_is_added_and_what_is_changed_is_seen(tmp_path: Path, small: int) -> None:
    place = tmp_path / "saved.toml"
    cache = str(tmp_path / "cache")
    place.write_text(FIRST)
    KeptLines(str(tmp_path), cache)
    with place.open("a") as file:
        file.write(MORE)
    kept = KeptLines(str(tmp_path), cache)
    assert [one.task for one in kept.having(set(stems("roses")))] == [
        "water the roses",
        "pack the roses",
    ]
    assert [fault.line for fault in kept.faults] == [9]
    place.write_text((FIRST + MORE).replace("water the", "soak the"))
    assert [one.task for one in KeptLines(str(tmp_path), cache).all()][1] == "soak the roses"
    place.write_text(MORE)
    os.utime(place, (1, 1))
    assert [one.task for one in KeptLines(str(tmp_path), cache).all()] == ["pack the roses"]


def test_only_the_nearest_of_very_many_are_compared_with_a_sentence(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(module, "SMALL", 1)
    (tmp_path / "saved.toml").write_text(FIRST + MORE)
    kept = KeptLines(str(tmp_path), str(tmp_path / "cache"))
    assert [one.task for one in kept.sharing(set(stems("pack roses")), 1)] == ["pack the roses"]


def test_a_damaged_memory_is_thrown_away(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(module, "SMALL", 1)
    (tmp_path / "saved.toml").write_text(FIRST)
    cache = tmp_path / "cache"
    KeptLines(str(tmp_path), str(cache))
    (memory,) = cache.iterdir()
    for damage in (
        b"",
        b"noise" * 1000,
        memory.read_bytes()[:5000],
        memory.read_bytes()[:4096] + b"\xff" * 20_000,
    ):
        memory.write_bytes(damage)
        assert [one.task for one in KeptLines(str(tmp_path), str(cache)).all()] == [
            "pack the beds",
            "water the roses",
        ]
    cache.chmod(0o500)


def test_what_cannot_be_remembered_is_read(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(module, "SMALL", 1)
    (tmp_path / "saved.toml").write_text(FIRST)
    (tmp_path / "cache").write_text("a file where the folder should be")
    assert len(KeptLines(str(tmp_path), str(tmp_path / "cache")).all()) == 2
