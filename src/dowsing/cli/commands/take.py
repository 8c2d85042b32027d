"""`take`: one line of the last list that was printed in this terminal."""

from __future__ import annotations

import argparse

from dowsing.cli.failure import Failure
from dowsing.cli.output.terminal import write
from dowsing.cli.session import Session
from dowsing.core.markup import clean_line
from dowsing.core.tasks.remembered import recall

DESCRIPTION = "The N-th line of the last list of task or examples in this terminal, and nothing else."


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("number", type=int, nargs="?", default=1, metavar="N", help="which line (1)")
    parser.add_argument("--unpick", action="store_true", help="take it apart instead of printing it")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    last = recall(session.settings.data)
    if last is None or not last.lines:
        raise Failure("nothing was listed in this terminal yet; begin with: dowsing task SENTENCE", status=2)
    if not 1 <= options.number <= len(last.lines):
        raise Failure(f"the last list has the lines 1 to {len(last.lines)}", status=2)
    line = clean_line(last.lines[options.number - 1])
    if options.unpick:
        from dowsing.cli.commands import unpick

        parsed = argparse.Namespace(line=[line], long=False, short=False, tidy=False, aliases=None)
        return unpick.run(session, parsed)
    if session.json:
        session.print_json({"line": line})
    else:
        write(line + "\n")
    return 0
