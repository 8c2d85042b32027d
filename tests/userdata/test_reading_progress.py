"""What was read, kept in a file that anything may have happened to."""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from dowsing.userdata import READ
from dowsing.userdata.reading_progress import forget, mark_read, read_labels

DAY = "2026-01-31"
ROW = b'{"name": "vent(1)", "day": "2026-01-30"}'


@pytest.mark.parametrize(
    "before",
    [
        ROW + b"\n",
        ROW + b'\n{"name": "mi',  # torn off
        ROW,
        b"\xff\xfe\x00no text\n" + ROW + b"\n",
        b"[1, 2]\n" + ROW + b"\n" + b"[" * 5000,
    ],
)
def test_what_can_be_read_is_used_and_more_can_be_noted(tmp_path: Path, before: bytes) -> None:
    file = tmp_path / READ
    file.write_bytes(before)
    mark_read(str(tmp_path), "mist(1)", DAY)
    assert read_labels(str(tmp_path)) == {"vent(1)": "2026-01-30", "mist(1)": DAY}
    mark_read(str(tmp_path), "mist(1)", "2026-02-01")
    assert file.read_bytes().startswith(before), "what is damaged stays"
    assert file.read_bytes().count(b"mist(1)") == 1
    assert forget(str(tmp_path), {"vent(1)"}) == 1
    assert read_labels(str(tmp_path)) == {"mist(1)": DAY}


def test_a_file_that_is_none_is_left_alone(tmp_path: Path) -> None:
    os.mkfifo(tmp_path / READ)
    mark_read(str(tmp_path), "mist(1)", DAY)  # does not wait
    (tmp_path / READ).unlink()
    (tmp_path / READ).symlink_to(tmp_path / "nowhere" / "else")
    mark_read(str(tmp_path), "mist(1)", DAY)
    assert not (tmp_path / "nowhere").exists()
    (tmp_path / READ).unlink()
    mark_read(str(tmp_path / "new"), "mist(1)", DAY)
    assert read_labels(str(tmp_path / "new")) == {"mist(1)": DAY}
