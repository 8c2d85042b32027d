"""Words as they are typed to what is searched for: telling words, patterns on names, one word for several."""

from __future__ import annotations

from dowsing.core.finding.filters import Filters
from dowsing.core.language.stems import stem, words
from dowsing.core.record import Record

MOST_WORDS = 24
MOST_PATTERN = 200

#: Stems of words that say nothing of what is looked for.
EMPTY = frozenset(
    stem(word)
    for word in """
        a an the of to in on for with and or my me i is are be been was it its that this these those by at from as into
        which what how who whom do does did can could should would will shall may might must am please want need like
        there where when why not no so if than then them they their you your we our us any some all each every has have
        had having being get gets got let lets ones thing things something somebody someone anything everything just
        only about over up out off again too very way ways use used using make makes making still same other another
        show-me it's i'm don't isn't so such via onto it's
    """.split()
)


class Query(Record):
    """What is searched for: plain words, patterns on names, and how much is wanted."""

    words: list[str]
    patterns: list[str]
    limit: int = 20
    filters: Filters = Filters()


def make_query(typed: list[str], limit: int = 20, filters: Filters | None = None) -> Query:
    """A query from the words of a command line; a word with `*`, `?` or `[…]` is a pattern."""
    plain: list[str] = []
    patterns: list[str] = []
    for word in " ".join(typed).split():
        question = word.endswith("?") and "*" not in word and "[" not in word and len(word.rstrip("?")) > 3
        if not question and any(sign in word for sign in "*?["):
            patterns.append(word)
        else:
            plain += words(word)
    return Query(list(dict.fromkeys(plain)), patterns, limit, filters or Filters())


def telling(plain: list[str]) -> list[str]:
    """The words that say what is looked for; all of them if none does."""
    return [word for word in plain if stem(word) not in EMPTY] or plain
