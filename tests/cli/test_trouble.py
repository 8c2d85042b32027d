"""What goes wrong around the program: one line that says what, a status, nothing lost, never a
trace of code.
"""

from __future__ import annotations

import bz2
import gzip
import json
import lzma
import os
import random
import resource
import signal
import socket
import sqlite3
import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
import zstandard
from conftest import Program

DOWSING = os.path.join(os.path.dirname(sys.executable), "dowsing")


def page(name: str, does: str = "waters the beds") -> str:
    return f".TH {name.upper()} 1\n.SH NAME\n{name} \\- {does}\n.SH DESCRIPTION\nText of {name}.\n"


def shell(program: Program, script: str, **more: str) -> subprocess.CompletedProcess[str]:
    """A script of bash in which `d` is the program."""
    return subprocess.run(
        ["bash", "-c", f'd() {{ "{DOWSING}" "$@"; }}\n{script}'],
        cwd=program.folder,
        capture_output=True,
        text=True,
        env=program.environment(PATH=os.environ["PATH"], **more),
        timeout=120,
        check=False,
        errors="surrogateescape",
    )


def found(program: Program, word: str) -> list[str]:
    return [
        entry["name"]
        for entry in json.loads(
            program.run("find", word, "--format", "json").stdout or '{"entries": []}'
        )["entries"]
    ]


# --- output, folders, limits
# ------------------------------------------------------------------------------


@pytest.mark.skipif(not os.path.exists("/dev/full"), reason="Linux has it")
def test_output_that_cannot_be_written(program: Program) -> None:
    program.page("rill.1", page("rill"))
    program.run("index")
    done = shell(
        program, "d rill >/dev/full; echo $?; d rill >&-; echo $?; d rill 2>&- >/dev/null; echo $?"
    )
    assert done.stdout.split() == ["3", "3", "0"]
    assert done.stderr.splitlines() == [
        "dowsing: the answer cannot be written: no space left on device",
        "dowsing: the answer cannot be written: standard output is closed",
    ]
    done = shell(
        program,
        "d read nosuch --format json >/dev/full; d nosuch --format json >/dev/full; echo $?",
    )
    assert (
        done.stdout,
        done.stderr.count("the answer cannot be written"),
        len(done.stderr.splitlines()),
    ) == (
        "3\n",
        2,
        2,
    )


@pytest.mark.skipif(not os.path.exists("/dev/full"), reason="Linux has it")
def test_a_file_that_cannot_be_written_stays_as_it_was(program: Program) -> None:
    program.page("rill.1", page("rill"))
    kept = program.folder / "kept.html"
    kept.write_text("as it was")
    kept.chmod(0o640)
    program.run("index")

    def small() -> None:
        resource.setrlimit(resource.RLIMIT_FSIZE, (100, 100))
        signal.signal(signal.SIGXFSZ, signal.SIG_IGN)

    done = subprocess.run(
        [DOWSING, "read", "rill", "--format", "html", "-o", str(kept)],
        env=program.environment(),
        capture_output=True,
        text=True,
        preexec_fn=small,
        check=False,
        cwd=program.folder,
    )
    assert (done.returncode, done.stderr) == (3, f"dowsing: cannot write {kept}: file too large\n")
    assert kept.read_text() == "as it was"
    assert sorted(one for one in os.listdir(program.folder) if "kept" in one) == ["kept.html"]
    program.out("read", "rill", "--format", "html", "-o", str(kept))
    assert kept.read_text().startswith("<!DOCTYPE html>")
    assert kept.stat().st_mode & 0o777 == 0o640
    assert program.run("read", "rill", "-o", "/dev/full").returncode == 3


def test_a_working_folder_that_is_gone(program: Program) -> None:
    program.page("rill.1", page("rill"))
    program.run("index")
    script = (
        "mkdir gone; cd gone; rmdir ../gone; d rill | head -n 1; DOWSING_CACHE=near d rill; echo $?"
    )
    done = shell(program, script)
    assert done.stdout == "rill(1)  waters the beds\n3\n"
    assert done.stderr == (
        "dowsing: DOWSING_CACHE is near, within a working folder that is gone; set it from the "
        "root, or cd to another folder\n"
    )


