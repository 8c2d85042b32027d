"""Names in hints, written so that they can be typed at a shell."""

from __future__ import annotations

from dowsing.model.markup import clean_line

MOST_WORDS = 8  # of a sentence that a hint repeats


def typed(name: str) -> str:
    """The name as it is, or in quotes where a shell would take something in it for itself."""
    name = clean_line(name)
    if name and all(char.isalnum() or char in "-_.+:@" for char in name):
        return name
    import shlex

    return shlex.quote(name)


def typed_words(text: str) -> str:
    """The words of a text, the first few of many, each so that it can be typed."""
    return " ".join(typed(word) for word in text.split()[:MOST_WORDS])
