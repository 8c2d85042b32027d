"""`browse`: full-screen reader and finder."""

from __future__ import annotations

import argparse

from dowsing.cli.commands.compose import hand_out, no_screen
from dowsing.model.errors import Failure
from dowsing.session.naming import find_entry
from dowsing.session.session import Session

DESCRIPTION = (
    "Finds as you type and reads with links to follow, on the whole screen. A line that is chosen "
    "in it is printed when it is left, so that it can be captured."
)
FORMATS = ("text",)  # that it prints


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("name", nargs="*", metavar="NAME", help="open this at once")
    parser.add_argument(
        "--plain", action="store_true", help="in plain lines, with numbers to choose by"
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text")
    why = "" if options.plain else no_screen()
    if why:
        raise Failure(f"{why}; --plain asks in plain lines instead", status=3)
    label = ""
    if options.name:
        entry = find_entry(session, options.name).entry
        assert entry is not None
        label = entry.label
    store = session.store  # built now, with its progress, if it is not there
    assert store is not None
    if options.plain:
        from dowsing.cli.plain_browsing import browse_in_lines

        line = browse_in_lines(session, label)
    else:
        from dowsing.tui.browsing import browse_on_screen

        line = browse_on_screen(session, label)
    return 0 if line is None else hand_out(session, line, label or "browse")
