"""The index through the program: building, refreshing, and everything that can be wrong with
files.
"""

from __future__ import annotations

import bz2
import gzip
import json
import lzma
import os
import resource
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest
from conftest import Program


def page(name: str, summary: str = "a thing") -> str:
    return f".TH {name} 1\n.SH NAME\n{name} \\- {summary}\n.SH DESCRIPTION\nText of {name}.\n"


def status(program: Program) -> dict:
    return json.loads(program.out("index", "--status", "--format", "json"))


def problems(program: Program) -> dict[str, str]:
    return {Path(p["path"]).name: p["says"] for p in status(program)["problems"]}


def entries(program: Program, *words: str) -> list[str]:
    done = program.run("find", *words, "--format", "json")
    return sorted(entry["name"] for entry in json.loads(done.stdout)["entries"])


def index_file(program: Program) -> Path:
    return next(program.cache.glob("index-*.sqlite"))


def test_the_first_look_up_builds_and_says_so(program: Program) -> None:
    program.page("tie.1", page("tie"))
    done = program.run("find", "tie")
    assert (
        done.stderr == "dowsing: building the index: there is no index yet\ndowsing: 1 pages read\n"
    )
    assert program.run("find", "tie").stderr == ""


def test_status(program: Program) -> None:
    program.page("tie.1", page("tie"))
    program.page("untie.1", ".so man1/tie.1\n")
    found = status(program)
    assert (found["pages"], found["entries"], found["names"], found["problems"]) == (2, 1, 2, [])
    assert found["folders"] == [{"path": str(program.man), "sections": 1}]
    text = program.out("index", "--status")
    assert text.startswith("The index  2 pages, 1 entries\n")
    assert "   Every page could be read.\n" in text


def test_every_packing_is_read(program: Program) -> None:
    import zstandard

    program.page("a.1.gz", gzip.compress(page("a").encode()), "man1")
    program.page("b.1.bz2", bz2.compress(page("b").encode()), "man1")
    program.page("c.1.xz", lzma.compress(page("c").encode()), "man1")
    program.page("d.1.zst", zstandard.compress(page("d").encode()), "man1")
    program.page(
        "e.1.gz",
        gzip.compress(page("e").encode()[:20]) + gzip.compress(page("e").encode()[20:]),
        "man1",
    )
    assert entries(program, "?") == ["a", "b", "c", "d", "e"]
    assert "Text of d." in program.out("read", "d")


def test_pages_that_come_go_and_change_are_taken_up(program: Program) -> None:
    tie = program.page("tie.1", page("tie", "fasten"))
    assert entries(program, "*") == ["tie"]
    program.page("knot.1", page("knot", "what holds"))
    assert entries(program, "*") == ["knot", "tie"]
    assert entries(program, "holds") == ["knot"]
    tie.unlink()
    assert entries(program, "*") == ["knot"]
    assert entries(program, "fasten") == []
    other = program.page("knot.new", page("knot", "what slips"))
    other.replace(program.man / "man1" / "knot.1")
    assert entries(program, "slips") == ["knot"]
    assert entries(program, "holds") == []
    program.page("form.5", page("form"))
    assert entries(program, "*") == ["form", "knot"]
    assert status(program)["pages"] == 2


def test_one_entry_for_all_names_of_a_file(program: Program) -> None:
    program.page("zip.1", ".TH Z 1\n.SH NAME\nzip, pack \\- press\n.SH D\nx")
    (program.man / "man1" / "squeeze.1").symlink_to("zip.1")
    program.page("wrap.3", ".so man1/zip.1\n")
    found = json.loads(program.out("find", "press", "--format", "json"))["entries"]
    assert [(e["name"], sorted(e["aliases"])) for e in found] == [
        ("zip", ["pack", "squeeze", "wrap(3)"])
    ]
    assert program.out("read", "wrap.3").startswith("zip(1)")


def test_the_first_of_two_manual_folders_wins(program: Program) -> None:
    program.page("tie.1", page("tie", "first"))
    other = Program(program.folder / "other")
    other.page("tie.1", page("tie", "second"))
    paths = f"{program.man}{os.pathsep}{other.man}"
    found = json.loads(program.out("find", "tie", "--format", "json", MANPATH=paths))["entries"]
    assert [entry["summary"] for entry in found] == ["first"]