@pytest.mark.parametrize(
    ("limit", "most"), [("RLIMIT_NOFILE", n) for n in range(3, 9)] + [("RLIMIT_AS", 30_000_000)]
)
def test_few_files_and_little_memory(program: Program, limit: str, most: int) -> None:
    """It works, or says in one line that it cannot."""
    program.page("rill.1", page("rill"))
    program.run("index")
    done = subprocess.run(
        [DOWSING, "rill"],
        env=program.environment(),
        capture_output=True,
        text=True,
        check=False,
        preexec_fn=lambda: resource.setrlimit(getattr(resource, limit), (most, most)),
        cwd=program.folder,
    )
    assert (
        "Traceback" not in done.stderr.replace("Fatal Python error", "")
        or "init_import_site" in done.stderr
    )
    assert done.returncode in (0, 1, 3, 127)
    if done.returncode == 3:
        assert len(done.stderr.splitlines()) == 1 and done.stderr.startswith("dowsing: ")


def test_an_interrupt_at_any_time_is_one_line(program: Program) -> None:
    """Also while the modules load: it is sent at twenty places from the beginning to the end."""
    program.page("rill.1", page("rill"))
    program.run("index")
    script = (
        "import os, signal, sys\nsys.argv = ['dowsing', 'rill']\ncount = 0\n"
        "def trace(frame, event, argument):\n    global count\n    count += 1\n    if count == "
        "AT:\n"
        "        sys.settrace(None); sys.setprofile(None); os.kill(os.getpid(), signal.SIGINT)\n"
        "from dowsing.start import program\nsys.setprofile(trace)\nprogram()\n"
    )
    for at in range(5, 4000, 200):
        done = subprocess.run(
            [sys.executable, "-c", script.replace("AT", str(at))],
            env=program.environment(),
            capture_output=True,
            text=True,
            check=False,
            cwd=program.folder,
        )
        assert "Traceback" not in done.stderr, (at, done.stderr)
        assert done.returncode in (0, 130), (at, done.returncode, done.stderr)
        assert done.returncode == 0 or done.stderr == "dowsing: interrupted\n", (at, done.stderr)


# --- files that are none, paths that are no text
# ----------------------------------------------------------


def test_what_is_no_plain_file_is_told_and_not_waited_for(program: Program) -> None:
    """A FIFO that nobody writes to, a socket and a device, named like pages and like the
    settings.
    """
    program.page("rill.1", page("rill"))
    folder = program.man / "man1"
    os.mkfifo(folder / "pipe.1")
    os.mkfifo(folder / "packed.1.gz")
    (folder / "device.1").symlink_to("/dev/zero")
    (program.folder / "info").mkdir()
    os.mkfifo(program.folder / "info" / "pipe.info")
    with socket.socket(socket.AF_UNIX) as listening:
        os.chdir(folder)
        listening.bind("socket.1")
        assert program.run("rill").returncode == 0
        told = {
            Path(one["path"]).name: one["says"]
            for one in json.loads(program.out("index", "--status", "--format", "json"))["problems"]
        }
        names = (
            "pipe.1",
            "packed.1.gz",
            "device.1",
            "zero",
            "socket.1",
        )  # `zero` is what the link leads to
        assert told == dict.fromkeys(names, "it is no plain file")
        assert program.run("read", "pipe").stderr.startswith(
            "dowsing: the page of pipe cannot be read: it is no plain file"
        )
    (program.folder / "config").mkdir(exist_ok=True)
    (program.folder / "config" / "config.toml").unlink(missing_ok=True)
    os.mkfifo(program.folder / "config" / "config.toml")
    done = program.run("rill")
    assert (done.returncode, done.stdout) == (3, "")
    assert "it is no plain file" in done.stderr
    (program.folder / "config" / "config.toml").unlink()
    (program.folder / "data").mkdir(exist_ok=True)
    for name in ("saved.toml", "notes.toml", "read.jsonl"):
        (program.folder / "data" / name).unlink(missing_ok=True)
        os.mkfifo(program.folder / "data" / name)
    done = program.run("rill")
    assert done.returncode == 0 and "it is no plain file" in done.stderr


