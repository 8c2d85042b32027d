"""A cache folder that others can write into is not trusted, and one that does not hold an index is
not tried again and again.
"""

from __future__ import annotations

import os
import sqlite3
from pathlib import Path

from conftest import Program

from dowsing.machine.passing_cache import is_safe, may_be_tried, note_tried

PAGE = ".TH T 1\n.SH NAME\ntie \\- fasten\n.SH D\nx\n"


def passing(program: Program) -> Path:
    return program.folder / "passing" / f"dowsing-{os.getuid()}"


def test_a_folder_that_others_can_write_into_is_not_used(program: Program) -> None:
    program.page("tie.1", PAGE)
    shared = program.folder / "shared"
    shared.mkdir()
    shared.chmod(0o777)
    done = program.run("find", "tie", DOWSING_CACHE=str(shared))
    assert done.stdout.split()[:2] == ["1", "tie(1)"]
    assert (
        f"others can write into the folder {shared}, so {passing(program)} is used" in done.stderr
    )
    assert list(shared.iterdir()) == []
    assert program.run("find", "tie", DOWSING_CACHE=str(shared)).stderr == ""


def test_the_usual_folder_is_made_safe(tmp_path: Path) -> None:
    folder = tmp_path / "dowsing"
    folder.mkdir()
    folder.chmod(0o775)
    assert is_safe(str(folder)) and folder.stat().st_mode & 0o777 == 0o755
    folder.chmod(0o1777)  # such as that of all temporary files
    assert not is_safe(str(folder)) and folder.stat().st_mode & 0o1777 == 0o1777
    assert is_safe(str(tmp_path / "none"))


def test_a_planted_index_is_not_read_and_links_are_not_followed(program: Program) -> None:
    program.page("tie.1", PAGE)
    program.run("find", "tie")
    (index,) = program.cache.glob("*.sqlite")
    planted = program.folder / "planted.sqlite"
    planted.write_bytes(index.read_bytes())
    with sqlite3.connect(planted) as db:
        db.execute("UPDATE entries SET summary='planted'")
    db.close()
    precious = program.folder / "precious"
    precious.write_text("precious")
    index.unlink()
    index.symlink_to(planted)
    for ending in ("lock", "upkeep"):
        Path(f"{index}.{ending}").unlink(missing_ok=True)
        Path(f"{index}.{ending}").symlink_to(precious)
    done = program.run("find", "tie")
    assert "planted" not in done.stdout
    assert precious.read_text() == "precious"


def test_what_was_left_under_the_name_of_a_part_is_not_written_into(program: Program) -> None:
    from dowsing.ingest.progress_file import note_failure

    precious = program.folder / "precious"
    precious.write_text("precious")
    program.cache.mkdir()
    os.link(precious, program.cache / "index.failed.part")
    note_failure(str(program.cache / "index"), "the disk is full")
    assert precious.read_text() == "precious"
    assert (program.cache / "index.failed").read_text() == "the disk is full"


def test_where_it_did_not_fit_is_tried_again_after_an_hour(tmp_path: Path) -> None:
    own, other = tmp_path / "own", tmp_path / "other"
    own.mkdir()
    other.mkdir()
    assert may_be_tried(str(own), str(other))
    note_tried(str(other))
    assert not may_be_tried(str(own), str(other))
    stamp = (other / "tried").stat().st_mtime - 3601
    os.utime(other / "tried", (stamp, stamp))
    assert may_be_tried(str(own), str(other))


def test_an_index_that_does_not_fit_is_made_once(program: Program) -> None:
    program.page("tie.1", PAGE)
    (program.folder / "file").write_text("")
    cache = str(program.folder / "file" / "cache")
    assert "it is in" in program.run("find", "tie", DOWSING_CACHE=cache).stderr
    assert (passing(program) / "tried").exists()
    assert program.run("find", "tie", DOWSING_CACHE=cache).stderr == ""
