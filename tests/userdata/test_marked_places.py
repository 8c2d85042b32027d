"""Places in texts that were marked."""

from __future__ import annotations

from pathlib import Path

from dowsing.userdata.marked_places import MarkedPlace, marked_places, turn_mark


def place(title: str, source: str = "manual") -> MarkedPlace:
    return MarkedPlace("vent(1)", source, title, "2026-03-01")


def test_a_mark_is_turned_on_and_off(tmp_path: Path) -> None:
    folder = str(tmp_path)
    assert turn_mark(folder, place("OPTIONS")) and turn_mark(folder, place(""))
    assert turn_mark(folder, place("OPTIONS", "usage"))
    assert marked_places(folder) == [place("OPTIONS", "usage"), place(""), place("OPTIONS")]
    again = place("OPTIONS").changed(day="2026-04-01")
    assert not turn_mark(folder, again)
    assert marked_places(folder) == [place("OPTIONS", "usage"), place("")]


def test_a_damaged_line_hides_no_other(tmp_path: Path) -> None:
    turn_mark(str(tmp_path), place("OPTIONS"))
    path = tmp_path / "places.jsonl"
    path.write_text('{"label": "x"}\n7\n' + path.read_text())
    assert marked_places(str(tmp_path)) == [place("OPTIONS")]
