"""Info files: nodes, pieces, menus, indices, and what is wrong with them."""

from __future__ import annotations

import gzip
from pathlib import Path

import pytest

from dowsing.machine.settings import Settings
from dowsing.model.errors import Unreadable
from dowsing.readers.info.info_file import read_info_file
from dowsing.readers.info.menus import below, is_index, menu_entries, parse_menu, whole
from dowsing.readers.info.node_names import BY_DIRECTORY, BY_INDEX, BY_MANUAL, BY_TITLE, names_of
from dowsing.sources.info_folders import info_files, info_folders

HEAD = """This is knots.info.

INFO-DIR-SECTION Ropes
START-INFO-DIR-ENTRY
* Knots: (knots).          All about knots.
* tie: (knots)tie invocation.   Tie a rope
                             to a post.
END-INFO-DIR-ENTRY

"""


def node(name: str, up: str, text: str, after: str = "") -> str:
    following = f"  Next: {after}," if after else ""
    return f"\x1f\nFile: knots.info,  Node: {name},{following}  Up: {up}\n\n{text}\n\n"


TOP = node(
    "Top",
    "(dir)",
    "Knots\n*****\n\n* Menu:\n\n* Basics::      The first knots.\n* tie invocation::\n* Command "
    "Index::",
)
BASICS = node(
    "Basics",
    "Top",
    "1 Basics\n********\n\n* Menu:\n\n* Bends: Joining two.  Two ropes.\n* Top::  back",
    "tie invocation",
)
BENDS = node("Joining two", "Basics", "1.1 Bends\n=========\n\nText.")
TIE = node("tie invocation", "Top", "2 Tie\n*****\n\nTies.")
INDEX = node(
    "Command Index",
    "Top",
    "Index\n*****\n\n\0\x08[index\0\x08]\n* Menu:\n\n* tie:    tie invocation.   (line 3)\n* "
    "untie:  tie invocation.   (line 9)",
)
LOST = node("Nowhere", "", "3 Lost\n******\n\nNo menu leads here.")
WHOLE = HEAD + TOP + BASICS + BENDS + TIE + INDEX + LOST


def write(path: Path, text: str) -> str:
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(gzip.compress(text.encode()) if path.suffix == ".gz" else text.encode())
    return str(path)


def tag_table(*tags: str) -> str:
    return "\x1f\nTag Table:\n" + "".join(f"{tag}\n" for tag in tags) + "\x1f\nEnd Tag Table\n"


def test_nodes_and_their_neighbours(tmp_path: Path) -> None:
    info = read_info_file(write(tmp_path / "knots.info", WHOLE))
    assert list(info.nodes) == [
        "Top",
        "Basics",
        "Joining two",
        "tie invocation",
        "Command Index",
        "Nowhere",
    ]
    assert (info.nodes["Basics"].next, info.nodes["Basics"].up) == ("tie invocation", "Top")
    assert info.find("JOINING  two") is info.nodes["Joining two"]
    assert info.find("nothing") is None
    assert [(e.label, e.file, e.node, e.text) for e in info.entries] == [
        ("Knots", "knots", "Top", "All about knots."),
        ("tie", "knots", "tie invocation", "Tie a rope to a post."),
    ]


def test_nodes_below_in_the_order_of_reading(tmp_path: Path) -> None:
    info = read_info_file(write(tmp_path / "knots.info.gz", WHOLE))
    assert [(n.name, depth) for n, depth in below(info, info.nodes["Top"])] == [
        ("Top", 0), ("Basics", 1), ("Joining two", 2), ("tie invocation", 1), ("Command Index", 1),
    ]  # fmt: skip
    assert [n.name for n, _ in below(info, info.nodes["Basics"])] == ["Basics", "Joining two"]
    assert [n.name for n, _ in whole(info)][-1] == "Nowhere"


