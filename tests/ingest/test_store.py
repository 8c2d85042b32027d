"""The index file: what is asked of it, and keeping it in step."""

from __future__ import annotations

import os
import sqlite3
import time
from pathlib import Path

import pytest

from dowsing.index.index_file import damage_of, index_path
from dowsing.index.schema import HEADS, VERSION, Meta
from dowsing.index.store import Store, match_expression
from dowsing.index.word_reader import postings
from dowsing.ingest.build import build
from dowsing.ingest.changes import Changes, changed_folders
from dowsing.ingest.page_reading import read_for_index
from dowsing.ingest.progress_file import failure_of
from dowsing.ingest.upkeep import (
    bring_up_to_date,
    made_at,
    open_as_it_is,
    open_index,
    remove_old_indexes,
)
from dowsing.machine.settings import Settings
from dowsing.model.errors import CannotBuild, Unusable


def page(name: str, summary: str = "a thing", text: str = "x") -> str:
    return f".TH X 1\n.SH NAME\n{name} \\- {summary}\n.SH D\n{text}\n"


@pytest.fixture
def root(tmp_path: Path) -> Path:
    folder = tmp_path / "man" / "man1"
    folder.mkdir(parents=True)
    (folder / "tie.1").write_text(page("tie, hitch", "fasten a rope", "knots and bends"))
    (folder / "untie.1").write_text(page("untie", "loosen a rope"))
    (tmp_path / "man" / "man3").mkdir()
    (tmp_path / "man" / "man3" / "tie.3pm").write_text(page("tie", "fasten from a program"))
    return tmp_path / "man"


@pytest.fixture
def settings(root: Path) -> Settings:
    return Settings(str(root.parent / "cache"), "", "", str(root), [], info_path=str(root / "none"))


@pytest.fixture
def store(settings: Settings, root: Path) -> Store:
    build(index_path(settings.cache, settings.indexed_too), settings, [str(root)])
    return open_index(settings)[0]


def refresh(settings: Settings, store: Store) -> None:
    """Have what changed be taken up, and the store be that of the new file."""
    bring_up_to_date(settings)
    store.close()
    store.__init__(store.path)


def labels(entries: list) -> list[str]:
    return [entry.label for entry in entries]


def names_of(store: Store, matches: list) -> list[str]:
    return sorted(labels(store.entries([match.number for match in matches])))


def having(store: Store, term: str) -> list[str]:
    """The shown entries whose names or summaries have the term."""
    numbers = {
        n for posting in postings(store, [term]) if posting.part == HEADS for n in posting.entries
    }
    return sorted(labels(store.entries(sorted(numbers - store.hidden()))))


def test_entries_by_name(store: Store) -> None:
    assert labels(store.named("tie")) == ["tie(1)", "tie(3pm)"]
    assert labels(store.named("TIE")) == ["tie(1)", "tie(3pm)"]
    assert labels(store.named("hitch")) == ["tie(1)"]
    assert labels(store.named("tie", "3")) == ["tie(3pm)"]
    assert labels(store.named("tie", "5")) == []
    assert store.named("hitch")[0].aliases == ["hitch"]


def test_patterns_and_pieces_of_names(store: Store) -> None:
    assert names_of(store, store.matching_names("*tie")) == ["tie(1)", "tie(3pm)", "untie(1)"]
    assert names_of(store, store.matching_names("h?tch")) == ["tie(1)"]
    assert names_of(store, store.matching_names("[tu]*")) == ["tie(1)", "tie(3pm)", "untie(1)"]
    assert names_of(store, store.matching_names("nothing*")) == []
    assert labels(store.entries(store.numbers_holding("nti"))) == ["untie(1)"]
    assert sorted(labels(store.entries(store.numbers_holding("ie")))) == [
        "tie(1)",
        "tie(3pm)",
        "untie(1)",
    ]


def test_words_in_heads_and_bodies(store: Store) -> None:
    assert having(store, "rope") == ["tie(1)", "untie(1)"]
    assert having(store, "fasten") == ["tie(1)", "tie(3pm)"]
    assert names_of(store, store.in_bodies(["knot"])) == ["tie(1)"]
    assert having(store, "zeppelin") == store.in_bodies(["zeppelin"]) == []