def test_bytes_that_are_no_text_in_every_kind_of_path(program: Program) -> None:
    odd = os.fsdecode(b"\xff\xfe")
    program.man = program.folder / f"man{odd}"
    program.bin = program.folder / f"bin{odd}"
    program.info = program.folder / f"info{odd}"
    program.page("alder.1", page("alder"))
    program.page(f"be{odd}ta.1", page("beta", "opens the roof"))
    program.command(f"de{odd}lta", "#!/bin/sh\n")
    program.command("gamma", "#!/bin/sh\n")
    program.info.mkdir()
    (program.info / f"x{odd}.info").write_text(
        "x\n\x1f\nFile: x.info,  Node: Top,  Up: (dir)\n\nX\n*\n\n* Menu:\n\n* Invoking alder::\n\n"
        "\x1f\nFile: x.info,  Node: Invoking alder,  Up: Top\n\nOf alder.\n"
    )
    assert program.out("alder").startswith("alder(1)  waters the beds\n")
    assert program.out("read", "alder", "--from", "info").split("\n")[0].startswith("alder")
    assert "?? " not in program.out("read", "alder") and "man??/man1/alder.1" in program.out(
        "read", "alder"
    )
    path = json.loads(program.out("read", "alder", "--format", "json"))["path"]
    assert os.fsencode(path) == os.fsencode(str(program.man / "man1" / "alder.1")), (
        "JSON has the very path"
    )
    assert found(program, "roof") == ["be\ufffd\ufffdta"]
    assert program.out("read", f"be{odd}ta").startswith("be\ufffd\ufffdta(1)  opens the roof")
    assert json.loads(program.out("resolve", "gamma", "--format", "json"))["candidates"][0][
        "path"
    ] == str(program.bin / "gamma")
    program.page(f"zeta{odd}.1", page("zeta", "reaps trees"))
    (program.man / "man1" / "alder.1").unlink()
    assert found(program, "trees") == ["zeta\ufffd\ufffd"], "what came is taken up"
    assert program.run("read", "alder", "--from", "manual").returncode != 0, "what went is gone"


# --- the index
# --------------------------------------------------------------------------------------------


def test_look_ups_at_once_take_up_a_page_once(program: Program) -> None:
    """What is new is worked out when nobody else can write: no entry twice, no ghost of a page that
    went.
    """
    for n in range(6):
        program.page(f"old{n}.1", page(f"old{n}", "reaps hay"))
    program.run("index")
    for turn in range(3):
        for n in range(4):
            program.page(f"new{turn}{n}.1", page(f"new{turn}{n}", "rakes leaves"))
        (program.man / "man1" / f"old{turn}.1").unlink()
        with ThreadPoolExecutor(8) as pool:
            list(pool.map(lambda _: program.run("find", "leaves"), range(8)))
        assert sorted(found(program, "leaves")) == [
            f"new{t}{n}" for t in range(turn + 1) for n in range(4)
        ]
        assert sorted(found(program, "hay")) == [f"old{n}" for n in range(turn + 1, 6)]
    status = json.loads(program.out("index", "--status", "--format", "json"))
    assert (status["pages"], status["files"], status["problems"]) == (15, 15, [])
    (index,) = program.cache.glob("index*.sqlite")
    with sqlite3.connect(index) as db:
        names = [row[0] for row in db.execute("SELECT name FROM names WHERE section='1'")]
    assert len(names) == len(set(names)) == 15


def test_a_page_that_was_hidden_comes_back(program: Program) -> None:
    """Of two pages of one name the first folder's is shown; when it goes, the other one is."""
    other = program.folder / "other"
    program.page("rill.1", page("rill", "waters the beds"))
    (other / "man1").mkdir(parents=True)
    (other / "man1" / "rill.1").write_text(page("rill", "drains the beds"))
    both = {"MANPATH": f"{program.man}:{other}"}
    assert program.out("rill", **both).startswith("rill(1)  waters the beds")
    (program.man / "man1" / "rill.1").unlink()
    assert program.out("rill", **both).startswith("rill(1)  drains the beds")
    program.page("rill.1", page("rill", "floods the beds"))
    assert program.out("rill", **both).startswith("rill(1)  floods the beds")


def test_pages_that_come_in_one_tick_of_the_clock_are_seen(program: Program) -> None:
    """The times of folders move by some milliseconds; a page that comes within the same ones is not
    overlooked.
    """
    program.page("rill.1", page("rill"))
    program.run("index")
    for n in range(8):
        program.page(f"fast{n}.1", page(f"fast{n}", "mows lawns"))
        program.run("rill")
        os.utime(program.man / "man1", ns=(time.time_ns(), time.time_ns()))
    assert sorted(found(program, "lawns")) == [f"fast{n}" for n in range(8)]


