"""Names in hints, written so that they can be typed at a shell."""

from __future__ import annotations

from dowsing.model.markup import clean_line
from dowsing.model.quoting import word

MOST_WORDS = 8  # of a sentence that a hint repeats


def typed(name: str) -> str:
    """The name as it is, or in quotes where a shell would take something in it for itself."""
    return word(clean_line(name))


def typed_words(text: str) -> str:
    """The words of a text, the first few of many, each so that it can be typed."""
    return " ".join(typed(one) for one in text.split()[:MOST_WORDS])