def test_menus(tmp_path: Path) -> None:
    lines = [
        "* One::       the first",
        "              of them",
        "* Two: Node two.   the second",
        "",
        "A heading",
        "* A label so long that it goes",
        "   on: Node three.",
        "* Other: (manual)Node.",
        "* With 1.5: Node 1.5.  text",
    ]
    assert [(e.label, e.target, e.text) for e in parse_menu(lines)] == [
        ("One", "One", "the first of them"),
        ("Two", "Node two", "the second"),
        ("A label so long that it goes on", "Node three", ""),
        ("Other", "(manual)Node", ""),
        ("With 1.5", "Node 1.5", "text"),
    ]
    info = read_info_file(write(tmp_path / "knots.info", WHOLE))
    assert is_index(info.nodes["Command Index"]) and not is_index(info.nodes["Top"])
    assert [e.label for e in menu_entries(info.nodes["Basics"])] == ["Bends", "Top"]


def test_names_that_lead_to_nodes(tmp_path: Path) -> None:
    info = read_info_file(write(tmp_path / "knots.info", WHOLE))
    assert sorted(names_of(info, "knots")) == [
        ("Knots", "Top", BY_MANUAL),
        ("knots", "Top", BY_MANUAL),
        ("tie", "tie invocation", BY_DIRECTORY),
        ("untie", "tie invocation", BY_INDEX),
    ]
    without = read_info_file(write(tmp_path / "bare.info", TIE))
    assert names_of(without, "bare") == [
        ("tie", "tie invocation", BY_TITLE),
        ("bare", "tie invocation", BY_MANUAL),
    ]


def test_split_files(tmp_path: Path) -> None:
    main = (
        HEAD
        + "\x1f\nIndirect:\nknots.info-1: 300\nknots.info-2: 900\n"
        + tag_table("Node: Top\x7f300")
    )
    path = write(tmp_path / "knots.info.gz", main)
    write(tmp_path / "knots.info-1.gz", "preamble\n" + TOP + BASICS)
    assert read_info_file(path).problems == ["its part knots.info-2 is missing"]
    write(tmp_path / "knots.info-2.gz", "preamble\n" + BENDS + TIE)
    info = read_info_file(path)
    assert (list(info.nodes), info.problems) == (
        ["Top", "Basics", "Joining two", "tie invocation"],
        [],
    )


def test_a_piece_cannot_lead_out_of_the_folder(tmp_path: Path) -> None:
    write(tmp_path / "secret", TIE)
    path = write(tmp_path / "info" / "knots.info", HEAD + "\x1f\nIndirect:\n../secret: 0\n")
    with pytest.raises(Unreadable, match="there is no node in it"):
        read_info_file(path)


@pytest.mark.parametrize(
    "tag", ["Node: Basics\x7f99999999", "Node: Gone\x7f10", "Node: Basics\x7f-5"]
)
def test_a_broken_tag_table_is_told_and_does_no_harm(tmp_path: Path, tag: str) -> None:
    info = read_info_file(write(tmp_path / "knots.info", WHOLE + tag_table(tag)))
    assert len(info.nodes) == 6
    assert len(info.problems) == 1
    assert info.problems[0].startswith("its tag table is broken (1 places are wrong")


def test_anchors(tmp_path: Path) -> None:
    at = (HEAD + TOP + BASICS).find("1 Basics")
    info = read_info_file(
        write(tmp_path / "knots.info", WHOLE + tag_table(f"Ref: first knots\x7f{at}"))
    )
    assert info.find("first knots") is info.nodes["Basics"]


@pytest.mark.parametrize(
    "text", ["", "no nodes", "\x1f\n", "\x1f\nFile: x\n", "\x1f\nFile: x, Node: \n", "\0\0\0"]
)
def test_what_is_no_info_file(tmp_path: Path, text: str) -> None:
    with pytest.raises(Unreadable):
        read_info_file(write(tmp_path / "x.info", text))


def test_places(tmp_path: Path) -> None:
    for name in ("a.info.gz", "b.info", "b.info-1", "c", "dir", "d.png", "e-1.gz"):
        write(tmp_path / "info" / name, TIE)
    assert [Path(p).name for p in info_files(str(tmp_path / "info"))] == [
        "a.info.gz",
        "b.info",
        "c",
    ]
    folders = info_folders(
        Settings("", "", "", "", [], info_path=f"{tmp_path}/none:{tmp_path}/info")
    )
    assert folders == [str(tmp_path / "info")]
