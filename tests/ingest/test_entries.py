"""From page files to entries: scan, links, families, kinds."""

from __future__ import annotations

from pathlib import Path

from dowsing.ingest.entries import make_entries
from dowsing.ingest.page_reading import Reading, read_for_index
from dowsing.ingest.scan import scan


def page(name: str, form: str = "", names: str = "") -> str:
    synopsis = f".SH SYNOPSIS\n{form}\n" if form else ""
    return f".TH X 1\n.SH NAME\n{names or name} \\- a thing\n{synopsis}.SH D\nx\n"


def build(root: Path, pages: dict[str, str]) -> dict[str, object]:
    for file, text in pages.items():
        path = root / f"man{file.rsplit('.', 1)[1][0]}" / file
        path.parent.mkdir(exist_ok=True)
        path.write_text(text)
    found = scan([str(root)])
    readings = {
        n: read_for_index((n, page.page.path, page.page.name, page.page.section, False))
        for n, page in enumerate(found.pages)
    }
    return {f"{e.name}({e.section})": e for e in make_entries(readings, found.pages)}


def test_kinds_follow_sections(tmp_path: Path) -> None:
    sections = ["1", "2", "3", "4", "5", "6", "7", "8", "n"]
    entries = build(tmp_path, {f"x.{section}": page("x") for section in sections})
    assert {label: entry.kind for label, entry in entries.items()} == {
        "x(1)": "command",
        "x(2)": "system-call",
        "x(3)": "function",
        "x(4)": "device",
        "x(5)": "file-format",
        "x(6)": "command",
        "x(7)": "topic",
        "x(8)": "command",
        "x(n)": "function",
    }


def test_a_subcommand_is_told_by_its_form(tmp_path: Path) -> None:
    entries = build(
        tmp_path,
        {
            "kit.1": page("kit", "kit <command>"),
            "kit-mend.1": page("kit-mend", "\\fIkit mend\\fR [<rope>]"),
            "kit_cut_all.1": page("kit_cut_all", "kit cut all"),
            "kit-daemon.8": page("kit-daemon", "kit-daemon [-v]"),
        },
    )
    assert {label: entry.kind for label, entry in entries.items()} == {
        "kit(1)": "command",
        "kit-mend(1)": "subcommand",
        "kit_cut_all(1)": "subcommand",
        "kit-daemon(8)": "command",
    }


def test_families_need_the_program_and_a_member(tmp_path: Path) -> None:
    names = ["kit.1", "kit-mend.1", "kit.conf.5", "kit-lib.3", "lone.1", "no-head.1", "other-x.7"]
    entries = build(tmp_path, {name: page(name) for name in names})
    assert {label: entry.family for label, entry in entries.items()} == {
        "kit(1)": "kit",
        "kit-mend(1)": "kit",
        "kit.conf(5)": "kit",
        "kit-lib(3)": "kit",
        "lone(1)": "",
        "no-head(1)": "",
        "other-x(7)": "",
    }


def test_aliases_from_links_includes_and_the_name_line(tmp_path: Path) -> None:
    build(tmp_path, {"tie.1": page("tie", names="tie, hitch, knot"), "knot.1": page("knot")})
    (tmp_path / "man1" / "lash.1").symlink_to("tie.1")
    (tmp_path / "man8").mkdir()
    (tmp_path / "man8" / "moor.8").symlink_to("../man1/tie.1")
    (tmp_path / "man1" / "bind.1").write_text('.\\" only this\n.so man1/tie.1\n')
    entries = build(tmp_path, {})
    assert sorted(entries) == ["knot(1)", "tie(1)"]
    assert sorted(entries["tie(1)"].row(Reading(0, [], "", False, "")).alias_labels) == [
        "bind",
        "hitch",
        "lash",
        "moor(8)",
    ]


def test_a_link_to_a_file_elsewhere_is_a_page_of_its_own(tmp_path: Path) -> None:
    (tmp_path / "man" / "man1").mkdir(parents=True)
    (tmp_path / "store").write_text(page("tie"))
    (tmp_path / "man" / "man1" / "tie.1").symlink_to(tmp_path / "store")
    entries = build(tmp_path / "man", {})
    assert list(entries) == ["tie(1)"]


def test_a_later_folder_is_hidden_behind_an_earlier_one(tmp_path: Path) -> None:
    one, two = tmp_path / "one", tmp_path / "two"
    for root in (one, two):
        (root / "man1").mkdir(parents=True)
        (root / "man1" / "tie.1").write_text(page("tie"))
    (two / "man1" / "knot.1").write_text(page("knot"))
    found = scan([str(one), str(two)])
    readings = {
        n: read_for_index((n, f.page.path, f.page.name, f.page.section, False))
        for n, f in enumerate(found.pages)
    }
    hidden = {entry.found.page.path: entry.hidden for entry in make_entries(readings, found.pages)}
    assert hidden == {
        str(one / "man1" / "tie.1"): False,
        str(two / "man1" / "tie.1"): True,
        str(two / "man1" / "knot.1"): False,
    }
