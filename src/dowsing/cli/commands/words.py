"""`words`: the vocabulary to search with, with counts."""

from __future__ import annotations

import argparse

from dowsing.cli.commands.find import add_filters, filters_of
from dowsing.cli.failure import Failure
from dowsing.cli.output.groups import count_lines
from dowsing.cli.session import Session

DESCRIPTION = "Which packages, families and kinds there are, with the number of their entries."
COLUMNS = {"packages": "package", "families": "family", "kinds": "kind"}


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("what", choices=list(COLUMNS), help="what to list")
    add_filters(parser)
    parser.add_argument(
        "--limit", type=int, choices=range(1, 100_001), default=40, metavar="N", help="at most so many (40)"
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    filters = filters_of(options)
    session.store.narrow(filters.package, filters.family, filters.kind, filters.section)
    counts = session.store.vocabulary(COLUMNS[options.what])
    if session.json:
        words = [{"word": word, "count": count} for word, count in counts[: options.limit]]
        session.print_json({"what": options.what, "total": len(counts), "words": words})
        return 0 if counts else 1
    if not counts:
        raise Failure(f"there are no {options.what} in {filters.described() or 'the index'}")
    example = f"{session.program} find --{COLUMNS[options.what]} {counts[0][0]}"
    session.screen.show(count_lines(options.what, counts, options.limit, session.screen.width, example))
    return 0
