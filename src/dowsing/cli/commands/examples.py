"""`examples`: recipes for a name, and the lines that its own texts give."""

from __future__ import annotations

import argparse

from dowsing.cli.commands.options import named_first
from dowsing.model.document import Document
from dowsing.model.errors import Failure
from dowsing.render.typed import typed
from dowsing.session.absent import absent_lookup
from dowsing.session.naming import open_found
from dowsing.session.session import Session
from dowsing.session.user_data import note_read, own_about
from dowsing.tasks.recipe_examples import examples_of
from dowsing.tasks.remembered import ListKind, Remembered, remember

DESCRIPTION = (
    "Lines for the usual uses of a name: recipes, then the examples that its own page gives."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "words", nargs="*", metavar="NAME [WORD]", help="tar, tar exclude, git commit"
    )
    parser.add_argument(
        "--limit",
        type=int,
        choices=range(1, 101),
        default=15,
        metavar="N",
        help="so many lines (15)",
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    absent = absent_lookup(session, options.words)
    found, asked = (absent, options.words[1:]) if absent else named_first(session, options.words)
    assert found.entry is not None
    document = Document(found.entry.name, "", "", []) if absent else open_found(session, found)
    names = [*found.entry.all_names, found.name.text]
    shown = examples_of(
        session.store, document, list(dict.fromkeys(names)), asked, own_about(session, names)
    )
    if not shown:
        about = f" about “{' '.join(asked)[:40]}”" if asked else ""
        raise Failure(
            f"there is no recipe for {found.entry.label}{about}, and its page gives no example; "
            f"its forms in words: {session.program} syntax {typed(found.entry.name)}"
        )
    lines, tasks = [one.line for one in shown], [one.task for one in shown]
    remember(
        session.settings.data, Remembered(ListKind.EXAMPLES, found.entry.name, [], lines, tasks)
    )
    if session.json:
        from dowsing.commandline.reading.command_finder import CommandFinder
        from dowsing.render.line_json import answer_json
        from dowsing.tasks.answers import shown_line

        finder = CommandFinder(session.store, session.settings, suggest=False)
        answers = [
            answer_json(shown_line(one.task, one.line, one.origin, finder))
            for one in shown[: options.limit]
        ]
        said = " ".join(options.words)
        told = {"task": said, "again": [], "name": found.entry.name, "section": found.entry.section}
        session.print_json({**told, "total": len(shown), "answers": answers})
    else:
        from dowsing.render.task_answers import example_lines

        lines = example_lines(
            shown, found.entry, options.limit, session.screen.width, session.program
        )
        session.screen.show(lines, paged=True)
        note_read(session, found.entry.label)
    return 0
