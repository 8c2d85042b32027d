"""The first minute on a machine, and one index for whatever folders are in use: a first answer from
names and summaries, the rest in the background, what was read is never read again.
"""

from __future__ import annotations

import json
import os
import signal
import sqlite3
import subprocess
import sys
import time
from array import array
from pathlib import Path

import pytest
from conftest import Program

from dowsing.index.index_file import index_path, work_folder
from dowsing.index.schema import Depth
from dowsing.index.store import Store
from dowsing.ingest import all_pages
from dowsing.ingest.all_pages import packed, unpacked
from dowsing.ingest.build import build
from dowsing.ingest.locks import is_at_work
from dowsing.ingest.page_reading import Reading, read_for_index, read_many
from dowsing.ingest.progress_file import progress_of
from dowsing.machine.settings import Settings

MANY = 160  # more pages than are read at once
NEVER = 'background = "never"\n'
UNFINISHED = "so far the index has names and summaries; the rest is being made in the background"


def page(name: str, summary: str = "a thing") -> str:
    return (
        f".TH {name} 1\n.SH NAME\n{name} \\- {summary}\n.SH SYNOPSIS\n.B {name}\n[\\-k]\n"
        f".SH DESCRIPTION\nText of {name}.\n.SH OPTIONS\n.TP\n.B \\-k\nKeep the {name}.\n"
    )


def many_pages(program: Program) -> None:
    """More pages than are read at once, the rest of which is read in the background."""
    program.background = True
    for n in range(MANY):
        program.page(f"trowel{n}.1", page(f"trowel{n}", f"dig bed number {n}"))


def index_file(program: Program) -> Path:
    (found,) = program.cache.glob("*.sqlite")
    return found


def depth(program: Program) -> str:
    with sqlite3.connect(index_file(program)) as db:
        found = db.execute("SELECT value FROM meta WHERE key='depth'").fetchone()[0]
    db.close()
    return str(found)


def wait_until_whole(program: Program) -> None:
    """Until the process in the background has made the rest, and has ended."""
    until = time.monotonic() + 60
    while depth(program) != Depth.WHOLE or is_at_work(str(index_file(program))):
        assert time.monotonic() < until, list(program.cache.iterdir())
        time.sleep(0.05)


def new_file(path: str) -> str:
    """The file of a whole index that is being made."""
    return os.path.join(work_folder(path), "new")


def names(program: Program, *words: str, **more: str) -> list[str]:
    found = json.loads(program.run("find", *words, "--format", "json", **more).stdout)["entries"]
    return [one["name"] for one in found]


def never_in_background(program: Program) -> None:
    (program.folder / "config").mkdir(exist_ok=True)
    (program.folder / "config" / "config.toml").write_text(NEVER)


# --- the first answer
# ------------------------------------------------------------------------------


def test_the_first_answer_comes_from_names_and_summaries(program: Program) -> None:
    many_pages(program)
    first = program.run("find", "dig", "bed", "number", "77")
    assert first.returncode == 0
    assert first.stdout.splitlines()[0].split() == ["1", *"trowel77(1) dig bed number 77".split()]
    assert first.stderr.splitlines() == [
        "dowsing: building the index: there is no index yet",
        f"dowsing: {MANY} pages read",
        f"dowsing: {UNFINISHED}",
    ]
    wait_until_whole(program)
    after = program.run("find", "keep", "trowel77")
    assert (after.stdout.splitlines()[0].split()[1], after.stderr) == ("trowel77(1)", "")
    left = sorted(path.name for path in program.cache.iterdir())
    index = index_file(program).name
    assert left == [index, f"{index}.lock", f"{index}.upkeep"]


def test_what_is_asked_meanwhile_is_read_from_the_page(program: Program) -> None:
    many_pages(program)
    card = program.run("trowel7").stdout
    assert "-k" in card and "Keep the trowel7." in card
    wait_until_whole(program)
    assert program.run("trowel7").stdout == card


