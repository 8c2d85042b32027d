"""What the summaries of the frozen library say that is done, and to what."""

from __future__ import annotations

from corpus.pages import rows, sheets
from dowsing.knowledge.verbs_and_nouns import meaning


def test_verbs_and_nouns_of_summaries_judged_by_hand() -> None:
    said = {f"{sheet.name}({sheet.section})": sheet for sheet in sheets()}
    judged = {label: (verbs, nouns) for label, verbs, nouns in rows("meanings.tsv")}
    found = {
        label: meaning(said[label].summary, said[label].name, said[label].section)
        for label in judged
    }
    read = {label: (" ".join(one.verbs), " ".join(one.nouns)) for label, one in found.items()}
    assert read == judged


def test_the_library_is_as_large_as_it_was() -> None:
    assert len(sheets()) == 258