def test_a_damaged_index_is_built_anew(program: Program) -> None:
    """Flipped bytes and rows of rubbish: the answer is right, or the index is made anew; never a
    trace of code.
    """
    for n in range(12):
        program.page(f"rill{n}.1", page(f"rill{n}", "waters the beds of roses"))
    program.run("index")
    (index,) = program.cache.glob("index*.sqlite")
    whole = index.read_bytes()
    chance = random.Random(7)
    rubbish = [
        "UPDATE entries SET aliases=x'ff00', verbs=5",
        "UPDATE postings SET entries=x'00', fields=NULL",
        "UPDATE options SET command=x'789c', lines=7",
        "UPDATE meta SET value='x' WHERE key='conventions'",
        "UPDATE static_ranks SET marks=x''",
        "DELETE FROM entries",
        "UPDATE files SET entry='x'",
        "DROP TABLE names",
        "UPDATE folders SET modified=NULL, kind=5",
        "UPDATE words SET term=NULL",
    ]
    for turn in range(11):
        index.write_bytes(whole)
        if turn < len(rubbish):
            with sqlite3.connect(index) as db:
                db.execute(rubbish[turn])
            db.close()
        else:
            damaged = bytearray(whole)
            for _ in range(40):
                damaged[chance.randrange(100, len(damaged))] = chance.randrange(256)
            index.write_bytes(damaged)
        for call in (
            ["rill3"],
            ["find", "roses"],
            ["unpick", "rill3 -x"],
            ["task", "water the beds"],
        ):
            done = program.run(*call)
            assert "Traceback" not in done.stderr, (turn, call, done.stderr)
            assert done.returncode in (0, 1), (turn, call, done.stderr)


# --- bombs
# ------------------------------------------------------------------------------------------------


def test_bombs_are_told_to_be_too_large(program: Program) -> None:
    """Small files that unpack or unfold to gigabytes: within seconds and little memory it is said
    what they are.
    """
    program.page("rill.1", page("rill"))
    zeros = b"\n" * 40_000_000
    huge = zstandard.ZstdCompressor(level=3).compress(zeros)
    program.page("zst.1.zst", huge, "man1")
    program.page("bz.1.bz2", bz2.compress(zeros), "man1")
    program.page("xz.1.xz", lzma.compress(zeros), "man1")
    program.page("gz.1.gz", gzip.compress(zeros), "man1")
    program.page(
        "loop.1",
        page("loop") + ".while 1 \\{\\\n.while 1 \\{\\\n" + "words " * 50 + "\n.\\}\n.\\}\n",
    )
    program.page(
        "items.1.gz", gzip.compress((page("items") + ".TP\nx\n" * 600_000).encode()), "man1"
    )
    program.page("strings.1", page("strings") + ".ds a " + "x" * 150_000 + "\n" + "\\*a\n" * 3000)
    done = program.run("rill")
    assert done.returncode == 0
    told = {
        Path(one["path"]).name.split(".")[0]: one["says"]
        for one in json.loads(program.out("index", "--status", "--format", "json"))["problems"]
    }
    assert told == {
        **dict.fromkeys(
            ("zst", "bz", "xz", "gz"), "it is too large: it unpacks to more than 16 MB"
        ),
        "loop": "it is too large: its macros and loops make more than 16 million characters",
        "strings": "it is too large: its macros and loops make more than 16 million characters",
        "items": "it is too large: it has more than 1,000,000 lines",
    }


def test_a_worker_that_ends_loses_no_page(program: Program) -> None:
    """What a process that reads did not give back is read once more, page by page; what ends it
    again is told.
    """
    from dowsing.ingest.all_pages import ENDED, read_by_workers
    from dowsing.ingest.page_reading import read_many

    tasks = []
    for n in range(300):
        path = program.page(f"rill{n}.1", page(f"rill{n}"))
        tasks.append((n, str(path), f"rill{n}", "1", False))

    def dying(portion):  # type: ignore[no-untyped-def]
        if any(task[0] == 7 for task in portion):
            os.kill(os.getpid(), signal.SIGKILL)
        return read_many(portion)

    portions = [tasks[n::6] for n in range(6)]
    read = [one for part in read_by_workers(portions, dying) for one in part]
    assert sorted(one.number for one in read) == list(range(300))
    assert [one.number for one in read if one.problem] == [7]
    assert next(one.problem for one in read if one.number == 7) == ENDED