def test_index_waits_for_the_whole(program: Program) -> None:
    many_pages(program)
    status = program.run("index", "--status")
    assert "   holds   names and summaries so far; " in status.stdout
    assert "Which pages cannot be read is told once all are." in status.stdout
    assert UNFINISHED not in status.stderr
    assert json.loads(program.run("index", "--format", "json").stdout)["whole"] is True
    assert depth(program) == Depth.WHOLE
    assert "holds" not in program.out("index", "--status")


def test_nothing_in_the_background_where_that_is_not_wanted(program: Program) -> None:
    many_pages(program)
    never_in_background(program)
    assert program.run("find", "dig").stderr.splitlines()[1:] == [f"dowsing: {MANY} pages read"]
    assert depth(program) == Depth.WHOLE


def test_few_pages_are_read_whole_at_once(program: Program) -> None:
    program.page("trowel.1", page("trowel"))
    program.out("find", "trowel")
    assert depth(program) == Depth.WHOLE


def test_eight_look_ups_at_once_cost_one_build(program: Program) -> None:
    many_pages(program)
    never_in_background(program)
    runs = [
        subprocess.Popen(
            [os.path.join(os.path.dirname(sys.executable), "dowsing"), "find", f"trowel{n}"],
            env=program.environment(),
            stdout=subprocess.PIPE,
            stderr=subprocess.PIPE,
            text=True,
        )
        for n in range(8)
    ]
    told = [run.communicate(timeout=120) for run in runs]
    assert [run.returncode for run in runs] == [0] * 8
    assert [out.split()[1] for out, _ in told] == [f"trowel{n}(1)" for n in range(8)]
    read = sum(f"{MANY} pages read" in err for _, err in told)
    assert read == 1, "the others waited for it"
    assert len(list(program.cache.glob("*.sqlite"))) == 1


# --- builds that are ended
# ------------------------------------------------------------------------------


@pytest.fixture
def library(program: Program) -> Settings:
    many_pages(program)
    return Settings(
        str(program.cache),
        str(program.folder),
        str(program.folder),
        str(program.man),
        [],
        info_path="/no",
    )


