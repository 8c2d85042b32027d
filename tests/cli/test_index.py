"""The index through the program: building, refreshing, and everything that can be wrong with
files.
"""

from __future__ import annotations

import base64
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

from dowsing.machine.pages_left_out import how_pages_come_back
from dowsing.machine.settings import Settings

#: A page of f as the old `compress` packs it.
OLD = (
    "H52QLqggAfGECZEkRUDEUOBiykAnQZoUUfCGDZk0ZUBwaQHiThg6ZeSAoIMmY0UyZebQASGmDBkQZtLIUcnQIQgiRa"
    "YMkZIECpUkT5wouPIx5JyRJUGcTLmyJRkWSMu4iQrCTRk8K5eqZOkSKkmpVK1iVWqRKVcyLhQA"
)


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
    return next(program.cache.glob("index*.sqlite"))


def test_the_first_look_up_builds_and_says_so(program: Program) -> None:
    program.page("tie.1", page("tie"))
    done = program.run("find", "tie")
    assert (
        done.stderr == "dowsing: building the index: there is no index yet\ndowsing: 1 pages read\n"
    )
    assert program.run("find", "tie").stderr == ""


def test_the_index_and_what_else_can_be_made_anew_is_removed(program: Program) -> None:
    program.page("tie.1", page("tie"))
    program.run("save", "tie -k", "--for", "keep")
    program.run("find", "tie")
    (program.cache / "usage").mkdir()
    (program.cache / "usage" / "00000000-none.json").write_text("{}")
    (program.cache / "index-00000000.sqlite.new").write_text("left")  # of an older version
    (program.cache / "index-7-00000000.sqlite.work").mkdir()
    (program.cache / "index-7-00000000.sqlite.work" / "new").write_text("left")
    (program.cache / "beside").mkdir()
    (program.cache / "beside" / "1.json").write_text("{}")
    own = program.cache / "notes of mine"
    own.write_text("mine")
    done = json.loads(program.out("index", "--remove", "--format", "json"))
    assert [path.name for path in program.cache.iterdir()] == ["notes of mine"]
    assert str(program.cache / "usage") in done["removed"] and done["bytes"] > 10_000
    assert done["kept"] == [str(program.folder / "data"), str(program.folder / "config")]
    assert not (program.folder / "data" / "last").exists()
    own.unlink()
    assert program.out("find", "tie")
    said = program.out("index", "--remove").splitlines()
    assert said[0].split(",")[0].endswith(" files removed")
    own_folders = f"{program.folder / 'data'} and {program.folder / 'config'}"
    assert said[1] == f"what is yours stays: {own_folders}"
    assert not program.cache.exists()
    assert program.out("index", "--remove").startswith("there was none")
    assert "tie -k" in program.out("saved")
    assert program.run("index", "--remove", "--status").returncode == 2


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
    program.page("f.1.Z", base64.b64decode(OLD), "man1")
    assert entries(program, "?") == ["a", "b", "c", "d", "e", "f"]
    assert "then the next oldest bed, then the next oldest bed." in program.out("read", "f")
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


def test_the_last_page_may_go(program: Program) -> None:
    tie = program.page("tie.1", page("tie", "fasten"))
    built = program.out("index", "--status", "--format", "json")
    tie.unlink()
    after = status(program)
    assert (after["pages"], after["built"]) == (0, json.loads(built)["built"])
    assert program.run("find", "fasten").returncode == 1
    program.page("tie.1", page("tie", "fasten"))
    assert entries(program, "fasten") == ["tie"]
    assert status(program)["pages"] == 1


def test_one_entry_for_all_names_of_a_file(program: Program) -> None:
    program.page("zip.1", ".TH Z 1\n.SH NAME\nzip, pack \\- press\n.SH D\nx")
    (program.man / "man1" / "squeeze.1").symlink_to("zip.1")
    program.page("wrap.3", ".so man1/zip.1\n")
    found = json.loads(program.out("find", "press", "--format", "json"))["entries"]
    assert [(e["name"], sorted(e["aliases"])) for e in found] == [
        ("zip", ["pack", "squeeze", "wrap(3)"])
    ]
    assert program.out("read", "wrap.3").startswith("zip(1)")


