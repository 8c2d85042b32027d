"""`saved`: the user's own lines."""

from __future__ import annotations

import argparse
import os

from dowsing.cli.commands.take import chosen
from dowsing.cli.files import may_replace, write_file
from dowsing.knowledge.recipes import Recipe, read_recipes, with_values
from dowsing.knowledge.stems import stems
from dowsing.model.errors import CannotKeep, Failure
from dowsing.model.markup import escaped
from dowsing.session.session import Session
from dowsing.session.user_data import own_lines
from dowsing.tasks.remembered import ListKind, Remembered, recall, remember
from dowsing.terminal.screen import message, write
from dowsing.userdata import DROPPED, saved_lines
from dowsing.userdata.saved_script import script_of

DESCRIPTION = (
    "The lines that you kept with save, all or those with the words, the newest first; "
    "numbered for take."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "words", nargs="*", metavar="WORD", help="words of the line or of what it is for"
    )
    ways = parser.add_mutually_exclusive_group()
    ways.add_argument(
        "--script", action="store_true", help="print them as a shell script, with what they are for"
    )
    ways.add_argument("--export", metavar="FILE", help="write them to a recipe file")
    ways.add_argument("--import", dest="taken", metavar="FILE", help="keep all recipes of a file")
    ways.add_argument(
        "--drop", type=int, metavar="N", help="keep the N-th of the last list no longer"
    )
    parser.add_argument(
        "-o", "--output", metavar="FILE", help="write the script to this file instead"
    )
    parser.add_argument(
        "--executable", action="store_true", help="with --script -o: a file that can be run"
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    if options.executable and not (options.script and options.output not in (None, "-")):
        raise Failure("--executable goes with --script -o FILE", status=2)
    if options.taken:
        return _take_in(session, options.taken)
    if options.drop is not None:
        return _drop(session, options.drop)
    kept = own_lines(session)
    lines = kept.having(set(stems(" ".join(options.words))))[::-1] if kept is not None else []
    if not lines:
        about = f" about “{' '.join(options.words)[:60]}”" if options.words else " yet"
        raise Failure(
            f"no line is saved{about}; keep one: {session.program} save 'LINE' --for 'what it is "
            "for'"
        )
    if options.script or options.export:
        _write_out(options, lines[::-1])
        return 0
    shown = [with_values(one.line, {}) for one in lines]
    remember(
        session.settings.data,
        Remembered(ListKind.SAVED, " ".join(options.words), [], shown, [one.task for one in lines]),
    )
    if session.json:
        _print_json(session, lines, " ".join(options.words))
    else:
        from dowsing.render.kept_lists import saved_lines

        session.screen.show(saved_lines(lines, session.screen.width, session.program), paged=True)
    return 0


def _print_json(session: Session, lines: list[Recipe], words: str) -> None:
    from dowsing.commandline.reading.command_finder import CommandFinder
    from dowsing.render.line_json import answer_json
    from dowsing.tasks.answers import answer_of
    from dowsing.tasks.filling import fill

    finder = CommandFinder(session.store, session.settings)
    answers = [answer_json(answer_of(fill(one, []), finder, 0.0)) for one in lines]
    session.print_json({"task": words, "again": [], "answers": answers})


def _write_out(options: argparse.Namespace, lines: list[Recipe]) -> None:
    from datetime import date

    if options.export:
        head = "# Recipes written by dowsing saved --export.\n\n"
        text, path = head + "\n".join(saved_lines.written(one) for one in lines), options.export
    else:
        text, path = script_of(lines, date.today().isoformat()), options.output
    if not path or path == "-":
        write(text)
        return
    may_replace(path)
    write_file(path, text)
    if options.executable:
        os.chmod(path, 0o755)
    message(f"{len(lines)} lines written to {path}")


def _take_in(session: Session, path: str) -> int:
    from datetime import date

    recipes, faults = read_recipes(path)
    if not recipes and faults:
        raise Failure(
            f"{path}, line {faults[0].line}: {faults[0].says}; nothing was taken in", status=3
        )
    new = 0
    try:
        for one in recipes:
            new += not saved_lines.save(session.settings.kept, one, date.today().isoformat()).known
    except CannotKeep as error:
        raise Failure(str(error), status=3) from None
    for fault in faults:
        message(f"{fault.path}, line {fault.line}: {fault.says}; left out")
    known = f"; {len(recipes) - new} were there already" if len(recipes) > new else ""
    session.screen.show([f"{new} of {len(recipes)} lines taken in{known}"])
    return 0


def _drop(session: Session, number: int) -> int:
    last = recall(session.settings.data)
    if last is None or last.kind != ListKind.SAVED:
        raise Failure(
            "--drop N means the last list of saved in this terminal; list them first: dowsing "
            "saved",
            status=2,
        )
    wanted = chosen(last, number)
    kept = own_lines(session)
    line = kept.shown_as(wanted) if kept is not None else ""
    try:
        gone = bool(line) and saved_lines.drop(session.settings.kept, line)
    except CannotKeep as error:
        raise Failure(str(error), status=3) from None
    if not gone:
        raise Failure("that line is not kept any more")
    place = os.path.join(session.settings.kept, DROPPED)
    session.screen.show(
        [f"kept no longer: {escaped(line)}", f"It is in {place}, should you want it back."]
    )
    return 0
