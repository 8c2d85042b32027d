"""Entries by what they do and to what, on a little index of their own."""

from __future__ import annotations

import pytest
from conftest import Make

from dowsing.index.store import Store
from dowsing.index.writer import IndexWriter
from dowsing.render.search_words import relaxed_words
from dowsing.search.doing import LITERAL, OF_NOUN, OF_VERB, Doings
from dowsing.search.filters import Filters, unknown_value
from dowsing.search.related import alike, siblings
from dowsing.search.searching import make_query, search

PAGES = {
    "rake.1": "remove files",
    "hoe.1": "sort and remove words",
    "peel.1": "delete the files of a user",
    "sweep.1": "compress and remove temporary files",
    "twig.1": "remove lines with a password",
    "thorn.5": "format of passwords",
    "bed-dig.1": "dig a bed",
    "bed-sow.1": "sow a bed",
    "bed_row_add.1": "add a row",
    "bed_row_drop.1": "remove a row",
    "bed.1": "keep beds",
}


@pytest.fixture
def store(make_store: Make) -> Store:
    return make_store(PAGES)


def found(store: Store, does: str = "", what: str = "", words: str = "") -> list[str]:
    """The labels that filters leave, the best first."""
    query = make_query([words], filters=Filters(does=does, what=what))
    return [hit.entry.label for hit in search(store, query).hits]


def test_the_more_central_a_verb_is_the_better(store: Store) -> None:
    assert found(store, does="remove")[:2] == ["rake(1)", "twig(1)"]
    assert set(found(store, does="remove")) == {
        "rake(1)", "hoe(1)", "peel(1)", "sweep(1)", "twig(1)", "bed_row_drop(1)",
    }  # fmt: skip
    assert found(store, does="remove", what="file")[0] == "rake(1)"
    # a word of the group means all of it, and what has the very word comes first
    assert found(store, "delete", "files")[0] == "peel(1)"
    assert set(found(store, "delete", "files")) == set(found(store, "remove", "file"))


def test_what_each_gets(store: Store) -> None:
    worth = {
        store.entries([number])[0].name: value
        for number, value in Doings(store, "remove", "file").found().items()
    }
    assert worth["rake"] == OF_VERB + OF_NOUN + 2 * LITERAL
    assert worth["peel"] == OF_VERB + OF_NOUN + LITERAL  # `delete` is of the group alone
    assert "hoe" not in worth


def test_a_noun_of_several_words_is_its_last_one(store: Store) -> None:
    assert found(store, does="remove", what="temporary file")[0] == "sweep(1)"


def test_entries_that_only_speak_of_the_noun_are_told_to_do_so(store: Store) -> None:
    answer = search(store, make_query([], filters=Filters(does="remove", what="password")))
    assert [hit.entry.label for hit in answer.hits] == ["twig(1)"]
    assert relaxed_words(answer) == ("few act on password; those that speak of it are listed too")


def test_values_that_no_entry_has(store: Store) -> None:
    assert unknown_value(store, Filters(does="remvoe")) == (
        "verb",
        "remvoe",
        ["remove", "remover", "revoke"],
    )
    assert unknown_value(store, Filters(does="delete", what="file", section="1")) is None
    assert unknown_value(store, Filters(family="bde")) == ("family", "bde", ["bed"])
    assert unknown_value(store, Filters(does="rem*")) is None


def test_a_family_can_be_left_out(store: Store) -> None:
    query = make_query(["dig"], filters=Filters(without="bed"))
    assert [hit.entry.label for hit in search(store, query).hits] == []
    assert Filters(without="bed").described() == "without family bed"


def test_siblings_of_the_same_part_come_first(store: Store) -> None:
    drop = store.named("bed_row_drop")[0]
    assert [one.name for one in siblings(store, drop)][:2] == ["bed_row_add", "bed_row_drop"]


def test_what_does_the_same_to_the_same(store: Store) -> None:
    rake = store.named("rake")[0]
    assert [one.name for one in alike(store, rake)][:1] == ["peel"]
    assert "bed-dig" not in [one.name for one in alike(store, rake)]


def test_what_is_hidden_is_like_nothing(store: Store) -> None:
    [peel] = store.numbers_named(["peel"])
    writer = IndexWriter.opened(store.path)
    writer.hide([peel])
    writer.commit()
    writer.close()
    store = Store(store.path)
    assert peel in store.hidden()
    names = [one.name for one in alike(store, store.named("rake")[0])]
    assert names[:1] == ["sweep"]
    assert "" not in names
