"""Forms that were filled in."""

from __future__ import annotations

from pathlib import Path

from dowsing.userdata.kept_forms import MOST_KEPT, KeptForm, keep_form, kept_forms


def form(line: str, kind: str = "") -> KeptForm:
    return KeptForm("vent", line, kind, "2026-03-01")


def test_the_newest_comes_first_and_each_line_once(tmp_path: Path) -> None:
    for line in ("vent -a", "vent -b\n'x'", "vent -a"):
        keep_form(str(tmp_path), form(line))
    keep_form(str(tmp_path), form("vent -a", "bedplan"))
    assert kept_forms(str(tmp_path)) == [
        form("vent -a", "bedplan"),
        form("vent -a"),
        form("vent -b\n'x'"),
    ]


def test_a_damaged_line_hides_no_other(tmp_path: Path) -> None:
    keep_form(str(tmp_path), form("vent -a"))
    path = tmp_path / "forms.jsonl"
    path.write_text('{"title": 1\n[]\n' + path.read_text() + '{"line": "x"}\n')
    assert kept_forms(str(tmp_path)) == [form("vent -a")]


def test_no_more_than_so_many(tmp_path: Path) -> None:
    for n in range(MOST_KEPT + 3):
        keep_form(str(tmp_path), form(f"vent {n}"))
    found = kept_forms(str(tmp_path))
    assert (len(found), found[0].line, found[-1].line) == (MOST_KEPT, "vent 62", "vent 3")
