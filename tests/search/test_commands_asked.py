"""Which command people use for what words ask for, by the wordings of recipes."""

from __future__ import annotations

import pytest
from conftest import Make

from dowsing.index.commands_asked import commands_asked
from dowsing.ingest.static_rank import static_rank
from dowsing.knowledge.page_phrases import purposes, special_labels
from dowsing.knowledge.stems import telling_stems
from dowsing.search.filters import Filters
from dowsing.search.matching import Matches, QueryTerm, match, terms_of
from dowsing.search.ranking import Phrase, score
from dowsing.search.searching import make_query, search


def test_the_command_that_recipes_are_of(make_store: Make) -> None:
    store = make_store({"rill.1": "water beds"})
    asked = commands_asked(store, telling_stems("rename a file"))
    assert max(asked, key=asked.__getitem__) == "mv"
    assert asked["mv"] > 0.25 > sorted(asked.values())[-2]
    assert sum(asked.values()) == pytest.approx(1.0)


def test_words_that_no_wording_has_make_it_less_sure(make_store: Make) -> None:
    """One of two words is known: a quarter is left."""
    store = make_store({"rill.1": "water beds"})
    assert sum(commands_asked(store, ["renam", "zzxq"]).values()) == pytest.approx(0.25)
    assert commands_asked(store, ["zzxq"]) == {}


def test_a_command_is_found_by_how_its_recipes_are_asked_for(make_store: Make) -> None:
    """Its page has one of the words; options are never taken for such words."""
    store = make_store({"mv.1": "move things", "rill.1": "give a file to the beds"})
    assert search(store, make_query(["rename a file"])).hits[0].entry.name == "mv"
    why = search(store, make_query(["--rename", "--file"]), True).hits[0].breakdown
    assert why is not None and why.asked == 0.0


def test_a_command_with_recipes_ranks_higher() -> None:
    none = static_rank(1, 0, 0, "")
    assert [static_rank(1, 0, 0, "", count) - none for count in (1, 3, 31, 99)] == [8, 16, 40, 40]


def test_a_task_of_a_page_that_few_look_for_says_less() -> None:
    phrase = Phrase(Matches([QueryTerm("water", "water", [("water", 1.0)])], [2.0], []))
    assert phrase.fit(["water"]) == pytest.approx(1.0)
    assert phrase.fit(["water"], beside=3.0) == pytest.approx(1 - 0.6 + 0.6 / 4)


def test_which_pages_few_look_for() -> None:
    """Those that have no phrases but those of the file of such pages."""
    special = special_labels()
    assert len(special) > 1700
    assert "tar(1)" not in special
    assert special <= purposes().keys()


def test_what_has_every_word_is_never_left_out(make_store: Make) -> None:
    """Many with one rare word come up before it, and so many are looked at alone."""
    pages = {f"rake{n}.1": "rake rake beds" for n in range(40)}
    store = make_store({**pages, "both.1": "rake the leaves of oaks and elms beside the old mill"})
    matches = match(store, terms_of(store, ["rake", "leaves"]))
    number = store.numbers_named(["both"])[0]
    assert number in [one for _, one in score(store, matches, 5)]


def test_a_subcommand_of_the_family_that_is_asked_for(make_store: Make) -> None:
    store = make_store(
        {
            "glass.1": "keep a glasshouse",
            "glass-remote.1": "look after others",
            "glass-push.1": "send beds to a remote, a remote house or remote beds",
        }
    )
    found = search(store, make_query(["remote"], 5, Filters(family="glass")))
    assert found.hits[0].entry.name == "glass-remote"