BROKEN = {
    "cut.1.gz": (
        gzip.compress(page("cut").encode() * 50)[:60],
        "its compressed data end too early",
    ),
    "noise.1.gz": (b"\x1f\x8b" + bytes(range(40)), "its compressed data are damaged"),
    "lie.1.gz": (b"plain text", "its name says compressed, its contents are not"),
    "binary.1": (b"\x7fELF\x00\x00\x01", "it holds binary data, not text"),
    "empty.1": (b"", "there is no text in it"),
    "self.1": (b".so man1/self.1\n", "it refers to itself"),
    "gone.1": (
        b".so man1/nowhere.1\n",
        "it refers to man1/nowhere.1, which is not in its manual folder",
    ),
    "out.1": (b".so ../../../../../../etc/passwd\n", "which is not in its manual folder"),
    "old.1.Z": (
        b"\x1f\x9d\x90abc",
        "it is packed with the old compress format, which is not supported",
    ),
}


def test_broken_pages_are_listed_with_the_reason(program: Program) -> None:
    program.page("good.1", page("good"))
    for name, (data, _) in BROKEN.items():
        program.page(name, data, "man1")
    folder = program.man / "man1"
    (folder / "nowhere.1").symlink_to("missing.1")
    (folder / "ring.1").symlink_to("round.1")
    (folder / "round.1").symlink_to("ring.1")
    (folder / "folder.1").mkdir()
    (folder / "README").write_text("no page")
    found = problems(program)
    expected = {name: says for name, (_, says) in BROKEN.items()}
    expected |= {"nowhere.1": "the link leads nowhere", "ring.1": "the link goes round in a circle"}
    expected |= {"round.1": "the link goes round in a circle", "folder.1": "it is a folder"}
    expected["gone.1"] = "the link leads nowhere" if "gone.1" not in found else BROKEN["gone.1"][1]
    assert set(found) == set(expected)
    for name, says in expected.items():
        assert says in found[name], name
    assert entries(program, "*") == ["good"]
    done = program.run("read", "cut")
    assert done.returncode == 3
    assert done.stderr.startswith(
        "dowsing: the page of cut cannot be read: its compressed data end too early"
    )


def test_a_page_that_includes_itself_in_its_text(program: Program) -> None:
    program.page("loop.1", page("loop") + ".so man1/loop.1\nlast words\n")
    assert program.out("read", "loop").count("last words") == 1


def test_an_include_cannot_leave_the_manual_folder(program: Program) -> None:
    (program.folder / "secret").write_text("secret words\n")
    program.page("spy.1", page("spy") + ".so ../secret\n.so /etc/passwd\nlast words\n")
    text = program.out("read", "spy")
    assert "secret" not in text and "root:" not in text and "last words" in text


def test_a_page_of_ten_megabytes(program: Program) -> None:
    program.page("huge.1", page("huge") + "words to read\n" * 750_000)
    assert entries(program, "huge") == ["huge"]
    assert len(program.out("read", "huge", "--part", "desc")) > 10_000_000