def test_a_page_that_is_laid_out_has_the_section_of_its_folder(program: Program) -> None:
    laid_out = "TIE(1)    GARDEN    TIE(1)\n\nN\bNA\bAM\bME\bE\n     tie - fasten a plant\n"
    program.page("tie.0", laid_out + "\nD\bDE\bES\bSC\bC\n     Ties it.\n", "cat1")
    program.page("knot.0", laid_out.replace("tie", "knot"), "man1")
    found = json.loads(program.out("find", "fasten", "plant", "--format", "json"))["entries"]
    assert {(one["name"], one["section"]) for one in found} == {("tie", "1"), ("knot", "0")}
    assert program.out("read", "tie.1").startswith("tie(1)  fasten a plant\n")


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
        b"\x1f\x9d\x90\xff\xff\xff",
        "its compressed data are damaged (a code that stands for nothing)",
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
            db.execute("PRAGMA user_version = 1")
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
    cache = str(program.folder / "file" / "cache")
    done = program.run("find", "tie", DOWSING_CACHE=cache)
    says = f"the index cannot be kept in {cache}: it is in {passing(program)} for now; free some"
    assert says in done.stderr
    assert (done.returncode, done.stdout.split()[:2]) == (0, ["1", "tie(1)"])
    again = program.run("find", "tie", DOWSING_CACHE=cache)
    assert (again.stdout, again.stderr) == (done.stdout, "")


def passing(program: Program) -> Path:
    """The folder for an index that need not last."""
    return program.folder / "passing" / f"dowsing-{os.getuid()}"


def test_a_temporary_folder_that_others_may_write_into_is_not_taken(program: Program) -> None:
    program.page("tie.1", page("tie"))
    (program.folder / "file").write_text("")
    passing(program).parent.mkdir()
    passing(program).mkdir(mode=0o777)
    passing(program).chmod(0o777)
    done = program.run("find", "tie", DOWSING_CACHE=str(program.folder / "file" / "cache"))
    assert done.returncode == 3
    assert "cannot be kept in" in done.stderr and "set DOWSING_CACHE to a folder" in done.stderr
    assert list(passing(program).iterdir()) == []


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
    while not list(program.cache.glob("*.work/new")) and time.monotonic() < deadline:
        time.sleep(0.005)
    os.killpg(run.pid, signal.SIGINT)
    _, err = run.communicate(timeout=30)
    assert run.returncode == 130, err
    assert "Traceback" not in err
    assert index_file(program).read_bytes() == before
    assert program.run("index", "--rebuild").returncode == 0
    assert list(program.cache.glob("*.new*")) == [], "it went on where it was"


def test_no_manual_folder_at_all(program: Program) -> None:
    program.bin.mkdir()
    (program.bin / "tar").symlink_to("/bin/sh")
    done = program.run("find", "unpack", "an", "archive", MANPATH=str(program.folder / "nowhere"))
    assert (done.returncode, done.stdout.split()[:2]) == (0, ["1", "tar"])
    assert "\nThere are no manual pages here: " in done.stdout


def test_how_pages_come_back(tmp_path: Path) -> None:
    folder = tmp_path / "etc" / "dpkg" / "dpkg.cfg.d"
    folder.mkdir(parents=True)
    lists = tmp_path / "lists"
    none = Settings("", "", "", None, [], package_lists=str(lists), package_root=str(tmp_path))
    assert how_pages_come_back(none).startswith("they come with packages that your system keeps")
    lists.mkdir()
    assert how_pages_come_back(none).startswith("the package manpages brings those of the system")
    (folder / "small").write_text("# no pages\npath-exclude=/usr/share/man/*\n")
    assert how_pages_come_back(none).startswith(f"{folder / 'small'} has dpkg leave them out; ")


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


