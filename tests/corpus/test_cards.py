"""What the cards of the frozen library show."""

from __future__ import annotations

import pytest

from dowsing.facts.page_facts import page_facts
from dowsing.index.store import Store
from dowsing.model.document import Subcommand
from dowsing.search.card import Beside, Card, make_card
from dowsing.sources.page_files import read_page_file


def card(store: Store, name: str) -> Card:
    """The card of a command, from its page alone."""
    entry = store.named(name, "1")[0]
    document = read_page_file(entry.path, entry.name, entry.section)
    return make_card(page_facts(document, []), entry, name, Beside(sources=["manual"]))


@pytest.mark.parametrize(
    ("name", "flags", "in_all"),
    [
        ("dome", "--bearing --park --quiet --speed --dry-run --motor-current", 9),
        ("expose", "--time --gain --filter --count --output --force", 11),
        ("ls", "--all -l -S -t --reverse --recursive", 9),
        ("harbour", "--berth --wait", 3),
        ("orchard", "--long --kind --prune-after", 3),
        ("weather", "--unit --watch", 2),
        ("chart", "", 0),
    ],
)
def test_the_options_that_are_chosen(corpus: Store, name: str, flags: str, in_all: int) -> None:
    """Six at most, help and version only where there is nothing else."""
    found = card(corpus, name)
    assert [option.flags[-1] for option in found.options] == flags.split()
    assert found.options_in_all == in_all


def test_forms_examples_and_related_pages(corpus: Store) -> None:
    dome, expose = card(corpus, "dome"), card(corpus, "expose")
    assert (dome.form, dome.forms_in_all) == ("dome [-q] [-b BEARING] [--park]", 1)
    assert (expose.form, expose.forms_in_all) == ("expose [options] FILE", 2)
    assert [(one.task, one.line) for one in dome.examples] == [
        ("turn to the south", "dome -b 180"),
        ("park for the night, without a word", "dome -qp"),
    ]
    assert [one.name for one in expose.related] == ["plate", "dark"]


def test_what_is_used_most_comes_first(corpus: Store) -> None:
    entry = corpus.named("expose", "1")[0]
    document = read_page_file(entry.path, entry.name, entry.section)
    usual = ["--no-such", "--count", "--filter"]
    told = [Subcommand("dark", "Expose nothing")]
    facts = page_facts(document, usual)
    found = make_card(facts, entry, "expose", Beside(subcommands=told))
    flags = [option.flags[-1] for option in found.options]
    assert flags == ["--count", "--filter", "--time", "--gain", "--output", "--force"]
    assert found.subcommands == told
    more = make_card(facts, entry, "expose", Beside()).options
    assert len(more) == 8
