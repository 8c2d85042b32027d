"""Whether our phrases, wordings and sentences are our own: no phrase is the summary of the page
that it stands for, or a part of it, and no wording or sentence is the summary of any page.

    python bench/own_words.py [--write]

Compares the phrases of `phrases/*.toml`, the tasks and wordings of recipes and the texts of
sentences with the summaries of the pages in this machine's index, prints those that are taken from
there, and is wrong (exit status 1) if there are any. `--write`
writes the digests of the summaries of those pages to tests/knowledge/summaries.digests, with which
a test checks the same on machines that have none of the pages.
"""

from __future__ import annotations

import argparse
import hashlib
import json
import re
from pathlib import Path

from dowsing.ingest.upkeep import open_index
from dowsing.knowledge.command_facts import facts_of
from dowsing.knowledge.command_files import read_command_files
from dowsing.knowledge.compiling import SOURCES
from dowsing.knowledge.conventions import facts_by_words
from dowsing.knowledge.page_phrases import purposes
from dowsing.knowledge.recipes import own_recipes
from dowsing.knowledge.stems import EMPTY, stem, words
from dowsing.knowledge.wordings import read_wordings
from dowsing.machine.settings import read_settings

PLACE = re.compile(r"[<{\[][^>}\]]*[>}\]]")
DIGESTS = Path(__file__).parent.parent / "tests/knowledge/summaries.digests"
SHORTEST, SHORTEST_PART = (
    3,
    4,
)  # words of a phrase that is the summary, and of one that is a part of it


def told(text: str) -> str:
    """A text by the stems of its telling words: what makes it the same text in other small
    words.
    """
    return " ".join(stem(word) for word in words(text) if word not in EMPTY)


def digest(label: str, text: str) -> str:
    """The mark of a text of a page, by which it is known again but cannot be read."""
    return hashlib.sha256(f"{label}\n{told(text)}".encode()).hexdigest()[:12]


def taken(label: str, phrase: str, summary: str) -> bool:
    """Whether the phrase for that page is its summary, or stands in it word for word."""
    count = len(words(phrase))
    same = count >= SHORTEST and told(phrase) == told(summary) != ""
    return same or (
        count >= SHORTEST_PART and f" {' '.join(words(phrase))} " in f" {' '.join(words(summary))} "
    )


def our_texts() -> list[tuple[str, str]]:
    """The tasks and wordings of recipes, and what sentences say of commands: where each stands, and
    the text, its places left out.
    """
    found: list[tuple[str, str]] = []
    for recipe in own_recipes():
        texts = [recipe.task, *recipe.also, *read_wordings().get(recipe.line, [])]
        found += [(recipe.line, text) for text in texts]
    for name, row in facts_by_words().items():
        found += [(name, act.says) for act in facts_of(json.loads(row)).clauses]
    found += [
        ("what asks for an addition", text) for text in read_command_files(SOURCES).asked_phrases()
    ]
    return [(where, PLACE.sub(" ", text)) for where, text in found]


def taken_from_summaries(summaries: dict[str, str]) -> list[str]:
    """Our texts that are the summary of a page. `summaries`: labels by what is told."""
    found = []
    for where, text in our_texts():
        said = told(text)
        if len(said.split()) >= SHORTEST and said in summaries:
            found.append(f"{where}: {text} ({summaries[said]})")
    return found


def main() -> int:
    """Compare, and write the digests."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("--write", action="store_true")
    asked = parser.parse_args()
    store = open_index(read_settings())[0]
    found: list[str] = []
    digests: set[str] = set()
    for label, phrases in purposes().items():
        name, _, section = label.rstrip(")").rpartition("(")
        for entry in store.named(name, section):
            digests.add(digest(label, entry.summary))
            found += [
                f"{label}: {phrase}" for phrase in phrases if taken(label, phrase, entry.summary)
            ]
    entries = store.entries([row.number for row in store.all_matches()])
    # the summaries of builtins are ours
    pages = [one for one in entries if one.summary and one.section not in ("", "builtin")]
    found += taken_from_summaries({told(one.summary): one.label for one in pages})
    print(
        f"{sum(map(len, purposes().values()))} phrases, {len(digests)} summaries, {len(found)} "
        "taken from them"
    )
    print("\n".join(found))
    if asked.write:
        DIGESTS.write_text("\n".join(sorted(digests)) + "\n")
    return 1 if found else 0


if __name__ == "__main__":
    raise SystemExit(main())
