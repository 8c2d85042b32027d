"""The index file: what is asked of it, and keeping it in step."""

from __future__ import annotations

import os
import sqlite3
from pathlib import Path

import pytest

from dowsing.index.schema import HEADS, VERSION
from dowsing.index.store import Store, index_path, match_expression
from dowsing.index.word_reader import postings
from dowsing.index.writer import IndexWriter
from dowsing.ingest.build import build
from dowsing.ingest.refresh import (
    Changes,
    changed_folders,
    open_index,
    refresh,
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
    assert refresh(settings, store, [str(root)]) == 0


def test_changes_are_taken_up(store: Store, settings: Settings, root: Path) -> None:
    (root / "man1" / "splice.1").write_text(page("splice", "join two ropes"))
    (root / "man1" / "tie.1").unlink()
    assert changed_folders(store, settings, [str(root)]) == Changes([str(root / "man1")], [])
    assert refresh(settings, store, [str(root)]) == 2
    assert names_of(store, store.matching_names("*")) == ["splice(1)", "tie(3pm)", "untie(1)"]
    assert having(store, "rope") == ["splice(1)", "untie(1)"]
    assert labels(store.named("hitch")) == []
    assert refresh(settings, store, [str(root)]) == 0


def test_a_new_section_folder_and_a_lost_one(store: Store, settings: Settings, root: Path) -> None:
    (root / "man7").mkdir()
    (root / "man7" / "rope.7").write_text(page("rope", "about ropes"))
    (root / "man3" / "tie.3pm").unlink()
    (root / "man3").rmdir()
    assert refresh(settings, store, [str(root)]) == 2
    assert names_of(store, store.matching_names("*")) == ["rope(7)", "tie(1)", "untie(1)"]


def test_a_link_that_is_added_and_taken_away(store: Store, settings: Settings, root: Path) -> None:
    link = root / "man1" / "lash.1"
    link.symlink_to("tie.1")
    refresh(settings, store, [str(root)])
    assert labels(store.named("lash")) == ["tie(1)"]
    assert labels(store.named("tie", "1")) == ["tie(1)"]
    link.unlink()
    refresh(settings, store, [str(root)])
    assert labels(store.named("lash")) == []
    assert labels(store.named("tie", "1")) == ["tie(1)"]


def test_a_page_that_only_refers_to_another_comes_and_stays(
    store: Store, settings: Settings, root: Path
) -> None:
    (root / "man1" / "lash.1").write_text(".so man1/tie.1\n")
    refresh(settings, store, [str(root)])
    assert labels(store.named("lash")) == ["tie(1)"]
    assert labels(store.named("tie", "1")) == ["tie(1)"]
    (root / "man1" / "bind.1").symlink_to("tie.1")
    refresh(settings, store, [str(root)])
    assert sorted(store.named("tie", "1")[0].aliases) == ["bind", "hitch", "lash"]
    (root / "man1" / "lash.1").unlink()
    refresh(settings, store, [str(root)])
    assert sorted(store.named("tie", "1")[0].aliases) == ["bind", "hitch"]
    assert names_of(store, store.matching_names("*")) == ["tie(1)", "tie(3pm)", "untie(1)"]


def test_many_changes_ask_for_a_new_build(
    store: Store, settings: Settings, root: Path, monkeypatch
) -> None:
    monkeypatch.setattr("dowsing.ingest.taking_up.MOST_CHANGES", 2)
    for n in range(3):
        (root / "man1" / f"n{n}.1").write_text(page(f"n{n}"))
    assert refresh(settings, store, [str(root)]) is None
    with pytest.raises(Unusable, match="many pages came or went"):
        open_index(settings)


def test_an_index_that_cannot_be_written_is_still_read(
    store: Store, settings: Settings, root: Path, monkeypatch
) -> None:
    (root / "man1" / "new.1").write_text(page("new"))

    class NoWriting(Store):
        def __init__(self, path: str, writable: bool = False) -> None:
            raise Unusable("read-only")

    monkeypatch.setattr("dowsing.index.writer.Store", NoWriting)
    assert refresh(settings, store, [str(root)]) == 0
    assert labels(store.named("untie")) == ["untie(1)"]


def test_what_is_not_usual_has_another_index() -> None:
    assert index_path("/c") == index_path("/c", []) == "/c/index.sqlite"
    assert index_path("/c", ["demo"]) == "/c/index-aefd3536.sqlite"
    assert index_path("/c", ["demo"]) != index_path("/c", ["/info", "demo"])


def test_what_is_no_index(tmp_path: Path) -> None:
    with pytest.raises(Unusable, match="there is no index yet"):
        Store(str(tmp_path / "none"))
    (tmp_path / "noise").write_bytes(b"noise" * 1000)
    with pytest.raises(Unusable, match="the index is damaged"):
        Store(str(tmp_path / "noise"))


def test_only_the_newest_indexes_are_kept(tmp_path: Path) -> None:
    for n in range(9):
        file = tmp_path / f"index-{n:08x}.sqlite"
        IndexWriter.new(str(file)).close()
        with sqlite3.connect(file) as db:
            version = VERSION if n != 7 else VERSION - 1  # cannot be read any more
            db.execute("INSERT INTO meta VALUES('version', ?)", (str(version),))
        db.close()
        (tmp_path / f"index-{n:08x}.sqlite.lock").write_text("")
        os.utime(file, (n, n))
    remove_old_indexes(str(tmp_path))
    assert sorted(p.name[6:14] for p in tmp_path.glob("*.sqlite")) == [
        f"{n:08x}" for n in (3, 4, 5, 6, 8)
    ]


def test_a_folder_that_cannot_be_made(tmp_path: Path, settings: Settings, root: Path) -> None:
    (tmp_path / "file").write_text("")
    with pytest.raises(CannotBuild, match="cannot be made"):
        build(str(tmp_path / "file" / "cache" / "index.sqlite"), settings, [str(root)])
