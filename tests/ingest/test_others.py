"""What the index holds besides pages, and how it stays in step with shells, PATH and Info
folders.
"""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from dowsing.index.index_file import index_path
from dowsing.index.store import Store
from dowsing.ingest.build import build
from dowsing.ingest.changes import changed_folders
from dowsing.ingest.upkeep import bring_up_to_date, open_index
from dowsing.machine.settings import Settings
from dowsing.model.entry import InfoPlace

SOD = (
    "#!/bin/sh\ncase $1 in\nnames) printf 'dib\\tbuiltin\\tDig a hole\\n' ;;\nhelp) echo 'dib: "
    "dib [-d]' ;;\nesac\n"
)
HOUR = 3_600_000_000_000  # ns
NODE = "\x1f\nFile: knots.info,  Node: Top,  Up: (dir)\n\nKnots\n*****\n\nText.\n"


def program(path: Path, text: str = "#!/bin/sh\n") -> Path:
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_text(text)
    path.chmod(0o755)
    return path


@pytest.fixture
def settings(tmp_path: Path) -> Settings:
    (tmp_path / "man" / "man1").mkdir(parents=True)
    (tmp_path / "man" / "man1" / "tie.1").write_text(
        ".TH T 1\n.SH NAME\ntie \\- fasten\n.SH D\nx\n"
    )
    program(tmp_path / "bin" / "tie")
    program(tmp_path / "bin" / "sod", SOD)
    (tmp_path / "info").mkdir()
    (tmp_path / "info" / "knots.info").write_text(NODE)
    (tmp_path / "info" / "dir").write_text(
        "* Menu:\n\n* lash: (knots)Top.   Lash.\n* gone: (other)Top.  x\n* odd: (knots)No.  x\n"
    )
    for path in tmp_path.rglob("*"):
        long_ago(path)
    return Settings(
        str(tmp_path / "cache"),
        "",
        "",
        str(tmp_path / "man"),
        [str(tmp_path / "bin")],
        info_path=str(tmp_path / "info"),
        package_lists=str(tmp_path / "dpkg"),
        shells={
            "sod": {
                "path": str(tmp_path / "bin" / "sod"),
                "list": ["names"],
                "help": ["help", "{name}"],
            }
        },
    )


@pytest.fixture
def store(settings: Settings) -> Store:
    roots = [str(settings.man_path)]
    build(index_path(settings.cache, settings.indexed_too), settings, roots)
    return open_index(settings)[0]


def refresh(settings: Settings, store: Store) -> None:
    """Have what changed be taken up, and the store be that of the new file."""
    bring_up_to_date(settings)
    store.close()
    store.__init__(store.path)


def named(store: Store, name: str) -> list[tuple[str, str, str]]:
    return [(entry.label, entry.kind, entry.summary) for entry in store.named(name)]


def long_ago(path: Path) -> None:
    """Give the file or folder another time, an hour before the one it has: one within the step of
    the clock around now would count as never seen.
    """
    stamp = path.stat().st_mtime_ns - HOUR
    os.utime(path, ns=(stamp, stamp))


def test_builtins_and_commands_without_a_page(store: Store) -> None:
    assert named(store, "dib") == [("dib(builtin)", "builtin", "Dig a hole")]
    assert named(store, "sod") == [("sod", "command", "no manual page")]
    assert named(store, "tie") == [("tie(1)", "command", "fasten")]
    assert [store.named(name)[0].sources for name in ("dib", "sod", "tie")] == [
        ["builtin"],
        [],
        ["manual"],
    ]
    assert store.shells() == ["sod"]
    assert [(row.shell, row.text) for row in store.in_shells("dib")] == [("sod", "dib: dib [-d]")]
    assert [match.name for match in store.in_bodies(["hole"])] == ["dib"]
    assert (store.named("dib")[0].verbs, store.named("dib")[0].nouns) == (["dig"], ["hole"])


def test_nodes_of_info_manuals(store: Store, settings: Settings) -> None:
    assert store.info_places("knots") == [
        InfoPlace(f"{settings.info_path}/knots.info", "knots", "Top")
    ]
    assert [place.node for place in store.info_places("lash")] == [
        "Top"
    ]  # the folder's directory file says so
    assert (
        store.info_places("nothing") == store.info_places("gone") == store.info_places("odd") == []
    )