def test_a_build_goes_on_where_it_was(
    library: Settings, program: Program, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = index_path(str(program.cache))
    monkeypatch.setattr(all_pages, "FEW", 10_000)  # in this process
    monkeypatch.setattr(all_pages, "HELD_FOR", 0.0)
    read: list[int] = []

    def reading(tasks):  # type: ignore[no-untyped-def]
        if len(read) >= 96:
            raise KeyboardInterrupt
        read.extend(task[0] for task in tasks)
        return read_many(tasks)

    monkeypatch.setattr(all_pages, "read_many", reading)
    with pytest.raises(KeyboardInterrupt):
        build(path, library, [str(program.man)])
    assert not os.path.exists(path) and os.path.exists(new_file(path))
    before = list(read)

    def the_rest(tasks):  # type: ignore[no-untyped-def]
        read.extend(task[0] for task in tasks)
        return read_many(tasks)

    monkeypatch.setattr(all_pages, "read_many", the_rest)
    build(path, library, [str(program.man)])
    assert sorted(read) == list(range(MANY)), "no page was read twice"
    assert len(before) == 120
    assert whole_contents(path) == fresh_contents(program, library)
    assert not os.path.exists(new_file(path))


def whole_contents(path: str) -> list[tuple]:  # type: ignore[type-arg]
    """What an index holds of pages, whatever the numbers of its rows."""
    with sqlite3.connect(path) as db:
        found = [
            sorted(db.execute(sql).fetchall())
            for sql in (
                "SELECT name, section, summary, verbs, nouns, hidden, path FROM entries",
                "SELECT e.name, o.lines, o.command FROM options o JOIN entries e ON e.id=o.entry",
                "SELECT e.name, c.facts FROM cards c JOIN entries e ON e.id=c.entry",
                "SELECT word, count FROM words",
                "SELECT rowid FROM bodies WHERE bodies MATCH 'trowel42'",
            )
        ]
        terms = db.execute("SELECT term, part, entries, fields FROM postings").fetchall()
    db.close()
    # in the order in which pages were read, which is another each time
    found.append(sorted((t, p, sorted(zip(array("I", e), f, strict=True))) for t, p, e, f in terms))
    return found  # type: ignore[return-value]


def fresh_contents(program: Program, settings: Settings) -> list[tuple]:  # type: ignore[type-arg]
    path = index_path(str(program.folder / "fresh"))
    build(path, settings, [str(program.man)])
    return whole_contents(path)


@pytest.mark.parametrize("damage", ["changed page", "no database", "other readings"])
def test_what_cannot_be_gone_on_from_is_begun_anew(
    library: Settings, program: Program, damage: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = index_path(str(program.cache))
    monkeypatch.setattr(all_pages, "FEW", 10_000)
    monkeypatch.setattr(all_pages, "HELD_FOR", 0.0)
    calls: list[int] = []

    def interrupted(tasks):  # type: ignore[no-untyped-def]
        calls.append(len(tasks))
        if len(calls) > 2:
            raise KeyboardInterrupt
        return read_many(tasks)

    monkeypatch.setattr(all_pages, "read_many", interrupted)
    with pytest.raises(KeyboardInterrupt):
        build(path, library, [str(program.man)])
    monkeypatch.setattr(all_pages, "read_many", read_many)
    if damage == "changed page":
        program.page("trowel3.1", page("trowel3", "changed meanwhile"))
    elif damage == "no database":
        Path(new_file(path)).write_bytes(b"no database" * 100)
    else:
        with sqlite3.connect(new_file(path)) as db:
            db.execute("UPDATE done SET reading='[]'")
        db.close()
    build(path, library, [str(program.man)])
    assert whole_contents(path) == fresh_contents(program, library)


def test_a_look_up_after_a_kill_has_the_rest_made(program: Program) -> None:
    many_pages(program)
    program.run("find", "dig")
    wait_until_whole(program)
    index = index_file(program)
    heads = program.folder / "heads"
    build(
        index_path(str(heads)),
        Settings(str(heads), "", "", str(program.man), []),
        [str(program.man)],
        depth=Depth.HEADS,
    )
    index.write_bytes(Path(index_path(str(heads))).read_bytes())
    assert depth(program) == Depth.HEADS and not is_at_work(str(index))
    assert program.run("find", "dig").stderr.startswith(f"dowsing: {UNFINISHED}")
    wait_until_whole(program)


def test_a_rest_that_cannot_be_made_is_told_and_not_begun_again(program: Program) -> None:
    many_pages(program)
    program.run("find", "dig")
    wait_until_whole(program)
    index = index_file(program)
    heads = Settings(str(program.folder), "", "", str(program.man), [])
    build(str(index), heads, [str(program.man)], depth=Depth.HEADS)
    failed = Path(f"{index}.failed")
    failed.write_text("the disk\x1b[31m is full")
    says = (
        "dowsing: so far the index has names and summaries; the rest could not be made "
        "(the disk?[31m is full): dowsing index tries again\n"
    )
    assert program.run("find", "dig").stderr == says
    assert not is_at_work(str(index)) and depth(program) == Depth.HEADS
    os.utime(failed, (time.time() - 4000,) * 2)
    assert program.run("find", "dig").stderr.startswith(f"dowsing: {UNFINISHED}")
    wait_until_whole(program)
    assert not failed.exists()


@pytest.mark.parametrize("after", [0.02, 0.1, 0.25, 0.5])
def test_killed_at_any_moment(program: Program, after: float) -> None:
    many_pages(program)
    run = subprocess.Popen(
        [os.path.join(os.path.dirname(sys.executable), "dowsing"), "index"],
        env=program.environment(),
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
        start_new_session=True,
    )
    time.sleep(after)
    os.killpg(run.pid, signal.SIGKILL)
    run.wait()
    assert program.run("index").returncode == 0
    assert names(program, "dig", "bed", "number", "77")[0] == "trowel77"
    assert [one.name for one in program.cache.iterdir() if ".new" in one.name] == []


def test_what_is_kept_of_a_page_comes_back(program: Program) -> None:
    path = program.page(
        "hoe.1",
        page("hoe", "weed the beds") + ".SH EXAMPLES\n.TP\nWeed the third bed:\n.B hoe \\-k 3\n"
        ".SH SEE ALSO\n.BR rake (1)\n",
    )
    read = read_for_index((0, str(path), "hoe", "1", False))
    assert read.examples and read.references == ["rake(1)"] and read.terms
    kept = unpacked(packed(read))
    assert kept == read._replace(text="", options="", command=b"", card=b"", defined=[])
    problem = Reading(7, [], "", False, "", problem="it is a folder")
    assert unpacked(packed(problem)) == problem


def test_progress_is_told_beside_the_index(tmp_path: Path) -> None:
    path = str(tmp_path / "index.sqlite")
    (tmp_path / "index.sqlite.work").mkdir()
    for text, says in (
        ("12 300", (12, 300)),
        ("0 1", (0, 1)),
        ("301 300", None),
        ("3 0", None),
        ("many", None),
        ("", None),
    ):
        (tmp_path / "index.sqlite.work" / "progress").write_text(text)
        assert progress_of(path) == says, text
    (tmp_path / "index.sqlite.work" / "progress").unlink()
    assert progress_of(path) is None


# --- one index for all folders
# ------------------------------------------------------------------------------


@pytest.fixture
def other(program: Program) -> Path:
    """A second manual folder."""
    program.page("trowel.1", page("trowel", "dig here"))
    program.page("rake.1", page("rake", "comb the soil"))
    folder = program.folder / "other" / "man"
    (folder / "man1").mkdir(parents=True)
    (folder / "man1" / "trowel.1").write_text(page("trowel", "dig elsewhere"))
    (folder / "man1" / "sieve.1").write_text(page("sieve", "part soil from stones"))
    return folder


def summaries(program: Program, name: str, *folders: Path) -> list[str]:
    path = os.pathsep.join(map(str, folders))
    found = json.loads(program.run("find", name, "--format", "json", MANPATH=path).stdout)
    return [one["summary"] for one in found["entries"] if one["name"] == name]


def test_a_look_up_sees_the_folders_that_apply(program: Program, other: Path) -> None:
    man = program.man
    for _ in range(2):  # each way is there once more when the others have been in use
        assert summaries(program, "trowel", man) == ["dig here"]
        assert summaries(program, "sieve", man) == []
        assert summaries(program, "trowel", man, other) == ["dig here"]
        assert summaries(program, "sieve", man, other) == ["part soil from stones"]
        assert summaries(program, "trowel", other, man) == ["dig elsewhere"]
        assert summaries(program, "trowel", other) == ["dig elsewhere"]
        assert summaries(program, "rake", other) == []
    assert len(list(program.cache.glob("*.sqlite"))) == 1


def test_what_does_not_apply_is_nowhere(program: Program, other: Path) -> None:
    both = f"{program.man}{os.pathsep}{other}"
    assert program.out("sieve", MANPATH=both).startswith("sieve(1)  part soil from stones\n")
    for arguments in (["sieve"], ["read", "sieve"], ["near", "sieve"], ["options", "sieve"]):
        done = program.run(*arguments)
        assert "stones" not in done.stdout, arguments
        assert done.returncode == 1, arguments
    assert names(program, "*") == ["rake", "trowel"]
    assert names(program, "s?eve", MANPATH=both) == ["sieve"]
    assert names(program, "stones", MANPATH=both) == ["sieve"]
    assert "sieve" not in program.run("find", "stones").stdout
    assert (
        "sieve"
        in program.run("siev", MANPATH=both).stdout + program.run("siev", MANPATH=both).stderr
    )
    assert "sieve" not in program.run("siev").stdout + program.run("siev").stderr


def test_one_more_folder_is_taken_up_alone(program: Program, other: Path) -> None:
    program.out("find", "trowel")
    store = Store(str(index_file(program)))
    before = {row[0]: row[1] for row in store.rows("SELECT path, id FROM entries")}
    built = store.built
    store.close()
    both = f"{program.man}{os.pathsep}{other}"
    program.out("find", "trowel", MANPATH=both)
    store = Store(str(index_file(program)))
    after = {row[0]: row[1] for row in store.rows("SELECT path, id FROM entries")}
    assert {path: after[path] for path in before} == before, "these were left as they were"
    assert {Path(path).name for path in set(after) - set(before)} == {"sieve.1", "trowel.1"}
    assert (store.built, store.pages) == (built, 4)
    assert store.roots == [str(program.man), str(other)]
    store.close()


def test_changes_are_taken_up_where_they_apply(program: Program, other: Path) -> None:
    both = f"{program.man}{os.pathsep}{other}"
    program.out("find", "trowel", MANPATH=both)
    (other / "man1" / "sieve.1").unlink()
    (other / "man1" / "spade.1").write_text(page("spade", "dig deep"))
    assert names(program, "*") == ["rake", "trowel"]
    assert names(program, "*", MANPATH=both) == ["rake", "spade", "trowel"]
    program.page("spade.1", page("spade", "dig deeper"))
    assert summaries(program, "spade", program.man) == ["dig deeper"]
    assert summaries(program, "spade", program.man, other) == ["dig deeper"]
    assert summaries(program, "spade", other, program.man) == ["dig deep"]
    (program.man / "man1" / "spade.1").unlink()
    assert summaries(program, "spade", program.man, other) == ["dig deep"]
    assert summaries(program, "spade", program.man) == []


def test_a_folder_that_is_no_more_is_dropped(program: Program, other: Path) -> None:
    both = f"{program.man}{os.pathsep}{other}"
    program.out("find", "trowel", MANPATH=both)
    for file in (other / "man1").iterdir():
        file.unlink()
    (other / "man1").rmdir()
    other.rmdir()
    program.page("hoe.1", page("hoe"))  # the next time that something is taken up
    assert names(program, "*") == ["hoe", "rake", "trowel"]
    store = Store(str(index_file(program)))
    assert store.roots == [str(program.man), ""]
    assert store.rows("SELECT count(*) FROM files")[0][0] == 3
    store.close()
    other.mkdir()
    (other / "man1").mkdir()
    (other / "man1" / "sieve.1").write_text(page("sieve", "back again"))
    assert summaries(program, "sieve", program.man, other) == ["back again"]


def test_a_link_into_another_manual_folder(program: Program, other: Path) -> None:
    program.out("find", "trowel")
    (other / "man1" / "comb.1").symlink_to(program.man / "man1" / "rake.1")
    both = f"{program.man}{os.pathsep}{other}"
    assert program.out("comb", MANPATH=both).startswith("rake(1)  comb the soil\n")
    assert program.out("rake", MANPATH=both).startswith("rake(1)  comb the soil\n")
    assert program.out("rake").startswith("rake(1)  comb the soil\n")


def test_a_new_build_has_the_folders_of_other_terminals(program: Program, other: Path) -> None:
    both = f"{program.man}{os.pathsep}{other}"
    program.out("find", "trowel", MANPATH=both)
    assert program.run("index", "--rebuild").returncode == 0
    store = Store(str(index_file(program)))
    assert store.roots == [str(program.man), str(other)]
    store.close()
    assert names(program, "*") == ["rake", "trowel"]
    assert names(program, "*", MANPATH=both) == ["rake", "sieve", "trowel"]


def test_index_tells_how_far_the_one_in_the_background_is(
    library: Settings, program: Program, monkeypatch: pytest.MonkeyPatch
) -> None:
    from dowsing.ingest import upkeep
    from dowsing.ingest.locks import Work, alone

    path = index_path(str(program.cache), library.indexed_too)
    told: list[tuple[int, int]] = []
    program.cache.mkdir(exist_ok=True)
    with alone(path, Work.UPKEEP):
        os.makedirs(work_folder(path))
        (Path(work_folder(path)) / "progress").write_text("12 160")
        calls: list[float] = []

        def waited(seconds: float) -> None:
            calls.append(seconds)
            if len(calls) == 3:
                monkeypatch.setattr(upkeep, "is_at_work", lambda *_: False)

        monkeypatch.setattr(upkeep.time, "sleep", waited)
        upkeep._watch(path, lambda done, total: told.append((done, total)))
    assert told == [(12, 160)] * 3
