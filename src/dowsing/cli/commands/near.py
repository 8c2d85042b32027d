"""`near`: related entries, grouped by why."""

from __future__ import annotations

import argparse

from dowsing.model.errors import Failure
from dowsing.render.entry_groups import group_lines
from dowsing.search.related import related
from dowsing.session.naming import find_entry, open_document
from dowsing.session.session import Session
from dowsing.tasks.remembered import ListKind, Remembered, remember

DESCRIPTION = (
    "What is near a name: what its page refers to, its family, what does the same, its package."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("name", nargs="*", metavar="NAME", help="tar, 'printf(3)', git commit")
    parser.add_argument(
        "--limit",
        type=int,
        choices=range(1, 1001),
        default=8,
        metavar="N",
        help="so many a group (8)",
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    found = find_entry(session, options.name)
    assert found.entry is not None
    page = found.entry.section not in ("", "builtin")
    groups = related(
        session.store,
        found.entry,
        open_document(session, found.entry) if page else None,
        options.limit,
    )
    if session.json:
        session.print_json({"name": found.entry.label, "groups": groups})
        return 0
    if not groups:
        raise Failure(
            f"nothing is known to be near {found.entry.label}; search with: {session.program} find "
            "WORDS"
        )
    listed = [other.label for group in groups for other in group.entries]
    remember(session.settings.data, Remembered(ListKind.NAMES, found.entry.label, [], listed))
    written = found.entry.label if found.name.section else found.entry.name
    session.screen.show(
        group_lines(found.entry, written, groups, session.screen.width, session.program)
    )
    return 0
