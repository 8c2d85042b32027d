"""Replacing a file in one step."""

import os
import stat

import pytest

from dowsing.model.replacing import replace_text


def test_a_link_stays_one_and_the_permissions_stay(tmp_path):
    shelf, desk = tmp_path / "shelf", tmp_path / "desk"
    shelf.mkdir(), desk.mkdir()
    (shelf / "notes").write_text("old\n")
    (shelf / "notes").chmod(0o640)
    (desk / "notes").symlink_to(shelf / "notes")
    replace_text(str(desk / "notes"), "new\r\n\udcff")
    assert (desk / "notes").is_symlink()
    assert (shelf / "notes").read_bytes() == b"new\r\n\xff"
    assert stat.S_IMODE(os.stat(shelf / "notes").st_mode) == 0o640
    assert [each.name for folder in (shelf, desk) for each in folder.iterdir()] == [
        "notes",
        "notes",
    ]


def test_what_cannot_be_put_in_place_leaves_nothing_behind(tmp_path):
    (tmp_path / "notes").mkdir()
    with pytest.raises(IsADirectoryError):
        replace_text(str(tmp_path / "notes"), "new\n")
    assert [each.name for each in tmp_path.iterdir()] == ["notes"]
