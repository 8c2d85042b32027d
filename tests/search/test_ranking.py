"""What comes first, and why: equal words, names, references, sections, tasks."""

from __future__ import annotations

import pytest
from conftest import Make

from dowsing.index.schema import MIDDLE, UNIT
from dowsing.index.store import Store
from dowsing.ingest.static_rank import share, static_rank
from dowsing.render.search_words import relaxed_words, score_words
from dowsing.search.searching import SearchAnswer, make_query, search
from dowsing.search.weights import WEIGHTS, Weights, section_costs


def ask(store: Store, words: str, **more: object) -> SearchAnswer:
    return search(store, make_query([words], **more), why=True)  # type: ignore[arg-type]


def found(store: Store, words: str) -> list[str]:
    return [hit.entry.label for hit in ask(store, words).hits]


def test_equal_words_are_found_after_the_word_itself(make_store: Make) -> None:
    store = make_store(
        {"dib.1": "delete a hole", "fill.1": "erase a hole", "spade.1": "paint a hole"}
    )
    assert found(store, "delete hole") == ["dib(1)", "fill(1)"]
    why = score_words(ask(store, "delete hole").hits[1].breakdown)
    assert why[0].startswith("“delete” as “eras” in its summary and what it does or to what (+")


def test_words_said_apart_stand_for_one(make_store: Make) -> None:
    store = make_store({"bin.1": "choose a timezone", "bag.1": "log out", "tub.1": "mend a disk"})
    assert found(store, "time zone") == ["bin(1)"]
    assert found(store, "hard drive") == ["tub(1)"]


def test_a_name_typed_whole_comes_first(make_store: Make) -> None:
    store = make_store(
        {
            "tine-leaves.1": "a tool",
            "leaves.1": "tine leaves with a tine",
            "tine.1": "leaves and leaves",
        }
    )
    assert found(store, "tine leaves")[0] == "tine-leaves(1)"
    assert found(store, "tine-leaves")[0] == "tine-leaves(1)"


def test_pages_that_others_send_to_stand_better(make_store: Make) -> None:
    see = ".TH X 1\n.SH NAME\n{} \\- other\n.SH SEE ALSO\nshears(1)\n"
    pages = {"clip.1": "cut a hedge", "shears.1": "cut a hedge"}
    store = make_store(pages | {f"o{n}.1": see.format(f"o{n}") for n in range(4)})
    assert found(store, "cut hedge") == ["shears(1)", "clip(1)"]
    assert static_rank(1, 0, 4, "") > static_rank(1, 0, 0, "") == MIDDLE
    assert static_rank(1, 0, 0, "essential") > MIDDLE > static_rank(20_000, 4, 0, "") >= 0
    assert (share(1), share(40), share(400)) == (1.0, 1.0, 0.1)


def test_static_ranks_fall_with_the_family_and_with_the_parts_of_a_name() -> None:
    """In units: twice as many members as are common cost one, two more parts of a name too."""
    assert static_rank(80, 0, 0, "") == MIDDLE - UNIT
    assert static_rank(1, 2, 0, "") == MIDDLE - UNIT
    assert static_rank(1, 0, 31, "") == MIDDLE + 3 * UNIT


def test_commands_first_unless_the_words_say_else(make_store: Make) -> None:
    store = make_store(
        {"pour.1": "pour water", "pour.3": "pour water", "pour.5": "format of pour water"}
    )
    assert found(store, "pour water")[0] == "pour(1)"
    assert found(store, "pour water function")[0] == "pour(3)"
    assert found(store, "format of pour")[0] == "pour(5)"
    usual, asked = section_costs(set(), WEIGHTS), section_costs({"function"}, WEIGHTS)
    assert (usual["3"], asked["3"], asked["1"]) == pytest.approx((2.8, 0.28, 2.8))


def test_tasks_in_plain_words_count_for_their_command(make_store: Make) -> None:
    store = make_store(
        {"tac.1": "concatenate and print files in reverse", "page.1": "print a file"}
    )
    answer = ask(store, "show a file with the last line first")
    assert answer.hits[0].entry.label == "tac(1)"
    assert any(reason.startswith("it is for: ") for reason in score_words(answer.hits[0].breakdown))
    plain = search(store, make_query(["backwards"]), weights=WEIGHTS)
    assert [hit.entry.label for hit in plain.hits] == ["tac(1)"]


def test_weights_can_be_changed_for_measurements(make_store: Make) -> None:
    store = make_store({"shed.1": "x", "y.1": "shed of sheds"})
    without = Weights(
        **{n: getattr(WEIGHTS, n) for n in WEIGHTS._fields if n not in ("whole_name", "in_name")},
        whole_name=0.0,
        in_name=0.0,
    )
    usual, changed = (
        search(store, make_query(["shed"]), weights=one).hits for one in (WEIGHTS, without)
    )
    scores = [{hit.entry.label: hit.score for hit in hits} for hits in (usual, changed)]
    assert scores[0]["shed(1)"] > scores[1]["shed(1)"]
    assert scores[0]["y(1)"] == scores[1]["y(1)"]


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("hedgerw", "“hedgerw” is not known; taken as “hedgerow”"),
        ("hedgerow zeppelin", "nothing has every word; left out: “zeppelin”"),
        ("clipp hedgerow", "“clipp” is not known; taken as “clip”"),
    ],
)
def test_loosening_is_said(make_store: Make, typed: str, said: str) -> None:
    store = make_store({"clip.1": "cut a hedgerow", "dib.1": "dig a bed"})
    answer = ask(store, typed)
    assert [hit.entry.label for hit in answer.hits] == ["clip(1)"]
    assert relaxed_words(answer) == said


def test_a_beginning_of_a_word_is_enough(make_store: Make) -> None:
    store = make_store({"clip.1": "cut a hedgerow", "dib.1": "dig a bed"})
    assert (found(store, "hedg"), ask(store, "hedg").notes) == (["clip(1)"], [])


def test_the_text_of_pages_is_the_last_resort(make_store: Make) -> None:
    page = (
        ".TH X 1\n.SH NAME\nclip \\- cut\n.SH D\nfirst paragraph\n.PP\nIt squeaks like a marmot.\n"
    )
    store = make_store({"clip.1": page, "dib.1": "dig a bed"})
    answer = ask(store, "marmot")
    assert [
        (hit.entry.label, score_words(hit.breakdown)[0].split(" (")[0]) for hit in answer.hits
    ] == [("clip(1)", "“marmot” in its text or a longer word of its names")]


@pytest.mark.parametrize(
    "words", ["delete hole", "hole", "mend", "dig hole zeppelin", "spade*", "squeaks"]
)
def test_the_parts_of_a_score_add_up_to_it(make_store: Make, words: str) -> None:
    page = ".TH X 1\n.SH NAME\nclip \\- cut a hedgerow\n.SH D\nfirst\n.PP\nIt squeaks.\n"
    store = make_store(
        {
            "dib.1": "delete a hole",
            "fill.1": "mend a hole",
            "spade.5": "a hole in a file",
            "hole.7": "x",
            "clip.1": page,
        }
    )
    answer = search(store, make_query(words.split()), why=True)
    for hit in answer.hits:
        assert hit.breakdown is not None
        assert round(hit.breakdown.total, 2) == round(hit.score, 2), (
            hit.entry.label,
            hit.breakdown,
        )
    assert answer.hits
