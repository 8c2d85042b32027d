"""`demo`: a guided run of the main commands on the demo library."""

from __future__ import annotations

import argparse
import shlex
import sys

from dowsing.model.markup import BOLD, ROMAN
from dowsing.render.line_marks import HEADING
from dowsing.session.session import Session

DESCRIPTION = "A guided run of the main commands on the demo library, Fernhollow's glasshouse."

#: What a step shows, and its command line.
STEPS = (
    ("You know what you want to do, not the command. Say it in words:", "find water beds"),
    ("A word with * or ? is a pattern that names must match:", "find '*shade*'"),
    (
        "You know the action, and perhaps the thing: --does and --what take a verb and a noun:",
        "find --does open",
    ),
    ("Or an option that it should have:", "find beds --takes=-n"),
    ("You know the command, not how. Its name alone gives a card:", "vent"),
    ("A subcommand is written as you would type it:", "glasshouse water"),
    (
        "The whole page is laid out for your terminal; --part takes one part of it:",
        "read mist --part options",
    ),
    ("--around finds a word in a page and shows where it stands:", "read compost --around heap"),
    ("Its options as a table; words after the name search their texts:", "options harvest basket"),
    (
        "A line that you found somewhere, piece by piece, with what it changes:",
        "unpick 'harvest -m 60 tomato1 > basket.txt'",
    ),
    (
        "Or you say what you want, with your own values, and get the line:",
        "task gather fruit heavier than 60 grams in tomato1",
    ),
    ("Lines for the usual uses of a command:", "examples harvest"),
    (
        "A line that you are in the middle of: what may come next?",
        "next 'glasshouse --house palm '",
    ),
    (
        "Pages of other kinds are read the same way, tables included:",
        "read seedbank.5 --part description",
    ),
    (
        "A shell has a builtin and the system a program of one name. What runs, and what belongs "
        "to it:",
        "resolve mulch",
    ),
    (
        "Every documentation of a name, side by side; --differences says where they disagree:",
        "sources mulch",
    ),
    (
        "What runs is read first; --from takes another source, here what the program prints:",
        "read mulch --from usage",
    ),
    ("Which documentation do all builtins of a shell have?", "audit --shell loam"),
    ("A name with a slip in it gets the nearest names:", "read prunne"),
    ("And this is what all of it is looked up in:", "index --status"),
)
FORMATS = ("text",)  # that it prints


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The demo takes no arguments of its own."""


def run(session: Session, options: argparse.Namespace) -> int:
    """Show the steps one after the other; on a terminal, wait between them."""
    from dowsing.cli.main import run as run_line
    from dowsing.model.errors import Failure
    from dowsing.terminal.telling import tell

    session.only("text")
    passed_on = ["--demo", "--pager", "never"]
    passed_on += ["--color", options.color] if options.color else []
    passed_on += ["--width", str(options.width)] if options.width else []
    waits = session.screen.is_terminal and sys.stdin is not None and sys.stdin.isatty()
    for number, (says, line) in enumerate(STEPS, 1):
        lines = [] if number == 1 else [""]
        lines += [
            f"{HEADING}{number} of {len(STEPS)}  {says}",
            f"{BOLD}$ dowsing --demo {line}{ROMAN}",
            "",
        ]
        session.screen.show(lines)
        try:
            run_line([*passed_on, *shlex.split(line)])
        except Failure as failure:
            tell(failure)
        if waits and number < len(STEPS) and not _goes_on():
            return 0
    session.screen.show(
        ["", f"{HEADING}That was it. Without --demo the same works on this machine's own pages."]
    )
    return 0


def _goes_on() -> bool:
    sys.stderr.write("\n[Enter] goes on, q ends ")
    sys.stderr.flush()
    answer = sys.stdin.readline()
    return bool(answer) and not answer.strip().lower().startswith("q")
