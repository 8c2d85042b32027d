"""How SQLite goes about the statements of a look-up: none reads a whole table of entries or names,
whatever manual folders are in use.
"""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from dowsing.index.command_rows import card_facts, command_table, commands_beginning, subcommands_of
from dowsing.index.index_file import index_path
from dowsing.index.orders import narrow
from dowsing.index.store import Store
from dowsing.ingest.build import build
from dowsing.machine.settings import Settings
from dowsing.search.searching import make_query, search

LARGE = ("entries", "names", "files", "said", "bodies", "options", "cards", "postings")


def page(name: str, summary: str) -> str:
    return f".TH X 1\n.SH NAME\n{name} \\- {summary}\n.SH D\nx\n"


@pytest.fixture(scope="module")
def stores(tmp_path_factory: pytest.TempPathFactory) -> dict[str, Store]:
    """An index of three manual folders, two of which have a page in common: as it was made, without
    one of them, in another order, and in that order once it is kept.
    """
    root = tmp_path_factory.mktemp("plans")
    folders = [str(root / name / "man") for name in ("one", "two", "three")]
    for folder in folders:
        (Path(folder) / "man1").mkdir(parents=True)
    for n in range(30):
        (Path(folders[0]) / "man1" / f"tie{n}.1").write_text(page(f"tie{n}", f"fasten rope {n}"))
    (Path(folders[1]) / "man1" / "tie3.1").write_text(page("tie3", "fasten otherwise"))
    (Path(folders[2]) / "man1" / "rill.1").write_text(page("rill", "water beds"))
    settings = Settings(str(root / "cache"), "", "", "", [], info_path=str(root / "none"))
    path = index_path(settings.cache, settings.indexed_too)
    build(path, settings, folders)
    found = {"all": Store(path), "fewer": Store(path), "another order": Store(path)}
    assert narrow(found["all"], folders)
    assert narrow(found["fewer"], folders[:1])
    assert not narrow(found["another order"], [folders[1], folders[0], folders[2]])
    return found


def statements(store: Store) -> list[str]:
    """What is asked by look-ups of names and words."""
    asked: list[str] = []
    store.db.set_trace_callback(asked.append)
    search(store, make_query(["fasten", "rope"], 10))
    store.named("tie3")
    store.hidden()
    commands_beginning(store, "tie", 5)
    subcommands_of(store, "tie3")
    for entry in store.named("tie3"):
        card_facts(store, entry.path)
        command_table(store, entry.path)
    store.db.set_trace_callback(None)
    return [sql for sql in asked if sql.lstrip().upper().startswith("SELECT")]


@pytest.mark.parametrize("way", ["all", "fewer", "another order"])
def test_no_look_up_reads_a_whole_table(stores: dict[str, Store], way: str) -> None:
    store = stores[way]
    asked = statements(store)
    assert len(asked) > 10
    for sql in asked:
        names = dict(re.findall(r"(\w+) (?:AS )?(\b[a-z]\b)", sql))  # aliases by their tables
        for row in store.db.execute(f"EXPLAIN QUERY PLAN {sql}"):
            says = str(row[3])
            scanned = re.match(r"SCAN (\w+)(?! VIRTUAL)(?!.*USING (?:COVERING )?INDEX)", says)
            if scanned:
                table = next((t for t, a in names.items() if a == scanned[1]), scanned[1])
                assert table not in LARGE, f"{says}: {sql}"
        assert "EXCEPT" not in sql and "count(*)" not in sql


def test_each_order_shows_its_own(stores: dict[str, Store]) -> None:
    assert stores["all"].named("tie3")[0].summary == "fasten rope 3"
    assert [one.summary for one in stores["fewer"].named("tie3")] == ["fasten rope 3"]
    assert stores["another order"].named("tie3")[0].summary == "fasten otherwise"
    assert stores["fewer"].named("rill") == []
    shown = {
        way: {hit.entry.summary for hit in search(store, make_query(["fasten"], 99)).hits}
        for way, store in stores.items()
    }
    assert "fasten rope 3" in shown["all"] and "fasten otherwise" not in shown["all"]
    assert "fasten otherwise" in shown["another order"]
    assert "fasten rope 3" not in shown["another order"]
    assert len(shown["fewer"]) == 30
    assert stores["fewer"].pages == 30 and stores["all"].pages == 32
