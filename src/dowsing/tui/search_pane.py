"""What the finder shows for what is typed: results, and what they can be narrowed by."""

from __future__ import annotations

from dowsing.index.store import Store
from dowsing.model.entry import Entry
from dowsing.render.search_words import relaxed_words
from dowsing.search.filters import COLUMNS, Filters
from dowsing.search.searching import SearchAnswer, make_query, search

MOST = 60  # results
MOST_COUNTED = 4000  # entries that are counted for facets
#: What is offered to narrow by: the filter, and what it is called.
FACETS = {"does": "VERB", "what": "NOUN", "kind": "KIND", "package": "PACKAGE"}


class Results:
    """The entries found, the number of all, what was loosened; and for each facet its values with
    counts.
    """

    def __init__(
        self,
        entries: list[Entry],
        total: int,
        relaxed: str,
        facets: dict[str, list[tuple[str, int]]],
    ) -> None:
        self.entries, self.total, self.relaxed, self.facets = entries, total, relaxed, facets


def results_for(
    store: Store, typed: str, filters: Filters, each: int, whole: bool = True
) -> Results:
    """The results for what is typed; without words and filters none, but the facets of everything.

    `each`: so many values of a facet. `whole`: the texts of pages are looked at too, where nothing
    else has the words; that is for when the keys rest.
    """
    words = [word for word in typed.split() if word.strip("*?")]
    if not words and not filters.any:
        return Results([], 0, "", {name: store.vocabulary(COLUMNS[name])[:each] for name in FACETS})
    query = make_query(words, MOST, filters).changed(texts=whole)
    if not query.words and not query.patterns and not filters.any:
        return Results([], 0, "", {name: [] for name in FACETS})
    found: SearchAnswer = search(store, query)
    numbers = found.numbers if len(found.numbers) <= MOST_COUNTED else []
    facets = {}
    for name in FACETS:
        chosen = getattr(filters, name)
        values = store.tally(COLUMNS[name], numbers)[: each + 1] if numbers and not chosen else []
        values = values[:each]
        facets[name] = [(chosen, found.total)] if chosen else values
    return Results([hit.entry for hit in found.hits], found.total, relaxed_words(found), facets)