def test_nothing_changed(store: Store, settings: Settings) -> None:
    changes = changed_folders(store, settings, [str(settings.man_path)])
    assert (changes.manual, changes.others) == ([], [])


def test_a_command_comes_and_goes(store: Store, settings: Settings, tmp_path: Path) -> None:
    new = program(tmp_path / "bin" / "untie")
    long_ago(tmp_path / "bin")
    refresh(settings, store)
    assert named(store, "untie") == [("untie", "command", "no manual page")]
    new.unlink()
    long_ago(tmp_path / "bin")
    refresh(settings, store)
    assert named(store, "untie") == []
    assert [match.name for match in store.matching_names("*")].count("sod") == 1


def test_a_page_for_a_command_that_had_none(
    store: Store, settings: Settings, tmp_path: Path
) -> None:
    (tmp_path / "man" / "man1" / "sod.1").write_text(
        ".TH S 1\n.SH NAME\nsod \\- a shell\n.SH D\nx\n"
    )
    long_ago(tmp_path / "man" / "man1")
    refresh(settings, store)
    assert named(store, "sod") == [("sod(1)", "command", "a shell")]


def test_a_refresh_ends_where_a_build_does(settings: Settings, tmp_path: Path) -> None:
    program(tmp_path / "bin" / "dib")  # a program without a page that has a builtin's name
    roots = [str(settings.man_path)]
    build(index_path(settings.cache, settings.indexed_too), settings, roots)
    built = open_index(settings)[0]
    before = sorted(entry.label for entry in built.entries([m.number for m in built.all_matches()]))
    for folder in ("bin", "info", "man/man1", "bin/sod"):
        long_ago(tmp_path / folder)
    refresh(settings, built)
    assert (
        sorted(entry.label for entry in built.entries([m.number for m in built.all_matches()]))
        == before
    )
    assert before == ["dib", "dib(builtin)", "knots", "sod", "tie(1)"]


def test_only_what_changed_is_asked_anew(
    store: Store, settings: Settings, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[str] = []
    monkeypatch.setattr("dowsing.ingest.non_pages._take_shells", lambda *_: asked.append("shells"))
    monkeypatch.setattr("dowsing.ingest.non_pages._take_info", lambda *_: asked.append("info"))
    program(tmp_path / "bin" / "untie")
    long_ago(tmp_path / "bin")
    refresh(settings, store)
    assert asked == []
    long_ago(tmp_path / "info")
    refresh(settings, store)
    assert asked == ["info"]
    long_ago(tmp_path / "bin" / "sod")
    refresh(settings, store)
    assert asked == ["info", "shells"]


def test_another_path_adds_its_folders(store: Store, settings: Settings, tmp_path: Path) -> None:
    program(tmp_path / "sbin" / "lash")
    long_ago(tmp_path / "sbin")  # what is younger than the clock's step is looked at once more
    wider = Settings(
        **{
            **vars(settings),
            "search_path": [*settings.search_path, str(tmp_path / "sbin"), "bin", ""],
        }
    )
    refresh(wider, store)
    assert named(store, "lash") == [("lash", "command", "no manual page")]
    assert changed_folders(store, wider, [str(settings.man_path)]).others == []
    assert changed_folders(store, settings, [str(settings.man_path)]).others == []


def test_what_could_not_be_taken_up_is_told_and_forgotten(
    store: Store, settings: Settings, tmp_path: Path
) -> None:
    (tmp_path / "info" / "noise.info").write_text("noise")
    program(tmp_path / "bin" / "sod", "#!/bin/sh\nkill -9 $$\n")
    long_ago(tmp_path / "info")
    long_ago(tmp_path / "bin" / "sod")
    refresh(settings, store)
    assert sorted(os.path.basename(problem.path) for problem in store.problems()) == [
        "noise.info",
        "sod",
    ]
    (tmp_path / "man" / "man1" / "new.1").write_text(".TH T 1\n.SH NAME\nnew \\- x\n.SH D\nx\n")
    long_ago(tmp_path / "man" / "man1")
    refresh(settings, store)
    assert len(store.problems()) == 2
    (tmp_path / "info" / "noise.info").unlink()
    program(tmp_path / "bin" / "sod", SOD)
    long_ago(tmp_path / "info")
    long_ago(tmp_path / "bin" / "sod")
    refresh(settings, store)
    assert store.problems() == []