def test_words_cannot_break_out_of_the_expression(store: Store) -> None:
    assert match_expression(['a"b', "NEAR"]) == '"a""b"* AND "NEAR"*'
    for words in (['"'], ["*"], ["(", ")"], ["rope", "OR"], ["col:x"], ["-"], ["\x00"], ["☂"]):
        assert isinstance(store.in_bodies(words), list)
        assert isinstance(store.numbers_holding(words[0]), list)


def test_status(store: Store, root: Path) -> None:
    assert store.counts() == {"entries": 3, "info_names": 0, "names": 4, "files": 3, "problems": 0}
    assert store.roots == [str(root)]
    assert set(store.folders()) == {str(root), str(root / "man1"), str(root / "man3")}


def test_nothing_changed_costs_nothing(store: Store, settings: Settings, root: Path) -> None:
    assert changed_folders(store, settings, [str(root)]) == Changes([], [])
    refresh(settings, store)


def test_changes_are_taken_up(store: Store, settings: Settings, root: Path) -> None:
    (root / "man1" / "splice.1").write_text(page("splice", "join two ropes"))
    (root / "man1" / "tie.1").unlink()
    assert changed_folders(store, settings, [str(root)]) == Changes([str(root / "man1")], [])
    refresh(settings, store)
    assert names_of(store, store.matching_names("*")) == ["splice(1)", "tie(3pm)", "untie(1)"]
    assert having(store, "rope") == ["splice(1)", "untie(1)"]
    assert labels(store.named("hitch")) == []
    refresh(settings, store)


def test_a_new_section_folder_and_a_lost_one(store: Store, settings: Settings, root: Path) -> None:
    (root / "man7").mkdir()
    (root / "man7" / "rope.7").write_text(page("rope", "about ropes"))
    (root / "man3" / "tie.3pm").unlink()
    (root / "man3").rmdir()
    refresh(settings, store)
    assert names_of(store, store.matching_names("*")) == ["rope(7)", "tie(1)", "untie(1)"]


def test_a_link_that_is_added_and_taken_away(store: Store, settings: Settings, root: Path) -> None:
    link = root / "man1" / "lash.1"
    link.symlink_to("tie.1")
    refresh(settings, store)
    assert labels(store.named("lash")) == ["tie(1)"]
    assert labels(store.named("tie", "1")) == ["tie(1)"]
    link.unlink()
    refresh(settings, store)
    assert labels(store.named("lash")) == []
    assert labels(store.named("tie", "1")) == ["tie(1)"]


def test_a_page_that_only_refers_to_another_comes_and_stays(
    store: Store, settings: Settings, root: Path
) -> None:
    (root / "man1" / "lash.1").write_text(".so man1/tie.1\n")
    refresh(settings, store)
    assert labels(store.named("lash")) == ["tie(1)"]
    assert labels(store.named("tie", "1")) == ["tie(1)"]
    (root / "man1" / "bind.1").symlink_to("tie.1")
    refresh(settings, store)
    assert sorted(store.named("tie", "1")[0].aliases) == ["bind", "hitch", "lash"]
    (root / "man1" / "lash.1").unlink()
    refresh(settings, store)
    assert sorted(store.named("tie", "1")[0].aliases) == ["bind", "hitch"]
    assert names_of(store, store.matching_names("*")) == ["tie(1)", "tie(3pm)", "untie(1)"]


