"""Links step by step, kinds of files, folders of PATH."""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from dowsing.machine.file_kind import file_kind
from dowsing.machine.links import LinkStep, follow
from dowsing.machine.search_path import commands, executables, folder_problems


def program(path: Path, text: str | bytes = "#!/bin/sh\n", mode: int = 0o755) -> str:
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(text.encode() if isinstance(text, str) else text)
    path.chmod(mode)
    return str(path)


def test_links_are_followed_step_by_step(tmp_path: Path) -> None:
    end = program(tmp_path / "usr/bin/vim.basic")
    (tmp_path / "bin").symlink_to("usr/bin")
    (tmp_path / "etc").mkdir()
    (tmp_path / "etc/vi").symlink_to(end)
    (tmp_path / "usr/bin/vi").symlink_to("../../etc/vi")
    steps, file = follow(str(tmp_path / "bin/vi"))
    assert steps == [
        LinkStep(str(tmp_path / "bin"), "usr/bin", True),
        LinkStep(str(tmp_path / "usr/bin/vi"), "../../etc/vi", False),
        LinkStep(str(tmp_path / "etc/vi"), end, False),
    ]
    assert file == end
    assert follow(end) == ([], end)


def test_links_that_lead_nowhere_or_in_a_circle(tmp_path: Path) -> None:
    (tmp_path / "lost").symlink_to("nowhere")
    (tmp_path / "a").symlink_to("b")
    (tmp_path / "b").symlink_to("a")
    assert follow(str(tmp_path / "lost"))[1] == ""
    steps, file = follow(str(tmp_path / "a"))
    assert (len(steps), file) == (40, "")


@pytest.mark.parametrize(
    ("data", "kind"),
    [
        (b"#!/bin/sh\n", "script (sh)"),
        (b"#! /usr/bin/env -S python3 -u\n", "script (python3)"),
        (b"#!/usr/bin/env A=1 perl\n", "script (perl)"),
        (b"#!\n", "script"),
        (b"\x7fELF\x02\x01" + bytes(12) + b"\x3e\x00", "binary (ELF, x86-64)"),
        (b"\x7fELF\x02\x01" + bytes(12) + b"\xff\xff", "binary (ELF)"),
        (b"\xcf\xfa\xed\xfe", "binary (Mach-O)"),
        (b"echo hello\n", "text without an interpreter line"),
        (b"\x00\x01", "binary"),
        (b"", "empty file"),
    ],
)
def test_kinds_of_files(tmp_path: Path, data: bytes, kind: str) -> None:
    assert file_kind(program(tmp_path / "x", data)) == kind
    assert file_kind(str(tmp_path / "none")) == ""


def test_programs_on_path(tmp_path: Path) -> None:
    one, two = program(tmp_path / "one/tie"), program(tmp_path / "two/tie")
    program(tmp_path / "two/plain", mode=0o644)
    (tmp_path / "two/folder").mkdir()
    path = [str(tmp_path / "one") + "/", "relative", str(tmp_path / "two"), str(tmp_path / "one")]
    assert executables("tie", path) == [one, two]
    assert (
        executables("plain", path)
        == executables("folder", path)
        == executables("../one/tie", path)
        == []
    )
    assert executables("", path) == []
    assert commands(str(tmp_path / "two")) == ["tie"]
    assert commands(str(tmp_path / "none")) == commands(one) == []


def test_folders_of_path_in_trouble(tmp_path: Path) -> None:
    file = program(tmp_path / "file")
    (tmp_path / "round").symlink_to("round")
    (tmp_path / "round2").mkdir()
    (tmp_path / "round2/x").symlink_to("x")
    path = [str(tmp_path), file, str(tmp_path / "none"), str(tmp_path / "round"), "bin", ""]
    assert folder_problems(path) == {
        file: "is a file, not a folder",
        str(tmp_path / "none"): "does not exist",
        str(tmp_path / "round"): "is a link that goes round in a circle",
        "bin": "is not given from the root; what it means depends on where you are",
        "": "is not given from the root; what it means depends on where you are",
    }
    assert commands(str(tmp_path / "round2")) == []


@pytest.mark.skipif(os.getuid() == 0, reason="root may read everything")
def test_a_folder_without_permission(tmp_path: Path) -> None:
    closed = tmp_path / "closed"
    closed.mkdir(mode=0)
    assert folder_problems([str(closed)]) == {str(closed): "permission denied"}
    assert commands(str(closed)) == []
