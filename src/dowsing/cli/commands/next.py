"""`next`: what may come next in a half-typed line."""

from __future__ import annotations

import argparse

from dowsing.cli.commands.given_line import given_line
from dowsing.commandline.expecting import what_next
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.model.errors import Failure
from dowsing.session.session import Session, from_shell

DESCRIPTION = (
    "What may come next in a half-typed line, whether it can be run as it stands, and where it "
    "went wrong. A blank at its end means that a new word begins."
)
OTHERS_ARE_WORDS = True


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("line", nargs="*", metavar="LINE", help="the line, in quotes: 'tar -x '")
    parser.add_argument(
        "--at",
        type=int,
        metavar="N",
        help="the cursor stands after so many characters (at the end)",
    )
    parser.add_argument(
        "--limit",
        type=int,
        choices=range(1, 1001),
        default=14,
        metavar="N",
        help="so many of a kind (14)",
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    line = " " if options.line == [""] else given_line(options.line)
    if options.at is not None and not 0 <= options.at <= len(line):
        raise Failure(f"--at is a place in the line, 0 to {len(line)}", status=2)
    found = what_next(line, CommandFinder(session.store, session.settings, ask=True), options.at)
    if session.json:
        from dowsing.render.line_json import next_json

        session.print_json(next_json(found))
    else:
        from dowsing.render.expectations import expected_lines

        session.screen.show(
            expected_lines(
                found, session.screen.width, session.program, options.limit, from_shell()
            )
        )
    return 1 if found.problem else 0