def test_what_was_left_of_a_process_that_was_killed_goes_with_the_next_look_up(
    program: Program,
) -> None:
    program.page("tie.1", page("tie"))
    assert entries(program, "tie") == ["tie"]
    index = index_file(program)
    work = Path(f"{index}.work")
    work.mkdir()
    for name in ("new", "new-journal", "copy", "progress"):
        (work / name).write_bytes(b"x")
    Path(f"{index}.heads").write_bytes(b"x")
    program.background = True
    (program.folder / "config" / "config.toml").unlink()
    assert entries(program, "tie") == ["tie"]
    until = time.monotonic() + 30
    while work.exists() and time.monotonic() < until:
        time.sleep(0.05)
    time.sleep(0.1)
    assert sorted(path.name for path in program.cache.iterdir()) == [
        index.name, f"{index.name}.lock", f"{index.name}.upkeep"
    ]  # fmt: skip


def test_pages_that_are_there_only_translated(program: Program) -> None:
    program.page("tie.8", page("tie"))
    german = ".TH X 1\n.SH BEZEICHNUNG\n{} \\- {}\n.SH BESCHREIBUNG\nGräbt.\n"
    program.page("grab.1", german.format("grab", "Beete umgraben"), "de/man1")
    program.page("grab.5", german.format("grab", "Plan der Beete"), "de/man5")
    program.page("grab.1", german.format("grab", "bêcher"), "fr/man1")
    program.page("tie.1", german.format("tie", "binden"), "de/man1")  # has a page of its own
    assert entries(program, "umgraben") == ["grab"]
    assert program.run("find", "bêcher").returncode == 1
    assert program.run("find", "binden").returncode == 1
    done = program.run("read", "grab")
    assert done.stderr.strip() == "dowsing: grab(1) is here only in the language de"
    assert done.stdout.startswith("grab(1)  Beete umgraben\nmanual · language de")
    assert program.run("read", "grab.5", LC_ALL="de_DE.UTF-8").stderr == ""
    program.page("mulch.1", german.format("mulch", "Beete decken"), "de/man1")  # taken up, too
    assert entries(program, "decken") == ["mulch"]


def test_the_users_language_comes_before_others(program: Program) -> None:
    program.page("grab.1", page("grab", "umgraben"), "de/man1")
    program.page("grab.1", page("grab", "kopat"), "cs/man1")
    french = program.run("find", "gra*", LC_ALL="fr_FR.UTF-8")
    assert french.stdout.split("\n")[0] == "1  grab(1)  kopat"
    program.run("index", "--rebuild", LC_ALL="de_DE.UTF-8")
    assert program.run("find", "gra*").stdout.split("\n")[0] == "1  grab(1)  umgraben"


def test_folders_of_an_architecture(program: Program) -> None:
    program.page("lathe.4", page("lathe", "a device"), "man4/amd64")
    assert entries(program, "lathe") == ["lathe"]
    program.page("press.4", page("press", "another device"), "man4/amd64")
    assert entries(program, "press") == ["press"]


def test_an_info_manual_without_a_page(program: Program) -> None:
    program.page("tie.1", page("tie"))
    program.info.mkdir()
    for name, title in (("shed", "The Shed"), ("tie", "Tying")):
        (program.info / f"{name}.info").write_text(
            f"This is {name}.info.\n\n\x1f\nFile: {name}.info,  Node: Top,  Up: (dir)\n\n{title}\n"
            f"{'*' * len(title)}\n\nAll about it.\n"
        )
    (program.info / "dir").write_text(
        "\x1f\nFile: dir,\tNode: Top\n\n* Menu:\n\nGarden\n* Shed: (shed).   Tools and pots.\n"
    )
    lines = program.run("find", "shed").stdout.split("\n")
    assert lines[0] == "1  shed  Tools and pots (an Info manual)"
    assert program.run("shed").stdout.split("\n")[:3] == [
        "shed  The Shed", "topic · no manual page", "from: info",
    ]  # fmt: skip
    assert program.run("read", "shed").stdout.startswith("shed(info)  The Shed\n")
    assert program.run("tie").stdout.startswith("tie(1)  ")
    names = [entry["name"] for entry in json.loads(
        program.out("find", "*", "--kind", "topic", "--format", "json"))["entries"]]  # fmt: skip
    assert names == ["shed"]


