"""`find`: entries by words, names by a pattern."""

from __future__ import annotations

import argparse

from dowsing.cli.failure import Failure
from dowsing.cli.output.hits import hit_lines
from dowsing.cli.session import Session
from dowsing.core.finding.search import Answer, make_query, search

DESCRIPTION = (
    "Finds entries that have all the words in name, summary or text. "
    "A word with * ? or [...] is a pattern that a name must match (quote it)."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("words", nargs="*", metavar="WORD", help="a word, or a pattern such as '*zip*'")
    parser.add_argument("--limit", type=_count, default=20, metavar="N", help="at most so many (20)")
    parser.add_argument("--count", action="store_true", help="only say how many match")


def _count(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) <= 100_000:
        raise argparse.ArgumentTypeError(f"a limit is a number from 1 to 100000, not {text!r}")
    return int(text)


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    if not any(word.strip() for word in options.words):
        raise Failure("say what to look for, for example: dowsing find delete file", status=2)
    return answer(session, options.words, options.limit, options.count)


def answer(session: Session, words: list[str], limit: int, count: bool = False) -> int:
    """Search and print what was found."""
    query = make_query(words, limit)
    if not query.words and not query.patterns:
        raise Failure(f"there is nothing to look for in “{' '.join(words)[:60]}”; give a word or a pattern")
    found = search(session.store, query)
    if session.json:
        session.print_json(as_json(found))
        return 0 if found.total else 1
    if count:
        session.screen.show([str(found.total)])
        return 0 if found.total else 1
    if not found.total:
        raise Failure(
            f"nothing found for “{' '.join(words)[:200]}”; try fewer or shorter words, "
            f"or a pattern: {session.program} find '*{(query.words or ['part'])[0][:20]}*'"
        )
    session.screen.show(hit_lines(found, session.screen.width, session.program))
    return 0


def as_json(found: Answer) -> dict[str, object]:
    """The answer in the form of the JSON contract."""
    entries = []
    for hit in found.hits:
        entry = {name: getattr(hit.entry, name) for name in hit.entry._fields}
        entries.append({**entry, "score": hit.score, "why": hit.why, "folded": hit.folded})
    return {"query": found.query, "total": found.total, "relaxed": found.relaxed, "entries": entries}
