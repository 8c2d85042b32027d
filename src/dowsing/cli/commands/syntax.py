"""`syntax`: every form of a name in words."""

from __future__ import annotations

import argparse

from dowsing.cli.commands.options import kept_table
from dowsing.commandline.model.command import Command
from dowsing.commandline.reading.form_words import syntax_of
from dowsing.facts.command_table import make_table
from dowsing.index.convention_rows import conventions_of
from dowsing.model.errors import Failure
from dowsing.render.line_json import forms_json
from dowsing.render.typed import typed
from dowsing.session.naming import find_entry, open_found
from dowsing.session.session import Session

DESCRIPTION = (
    "Every form of a name in words: what must be given, what may be, what repeats, what "
    "goes together."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("name", nargs="*", metavar="NAME", help="tar, git commit, printf(1)")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    found = find_entry(session, options.name)
    assert found.entry is not None
    table = kept_table(session, found.entry) or make_table(open_found(session, found))
    known = Command(found.entry.name, found.entry.name)
    known.tables.append(table)
    known.facts = conventions_of(session.store).facts(found.entry.name)
    known.page = table.label
    known.summary = table.summary or found.entry.summary
    syntax = syntax_of(known, found.entry.name)
    if not syntax.forms:
        raise Failure(
            f"the text of {found.entry.label} shows no form; its options: "
            f"{session.program} options {typed(found.entry.name)}; other texts: {session.program} "
            f"sources {typed(found.entry.name)}"
        )
    if session.json:
        answer = {"name": found.entry.name, "section": found.entry.section, "page": syntax.page}
        session.print_json(
            {
                **answer,
                "forms": forms_json(syntax),
                "apart": syntax.apart,
                "own": syntax.own,
            }
        )
    else:
        from dowsing.render.form_lines import syntax_lines

        session.screen.show(
            syntax_lines(syntax, found.entry, session.screen.width, session.program), paged=True
        )
    return 0
