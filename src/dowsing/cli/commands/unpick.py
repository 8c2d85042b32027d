"""`unpick`: a command line taken apart."""

from __future__ import annotations

import argparse

from dowsing.cli.commands.given_line import given_line, read_aliases
from dowsing.commandline.command_finder import CommandFinder
from dowsing.commandline.line import unpick
from dowsing.model.markup import clean_line
from dowsing.session.session import Session, from_shell
from dowsing.terminal.screen import write

DESCRIPTION = (
    "What each piece of a command line does, with the page that says so; where it is wrong; what "
    "it changes. The line is best given in quotes, or on the standard input."
)
OTHERS_ARE_WORDS = True


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "line",
        nargs="*",
        metavar="LINE",
        help="'tar -xzf notes.tgz', or read from the standard input",
    )
    ways = parser.add_mutually_exclusive_group()
    ways.add_argument(
        "--long", action="store_true", help="print the line with long options instead"
    )
    ways.add_argument(
        "--short", action="store_true", help="print the line with short options instead"
    )
    ways.add_argument(
        "--tidy", action="store_true", help="print the line without what is the default anyway"
    )
    parser.add_argument(
        "--aliases", metavar="FILE", help="a file with what the shell's alias command prints"
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    line = given_line(options.line)
    aliases = read_aliases(options.aliases)
    found = unpick(line, CommandFinder(session.store, session.settings, ask=True), aliases)
    status = 1 if found.mistaken else 0
    if options.long or options.short or options.tidy:
        from dowsing.commandline.rewrite import long_form, short_form, tidied
        from dowsing.render.phrases import words

        left_out: list[str] = []
        if options.tidy:
            line, needless = tidied(found)
            left_out = [f"{text}: {words(reason)}" for text, reason in needless]
        else:
            line = long_form(found) if options.long else short_form(found)
        if session.json:
            from dowsing.render.line_json import unpicked_json

            session.print_json({**unpicked_json(found), "rewritten": line, "left_out": left_out})
            return status
        write(line + "\n")
        from dowsing.render.piece_text import mistakes_of
        from dowsing.terminal.screen import message

        for said in left_out:
            message(f"left out {clean_line(said)}")
        for _, _, says, _ in mistakes_of(found):
            message(clean_line(says))
        return status
    if session.json:
        from dowsing.render.line_json import unpicked_json

        session.print_json(unpicked_json(found))
        return status
    from dowsing.render.piece_text import unpicked_lines

    lines = unpicked_lines(found, session.screen.width, session.program, from_shell())
    session.screen.show(lines, paged=not from_shell())
    return status
