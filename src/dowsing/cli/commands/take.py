"""`take`: act on a line of the last list that was printed in this terminal."""

from __future__ import annotations

import argparse

from dowsing.cli.listed import as_given, make_call
from dowsing.model.errors import Failure
from dowsing.model.markup import escaped, has_unsafe
from dowsing.session.session import Session
from dowsing.tasks.remembered import ListKind, Remembered, recall
from dowsing.terminal.screen import message, write

DESCRIPTION = (
    "The N-th line of the last list of task, examples or saved in this terminal, and nothing else: "
    "it can be piped. After find and near it reads that page, after words it searches by that word."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "number", type=int, nargs="?", default=1, metavar="N", help="which line (1)"
    )
    ways = parser.add_mutually_exclusive_group()
    ways.add_argument("--copy", action="store_true", help="put it on the clipboard")
    ways.add_argument(
        "--run", action="store_true", help="show it and what it would change, ask, and run it"
    )
    ways.add_argument("--save", action="store_true", help="keep it: see save")
    ways.add_argument(
        "--compose", action="store_true", help="fill it in on the screen: see compose"
    )
    ways.add_argument("--unpick", action="store_true", help="take it apart instead of printing it")
    parser.add_argument("--yes", action="store_true", help="with --run: do not ask")
    parser.add_argument(
        "--for", dest="task", default="", metavar="TASK", help="with --save: what it is for"
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    last = recall(session.settings.data)
    if last is None or not last.lines:
        raise Failure(
            "nothing was listed in this terminal yet; begin with: dowsing task SENTENCE", status=2
        )
    line = chosen(last, options.number)
    if options.yes and not options.run:
        raise Failure("--yes goes with --run", status=2)
    if options.task and not options.save:
        raise Failure("--for goes with --save", status=2)
    if last.kind == ListKind.OWN:
        _only_taken(options, last)
        return make_call(chosen(last, options.number))
    if last.kind == ListKind.NAMES:
        return _read(session, options, line)
    return _act(session, options, last, line)


def chosen(last: Remembered, number: int) -> str:
    """The line of that number of a list. Raises Failure if there is none."""
    if not 1 <= number <= len(last.lines):
        raise Failure(f"the last list has the lines 1 to {len(last.lines)}", status=2)
    return last.lines[number - 1]


def _act(session: Session, options: argparse.Namespace, last: Remembered, line: str) -> int:
    """What is asked for with a command line."""
    if options.unpick:
        from dowsing.cli.commands import unpick

        return unpick.run(session, as_given(unpick, line))
    if options.compose:
        from dowsing.cli.commands import compose

        return compose.run(session, as_given(compose, line))
    if options.save:
        from dowsing.cli.commands.save import keep

        told = last.tasks[options.number - 1] if options.number <= len(last.tasks) else ""
        said = (
            "; ".join([last.task, *last.again])
            if last.kind == ListKind.TASK and options.number == 1
            else told
        )
        return keep(session, line, options.task or said)
    if options.run:
        from dowsing.cli.running import run_line

        return run_line(session, line, options.yes)
    if options.copy:
        from dowsing.terminal.clipboard import copy

        by = copy(line)
        if not by:
            raise Failure(
                "there is no clipboard program here and no terminal that could take it; print it "
                "instead",
                status=3,
            )
        message(f"copied by {by}: {escaped(line)}")
        return 0
    if session.json:
        session.print_json({"line": line})
        return 0
    if has_unsafe(line):
        message(
            "the line holds characters that are not seen, shown as \\x1b and the like; --copy and "
            "--run take it as it is"
        )
        line = escaped(line)
    write(line + "\n")
    return 0


def _read(session: Session, options: argparse.Namespace, label: str) -> int:
    """Read the page of a name that was listed, or compose a line of it."""
    if options.compose:
        from dowsing.cli.commands import compose

        name = label.partition("(")[0]
        return compose.run(session, as_given(compose, name))
    _only_taken(options, None)
    from dowsing.cli.commands import read

    return read.run(session, as_given(read, label))


def _only_taken(options: argparse.Namespace, last: Remembered | None) -> None:
    """Raises Failure if more is asked for than a list without command lines can do."""
    if (
        options.copy
        or options.run
        or options.save
        or options.unpick
        or (options.compose and last is not None)
    ):
        does = "looks that up" if last is not None else "reads that page"
        raise Failure(
            f"the last list has no command lines; dowsing take {options.number} {does}", status=2
        )
