"""`save`: keep a command line, with what it is for."""

from __future__ import annotations

import argparse
import os

from dowsing.cli.commands.given_line import given_line
from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.model.errors import Failure
from dowsing.model.markup import clean_line, escaped
from dowsing.render.phrases import words
from dowsing.session.keeping import keep_line
from dowsing.session.session import Session
from dowsing.terminal.screen import message
from dowsing.userdata.saved_lines import Kept

DESCRIPTION = (
    "Keeps a command line with what it is for; task, examples, find and saved have it then. <name> "
    "in it is a place for a value. The line is checked against the pages as all lines are."
)
OTHERS_ARE_WORDS = True


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "line", nargs="*", metavar="LINE", help="in quotes, or on the standard input"
    )
    parser.add_argument(
        "--for", dest="task", default="", metavar="TASK", help="what it is for, in your own words"
    )
    parser.add_argument(
        "--last", action="store_true", help="the line that was run last in this shell (see shell)"
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    if options.last and options.line:
        raise Failure("say a line, or --last for the one that was run last; not both", status=2)
    line = last_line() if options.last else given_line(options.line, "save")
    return keep(session, line, options.task)


def last_line() -> str:
    """The line that was run last in the shell, as its snippet tells it. Raises Failure."""
    line = os.environ.get("DOWSING_LAST_LINE")
    if line is None:
        raise Failure(
            "only the shell knows which line was run last: put dowsing into it with dowsing shell "
            "bash --install",
            status=3,
        )
    if not line.strip():
        raise Failure("no line was run in this shell yet", status=1)
    return line.strip()


def keep(session: Session, line: str, task: str) -> int:
    """Keep a line and say so."""
    kept = keep_line(session, line, task)
    found = unpick(kept.recipe.line, CommandFinder(session.store, session.settings))
    for problem in found.problems:
        if problem is not found.problem:
            message(f"kept as it is, but: {clean_line(words(problem.reason))}")
    if found.problem:
        message(f"kept as it is, but a shell cannot read it: {words(found.problem.reason)}")
    if session.json:
        from dowsing.tasks.answers import is_checked

        told = {
            "line": kept.recipe.line,
            "task": kept.recipe.task,
            "known": kept.known,
            "checked": is_checked(found),
        }
        session.print_json({"saved": told})
    else:
        session.screen.show(_said(kept, session.program))
    return 0


def _said(kept: Kept, program: str) -> list[str]:
    first = (
        "saved"
        if not kept.known
        else ("saved already; it is now for" if kept.renamed else "saved already")
    )
    task, line = clean_line(kept.recipe.task), escaped(kept.recipe.line)
    return [
        f"{first}: {task}" if task != line else first,
        f"   {line}",
        "",
        f"Next: {program} saved",
    ]