def test_a_rebuild_of_an_index_from_the_future_reads_every_page(program: Program) -> None:
    program.page("tie.1", page("tie"))
    assert entries(program, "tie") == ["tie"]
    index = index_file(program)
    later = time.time() + 86_400
    os.utime(index, (later, later))
    before = index.stat().st_ino
    done = program.run("index", "--rebuild")
    assert done.returncode == 0 and "1 pages read" in done.stderr
    assert index.stat().st_ino != before and index.stat().st_mtime < later


def test_a_fault_of_ours_leaves_the_index(
    program: Program, monkeypatch: pytest.MonkeyPatch, capfd: pytest.CaptureFixture[str]
) -> None:
    """Only a check of the file says that it is damaged."""
    from dowsing.cli import main as module
    from dowsing.cli.commands import find

    program.page("tie.1", page("tie"))
    assert entries(program, "tie") == ["tie"]
    index = index_file(program)
    before = index.stat().st_ino
    for name, value in program.environment().items():
        monkeypatch.setenv(name, value)
    answer = find.run
    calls: list[int] = []

    def faulty(session, options):  # type: ignore[no-untyped-def]
        calls.append(1)
        answer(session, options)
        raise KeyError("no such title")

    monkeypatch.setattr(find, "run", faulty)
    assert module.main(["find", "tie"]) == 3
    said = capfd.readouterr().err
    assert said == (
        "dowsing: a fault of dowsing's own (KeyError: 'no such title'); please report it with what "
        "DOWSING_TRACE=1 shows when this is set before the same line\n"
    )
    assert (len(calls), index.stat().st_ino) == (1, before)
    data = bytearray(index.read_bytes())
    at = data.index(b"a thing")
    data[at : at + 7] = b"A THING"
    index.write_bytes(data)
    assert module.main(["find", "tie"]) == 3  # made anew once; the fault is still there
    said = capfd.readouterr().err
    assert "building the index: the index is damaged (KeyError: 'no such title')" in said
    assert len(calls) == 3 and index.stat().st_ino != before


def test_what_may_come_in_a_command_of_find(program: Program) -> None:
    done = program.run("next", "--", "find . -name '*.log' -exec rm {} ")
    assert done.returncode in (0, 1)
    assert "OPERATOR" in done.stdout and "fault" not in done.stderr


def test_new_pages_are_told_and_taken_up_in_the_background(program: Program) -> None:
    program.page("tie.1", page("tie"))
    assert entries(program, "tie") == ["tie"]
    (program.folder / "config" / "config.toml").unlink()
    program.background = True
    program.page("knot.1", page("knot", "what holds"))
    program.page("bend.1", page("bend", "what joins"))
    told = (
        "dowsing: 2 pages came or went: the index is being brought up to date in the background\n"
    )
    first = program.run("find", "tie")
    assert first.stdout.split()[:2] == ["1", "tie(1)"]
    assert first.stderr == told
    card = program.run("knot")  # which may have been taken up by now
    assert card.stdout.startswith("knot(1)  what holds\n")
    assert card.stderr in (told, "")
    until = time.monotonic() + 30
    while entries(program, "joins") != ["bend"] and time.monotonic() < until:
        time.sleep(0.05)
    time.sleep(0.5)
    assert entries(program, "*") == ["bend", "knot", "tie"]
    assert program.run("find", "joins").stderr == ""


def test_a_command_that_is_new_on_path_is_known_at_once(program: Program) -> None:
    program.page("tie.1", page("tie"))
    program.command("old", "#!/bin/sh\n")
    assert entries(program, "tie") == ["tie"]
    (program.folder / "config" / "config.toml").unlink()
    program.background = True
    program.command("new", "#!/bin/sh\n[ \"$1\" = --help ] && echo 'usage: new [-k]'\n")
    done = program.run("new")
    assert done.stdout.startswith("new  no manual page\n")
    assert "came or went" not in done.stderr