def test_a_folder_without_permission_is_a_problem(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    from dowsing.ingest import scan as module

    (tmp_path / "man1").mkdir()

    def forbidden(folder: str):  # root may read everything, so the refusal is acted
        raise PermissionError(13, "Permission denied")

    monkeypatch.setattr(module.page_files, "page_files", forbidden)
    assert module.scan([str(tmp_path)]).problems == {str(tmp_path / "man1"): "permission denied"}


@pytest.mark.parametrize("damage", ["noise", "empty", "version", "cut"])
def test_a_damaged_or_foreign_index_is_built_anew(program: Program, damage: str) -> None:
    for n in range(40):
        program.page(f"tie{n}.1", page(f"tie{n}"))
    assert len(entries(program, "tie*", "--limit", "99")) == 40
    path = index_file(program)
    data = path.read_bytes()
    if damage == "version":
        import sqlite3

        with sqlite3.connect(path) as db:
            db.execute("UPDATE meta SET value='0' WHERE key='version'")
        db.close()
    else:
        half = len(data) // 2
        path.write_bytes({"noise": b"x" * 5000, "empty": b"", "cut": data[:half]}[damage])
    done = program.run("find", "tie*", "--limit", "99", "--format", "json")
    assert (done.returncode, len(json.loads(done.stdout)["entries"])) == (0, 40)
    assert "Traceback" not in done.stderr
    assert "building the index: the index is" in done.stderr
    assert program.run("find", "tie*").stderr == ""


def test_a_full_disk_is_one_line_and_the_old_index_stays(program: Program) -> None:
    program.page("tie.1", page("tie"))
    assert entries(program, "tie") == ["tie"]
    before = index_file(program).read_bytes()
    done = subprocess.run(
        [os.path.join(os.path.dirname(sys.executable), "dowsing"), "index", "--rebuild"],
        env=program.environment(),
        capture_output=True,
        text=True,
        timeout=60,
        check=False,
        preexec_fn=lambda: (
            signal.signal(signal.SIGXFSZ, signal.SIG_IGN),
            resource.setrlimit(resource.RLIMIT_FSIZE, (8192, 8192)),
        ),
    )
    assert done.returncode == 3
    assert len(done.stderr.splitlines()) <= 3 and "Traceback" not in done.stderr
    assert "free some space or set DOWSING_CACHE" in done.stderr
    assert index_file(program).read_bytes() == before
    assert [path.name for path in program.cache.iterdir() if ".new" in path.name] == []


def test_a_cache_that_cannot_be_made(program: Program) -> None:
    program.page("tie.1", page("tie"))
    (program.folder / "file").write_text("")
    done = program.run("find", "tie", DOWSING_CACHE=str(program.folder / "file" / "cache"))
    assert done.returncode == 3
    assert "cannot be made" in done.stderr and "Traceback" not in done.stderr


def test_two_builds_at_once(program: Program) -> None:
    for n in range(300):
        program.page(f"tie{n}.1", page(f"tie{n}"))
    command = [
        os.path.join(os.path.dirname(sys.executable), "dowsing"),
        "find",
        "tie7",
        "--format",
        "json",
    ]
    runs = [
        subprocess.Popen(
            command,
            env=program.environment(),
            stdout=subprocess.PIPE,
            stderr=subprocess.PIPE,
            text=True,
        )
        for _ in range(3)
    ]
    for run in runs:
        out, err = run.communicate(timeout=60)
        assert run.returncode == 0, err
        assert json.loads(out)["entries"][0]["name"] == "tie7"
    assert len(list(program.cache.glob("*.sqlite"))) == 1


def test_an_interrupt_leaves_the_old_index(program: Program) -> None:
    for n in range(400):
        program.page(f"tie{n}.1", page(f"tie{n}") + "some words\n" * 3000)
    program.page("only.7", page("only"))
    assert program.run("index").returncode == 0
    before = index_file(program).read_bytes()
    run = subprocess.Popen(
        [os.path.join(os.path.dirname(sys.executable), "dowsing"), "index", "--rebuild"],
        env=program.environment(),
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
        start_new_session=True,
    )
    deadline = time.monotonic() + 20
    while not list(program.cache.glob("*.new")) and time.monotonic() < deadline:
        time.sleep(0.005)
    os.killpg(run.pid, signal.SIGINT)
    _, err = run.communicate(timeout=30)
    assert run.returncode == 130, err
    assert "Traceback" not in err
    assert index_file(program).read_bytes() == before
    assert list(program.cache.glob("*.new*")) == []


def test_no_manual_folder_at_all(program: Program) -> None:
    done = program.run("find", "x", MANPATH=str(program.folder / "nowhere"))
    assert done.returncode == 3
    assert done.stderr.startswith("dowsing: there is no manual folder on this machine")


def test_a_bad_settings_file_is_named(program: Program) -> None:
    (program.folder / "config").mkdir()
    (program.folder / "config" / "config.toml").write_text("color = \n")
    done = program.run("find", "x")
    assert done.returncode == 3
    assert "config.toml cannot be used" in done.stderr


def test_settings_are_used(program: Program) -> None:
    program.page("tie.1", page("tie"))
    (program.folder / "config").mkdir()
    (program.folder / "config" / "config.toml").write_text(
        f'color = "always"\nman_path = ["{program.man}"]\n'
    )
    assert "\x1b[1m" in program.out("read", "tie", MANPATH="/nowhere")
