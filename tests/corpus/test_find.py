"""What find answers on the frozen library: the order of entries, and what makes it."""

from __future__ import annotations

import pytest

from corpus.pages import rows
from dowsing.index.store import Store
from dowsing.search.searching import make_query, search


def first(store: Store, words: str, most: int) -> list[str]:
    """The labels of the first entries."""
    return [hit.entry.label for hit in search(store, make_query([words], most)).hits[:most]]


@pytest.mark.parametrize(("words", "labels"), rows("queries.tsv"))
def test_the_first_three(corpus: Store, words: str, labels: str) -> None:
    assert first(corpus, words, 3) == labels.split()