def test_many_changes_have_the_index_be_made_anew(
    store: Store, settings: Settings, root: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    built = store.meta_value(Meta.BEGUN)
    (root / "man1" / "n9.1").write_text(page("n9"))
    refresh(settings, store)
    assert store.meta_value(Meta.BEGUN) == built, "a copy with one page more"
    monkeypatch.setattr("dowsing.ingest.taking_up.MOST_CHANGES", 2)
    for n in range(3):
        (root / "man1" / f"n{n}.1").write_text(page(f"n{n}"))
    refresh(settings, store)
    assert store.meta_value(Meta.BEGUN) != built
    assert labels(store.named("n2")) == ["n2(1)"]


def test_an_index_that_cannot_be_written_is_still_read(
    store: Store, settings: Settings, root: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    (root / "man1" / "new.1").write_text(page("new"))

    def no_space(*_: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("dowsing.ingest.upkeep.publish", no_space)
    with pytest.raises(CannotBuild, match="the disk is full"):
        bring_up_to_date(settings)
    now, changes = open_as_it_is(settings)
    assert labels(now.named("untie")) == ["untie(1)"]
    assert changes.manual == [str(root / "man1")]
    assert failure_of(store.path) == "the disk is full"


def test_what_is_new_is_found_by_its_name_at_once(
    store: Store, settings: Settings, root: Path
) -> None:
    (root / "man1" / "splice.1").write_text(page("splice", "join two ropes"))
    (root / "man1" / "lash.1").write_text(".so man1/tie.1\n")
    (root / "man1" / "untie.1").unlink()
    other = root / "man1" / "tie.new"
    other.write_text(page("tie", "fasten with care"))
    other.replace(root / "man1" / "tie.1")
    now, changes = open_as_it_is(settings)
    assert changes.manual == [str(root / "man1")]
    assert now.pending is not None and now.pending.count == 3
    (splice,) = now.named("splice")
    assert (splice.label, splice.summary, splice.kind) == ("splice(1)", "join two ropes", "command")
    assert labels(now.named("splice", "5")) == []
    assert labels(now.named("lash")) == ["tie(1)"]
    assert now.named("untie") == []
    path = str(root / "man1" / "tie.1")
    assert now.pending.is_outdated(path) and not now.pending.is_outdated(str(root / "man3/tie.3pm"))
    refresh(settings, store)
    assert sorted(store.named("tie", "1")[0].aliases) == ["lash"]
    assert labels(store.named("splice")) == ["splice(1)"]


def test_what_was_taken_up_is_kept_when_it_is_ended(
    store: Store, settings: Settings, root: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    for n in range(12):
        (root / "man1" / f"knot{n:02}.1").write_text(page(f"knot{n:02}"))
    monkeypatch.setattr("dowsing.ingest.taking_up.PORTION", 4)
    monkeypatch.setattr("dowsing.ingest.upkeep.PUBLISHED_AFTER", -1.0)
    read: list[str] = []

    def interrupted(task):  # type: ignore[no-untyped-def]
        read.append(task[2])
        if len(read) == 23:  # short pages are looked at once more, for they may be references
            raise KeyboardInterrupt
        return read_for_index(task)

    monkeypatch.setattr("dowsing.ingest.taking_up.REFERENCE", 0)
    monkeypatch.setattr("dowsing.ingest.taking_up.read_for_index", interrupted)
    read += [""] * 12
    with pytest.raises(KeyboardInterrupt):
        bring_up_to_date(settings)
    kept = names_of(Store(store.path), Store(store.path).matching_names("knot*"))
    assert kept == [f"knot{n:02}(1)" for n in range(8)]
    monkeypatch.setattr("dowsing.ingest.taking_up.read_for_index", read_for_index)
    refresh(settings, store)
    assert len(store.matching_names("knot*")) == 12
    assert changed_folders(store, settings, [str(root)]).manual == []
    assert sorted(os.listdir(settings.cache)) == [
        os.path.basename(store.path),
        f"{os.path.basename(store.path)}.upkeep",
    ]


def test_a_reader_minds_nothing_beside_the_index(store: Store, settings: Settings) -> None:
    for ending, text in (("-journal", b"\xd9\xd5\x05\xf9 \xa1c\xd7" * 99), ("-wal", b"7" * 999)):
        Path(store.path + ending).write_bytes(text)
    assert labels(Store(store.path).named("untie")) == ["untie(1)"]
    build(store.path, settings, [str(settings.man_path)])
    assert [one for one in os.listdir(settings.cache) if "sqlite-" in one] == []


def test_only_the_sum_or_sqlite_says_that_an_index_is_damaged(store: Store) -> None:
    assert damage_of(store.path) == ""
    with pytest.raises(sqlite3.OperationalError, match="no such table"):
        store.rows("SELECT * FROM nowhere")
    data = bytearray(Path(store.path).read_bytes())
    at = data.index(b"loosen a rope")
    data[at : at + 6] = b"LOOSEN"
    Path(store.path).write_bytes(data)
    assert damage_of(store.path) == "its sum is not right"
    with pytest.raises(Unusable, match="damaged"):
        Store(store.path).rows("SELECT * FROM nowhere")
    Path(store.path).unlink()
    assert damage_of(store.path) == ""


def test_files_of_others_are_no_index(store: Store, tmp_path: Path) -> None:
    path = Path(store.path)
    path.chmod(0o666)
    with pytest.raises(Unusable, match="not a file of your own"):
        Store(store.path)
    path.chmod(0o600)
    path.rename(tmp_path / "elsewhere")
    path.symlink_to(tmp_path / "elsewhere")
    with pytest.raises(Unusable, match="not a file of your own"):
        Store(store.path)


def test_what_is_not_usual_has_another_index() -> None:
    assert index_path("/c") == index_path("/c", []) == f"/c/index-{VERSION}.sqlite"
    assert index_path("/c", ["demo"]) == f"/c/index-{VERSION}-aefd3536.sqlite"
    assert index_path("/c", ["demo"]) != index_path("/c", ["/info", "demo"])


def test_what_is_no_index(tmp_path: Path) -> None:
    with pytest.raises(Unusable, match="there is no index yet"):
        Store(str(tmp_path / "none"))
    (tmp_path / "noise").write_bytes(b"noise" * 1000)
    with pytest.raises(Unusable, match="the index is damaged"):
        Store(str(tmp_path / "noise"))


def test_old_indexes_go_with_what_belongs_to_them(tmp_path: Path) -> None:
    now = time.time()
    for n in range(9):
        file = tmp_path / f"index-{VERSION}-{n:08x}.sqlite"
        file.write_text("")
        (tmp_path / f"{file.name}.lock").write_text("")
        (tmp_path / f"{file.name}.work").mkdir()
        os.utime(file, (n, n))
    # of other layouts: what another version of the program uses stays
    for name, days in (("index.sqlite", 31), ("index-7.sqlite", 29), ("index-77.sqlite", 31)):
        (tmp_path / name).write_text("")
        os.utime(tmp_path / name, (now - days * 86400,) * 2)
    (tmp_path / "index.sqlite-journal").write_text("")
    remove_old_indexes(str(tmp_path))
    left = [f"index-{VERSION}-{n:08x}.sqlite" for n in range(3, 9)]
    assert sorted(p.name for p in tmp_path.iterdir()) == sorted(
        ["index-7.sqlite", *left, *(f"{one}.{end}" for one in left for end in ("lock", "work"))]
    )


def test_a_folder_that_cannot_be_made(tmp_path: Path, settings: Settings, root: Path) -> None:
    (tmp_path / "file").write_text("")
    with pytest.raises(CannotBuild, match="cannot be made"):
        build(index_path(str(tmp_path / "file" / "cache")), settings, [str(root)])


def test_an_index_that_is_removed_meanwhile_is_not_put_back(
    store: Store, settings: Settings, root: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    (root / "man1" / "new.1").write_text(page("new"))

    def removing(task):  # type: ignore[no-untyped-def]
        for path in Path(settings.cache).iterdir():
            if path.is_file():
                path.unlink()
        return read_for_index(task)

    monkeypatch.setattr("dowsing.ingest.taking_up.read_for_index", removing)
    with pytest.raises(CannotBuild, match="somebody has removed it meanwhile"):
        bring_up_to_date(settings)
    assert not os.path.exists(store.path) and failure_of(store.path) == ""


def test_what_is_taken_up_meanwhile_does_not_stand_for_a_rebuild(
    store: Store, settings: Settings
) -> None:
    before = made_at(store.path)
    assert before is not None
    time.sleep(1.1)  # it is told in seconds
    (Path(str(settings.man_path)) / "man1" / "new.1").write_text(page("new"))
    bring_up_to_date(settings)
    assert made_at(store.path) == before
    bring_up_to_date(settings, anew=True)
    assert made_at(store.path) > before
