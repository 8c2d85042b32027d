"""Our phrases for commands are our own words: none is the summary of the page that it stands
for.
"""

from __future__ import annotations

import sys
from pathlib import Path

from dowsing.knowledge.page_phrases import purposes
from dowsing.knowledge.stems import words

sys.path.insert(0, str(Path(__file__).parents[2] / "bench"))
from own_words import DIGESTS, SHORTEST, digest, taken


def test_no_phrase_is_the_summary_of_its_page() -> None:
    """The summaries are known by their digests alone, which `bench/own_words.py --write` makes."""
    known = set(DIGESTS.read_text().split())
    assert len(known) > 2000
    found = [
        f"{label}: {phrase}"
        for label, phrases in purposes().items()
        for phrase in phrases
        if len(words(phrase)) >= SHORTEST and digest(label, phrase) in known
    ]
    assert found == []


def test_what_counts_as_taken() -> None:
    assert taken("vent(1)", "opening of the roof vents", "open roof vents")
    assert taken("vent(1)", "the roof of a house", "open the roof of a house in summer")
    assert not taken("vent(1)", "roof vents", "roof vents"), "two words may well be the same"
    assert not taken("vent(1)", "let some air in", "open the roof vents")
    assert (
        digest("vent(1)", "the roof vents")
        == digest("vent(1)", "roof vent")
        != digest("mist(1)", "roof vent")
    )
