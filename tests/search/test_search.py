"""Search and look-up on a little index of their own."""

from __future__ import annotations

from pathlib import Path

import pytest

from dowsing.index.store import Store
from dowsing.ingest.build import build
from dowsing.machine.settings import Settings
from dowsing.render.search_words import relaxed_words, score_words
from dowsing.search.lookup import look_up, nearest_names
from dowsing.search.searching import make_query, search

PAGES = {
    "pack.1": ("pack", "press files into an archive", "Also named in the text: zipper."),
    "unpack.1": ("unpack", "take files out of an archive", ""),
    "archive.5": ("archive", "format of archives", "What pack writes."),
    "pack.3": ("pack, pack_all", "press a buffer", ""),
    "rope.7": ("rope", "all about ropes", "Files of rope."),
    **{f"kit-{n}.1": (f"kit-{n}", f"wind a rope, {n} times", "") for n in range(8)},
    "kit.1": ("kit", "a box of tools", ""),
}


def settings(root: Path) -> Settings:
    return Settings("", "", "", str(root), [], info_path=str(root / "none"))


@pytest.fixture(scope="module")
def store(tmp_path_factory: pytest.TempPathFactory) -> Store:
    root = tmp_path_factory.mktemp("man")
    for file, (names, summary, text) in PAGES.items():
        folder = root / f"man{file[-1]}"
        folder.mkdir(exist_ok=True)
        (folder / file).write_text(
            f".TH X {file[-1]}\n.SH NAME\n{names} \\- {summary}\n.SH D\n{text or 'x'}\n"
        )
    path = Path(root) / "cache" / "index.sqlite"
    build(str(path), settings(root), [str(root)])
    return Store(str(path))


def found(store: Store, *words: str, limit: int = 20) -> list[str]:
    return [hit.entry.label for hit in search(store, make_query(list(words), limit)).hits]


def test_queries_tell_words_from_patterns() -> None:
    query = make_query(["how do I find", "*zip*", "the file?", "a[bc]d"])
    assert (query.words, query.patterns) == (
        ["how", "do", "i", "find", "the", "file"],
        ["*zip*", "a[bc]d"],
    )
    assert make_query(["the"]).words == ["the"]
    assert make_query(["a-b_c", "a.b"]).words == ["a", "b", "c"]
    assert make_query(["", " "]).words == []
    assert make_query(["?"]).patterns == ["?"]


def test_the_command_comes_before_the_function(store: Store) -> None:
    labels = found(store, "pack")
    assert labels[:2] == ["pack(1)", "pack(3)"]
    assert "unpack(1)" in labels
    assert found(store, "pack", "function")[0] == "pack(3)"


def test_names_before_summaries_before_text(store: Store) -> None:
    labels = found(store, "archive")
    assert labels[0] == "archive(5)"
    assert set(labels[1:3]) == {"pack(1)", "unpack(1)"}
    assert found(store, "zipper") == ["pack(1)"]


def test_a_summary_with_some_of_the_words_comes_before_text_alone(store: Store) -> None:
    answer = search(store, make_query(["archive", "zipper"]), why=True)
    assert [hit.entry.label for hit in answer.hits] == ["pack(1)"]
    assert [reason.split(" (+")[0] for reason in score_words(answer.hits[0].breakdown)[:2]] == [
        "“archive” in its summary and what it does or to what",
        "“zipper” in its first paragraph",
    ]


def test_all_words_are_wanted(store: Store) -> None:
    assert found(store, "files", "archive") == ["pack(1)", "unpack(1)"]
    assert found(store, "take", "archive") == ["unpack(1)"]


def test_words_and_patterns_together(store: Store) -> None:
    assert found(store, "un*", "archive") == ["unpack(1)"]


def test_a_flooding_family_is_folded_unless_it_is_named(store: Store) -> None:
    answer = search(store, make_query(["rope"], limit=4))
    folded = {hit.entry.family: hit.folded for hit in answer.hits if hit.folded}
    assert folded == {"kit": 5}
    assert answer.total == 9
    assert "rope(7)" in [hit.entry.label for hit in answer.hits]
    named = search(store, make_query(["kit", "rope"], limit=4))
    assert [(hit.entry.family, hit.folded) for hit in named.hits] == [("kit", 0)] * 4


def test_loosening(store: Store) -> None:
    answer = search(store, make_query(["archive", "zeppelin", "take"]))
    assert relaxed_words(answer) == "nothing has every word; left out: “zeppelin”"
    assert [hit.entry.label for hit in answer.hits] == ["unpack(1)"]
    either = search(store, make_query(["zipper", "buffer"]))
    assert relaxed_words(either) == "nothing has every word; left out: “zipper”"
    assert [hit.entry.label for hit in either.hits] == ["pack(3)"]
    none = search(store, make_query(["zeppelin"]))
    assert (none.total, none.notes, none.hits) == (0, [], [])


def test_the_limit_is_on_the_list_not_on_the_count(store: Store) -> None:
    answer = search(store, make_query(["*"], limit=2))
    assert (len(answer.hits), answer.total) == (2, len(PAGES))


def test_a_list_may_be_as_long_as_wanted(store: Store) -> None:
    every = search(store, make_query(["*"], limit=100_000))
    assert len(every.hits) == every.total == len(PAGES)
    assert store.candidates(range(200_000)) and len(store.candidates(range(200_000))) == len(PAGES)


def test_look_up(store: Store) -> None:
    pack = look_up(store, ["pack"], settings(Path("/nowhere")))
    assert pack.entry is not None
    assert (pack.entry.label, [entry.label for entry in pack.others]) == ("pack(1)", ["pack(3)"])
    function = look_up(store, ["pack.3"], settings(Path("/nowhere")))
    assert function.entry is not None
    assert (function.entry.label, [entry.label for entry in function.others]) == (
        "pack(3)",
        ["pack(1)"],
    )
    assert look_up(store, ["kit", "3"], settings(Path("/nowhere"))).entry.label == "kit-3(1)"  # type: ignore[union-attr]
    assert look_up(store, ["pack(9)"], settings(Path("/nowhere"))).entry is None


def test_nearest_names(store: Store) -> None:
    assert look_up(store, ["unpakc"], settings(Path("/nowhere"))).nearest[0] == "unpack(1)"
    assert nearest_names(store, "arkive")[0] == "archive(5)"
    assert nearest_names(store, "qqqqqqqq") == []
    assert nearest_names(store, "") == []
