"""`unpick`: a command line, or a whole script, taken apart."""

from __future__ import annotations

import argparse
import os

from dowsing.cli.commands.given_line import given_line, read_aliases
from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.model.errors import Failure
from dowsing.model.markup import clean_line
from dowsing.session.session import Session, from_shell
from dowsing.terminal.screen import message, write

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.unpicked import Unpicked

DESCRIPTION = (
    "What each piece of a command line does, with the page that says so; where it is wrong; what "
    "it changes. The line is best given in quotes, or on the standard input. A file is read as a "
    "whole script: of the shell, a Dockerfile, a makefile, a unit or a crontab."
)
OTHERS_ARE_WORDS = True
MOST_READ = 2_000_000  # bytes of a script


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "line",
        nargs="*",
        metavar="LINE|FILE",
        help="'tar -xzf notes.tgz', a script, or either on the standard input",
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
    ways.add_argument(
        "--only",
        metavar="problems|effects",
        help="of a script only what is wrong, or only what it changes",
    )
    parser.add_argument(
        "--aliases", metavar="FILE", help="a file with what the shell's alias command prints"
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    if options.only not in (None, "problems", "effects"):
        raise Failure("--only takes problems or effects", status=2)
    path = _script_path(options.line)
    if path:
        return _script(session, options, os.path.basename(path), _contents(path))
    line = given_line(options.line)
    if options.only or _is_script(line, from_input=not options.line):
        return _script(session, options, "standard input" if not options.line else "line", line)
    aliases = read_aliases(options.aliases)
    found = unpick(line, CommandFinder(session.store, session.settings, ask=True), aliases)
    if options.long or options.short or options.tidy:
        return _rewritten(session, options, found)
    status = 1 if found.mistaken else 0
    if session.json:
        from dowsing.render.line_json import unpicked_json

        session.print_json(unpicked_json(found))
        return status
    from dowsing.render.piece_text import unpicked_lines

    lines = unpicked_lines(found, session.screen.width, session.program, from_shell())
    session.screen.show(lines, paged=not from_shell())
    return status


# --- a whole script
# ---------------------------------------------------------------------------------------------


def _script_path(words: list[str]) -> str:
    """The script that is meant by the words, "" if they are a line. A program of one word is a
    line: only a file of text is read.
    """
    if len(words) != 1 or not os.path.isfile(words[0]):
        return ""
    try:
        with open(words[0], "rb") as file:
            begin = file.read(4096)
    except OSError:
        return words[0]  # reading all of it will tell why
    if b"\0" in begin or not begin.strip():
        return ""
    first = begin.partition(b"\n")[0]
    if first.startswith(b"#!") and not any(one in first for one in (b"sh", b"make")):
        raise Failure(
            f"{clean_line(words[0])} is a program for another interpreter; of scripts those of the "
            "shell are read",
            status=2,
        )
    return words[0]


def _contents(path: str) -> str:
    """The text of a file. Raises Failure."""
    try:
        with open(path, "rb") as file:
            return file.read(MOST_READ).decode("utf-8", "replace").replace("\r\n", "\n")
    except OSError as error:
        says = (error.strerror or "failed").lower()
        raise Failure(f"cannot read {clean_line(path)}: {says}", status=3) from None


def _is_script(text: str, from_input: bool) -> bool:
    """Whether a text is more than one line: `\\` at an end and here-documents go on."""
    if not from_input:
        return False
    lines = [line for line in text.replace("\\\n", " ").split("\n") if line.strip()]
    return len(lines) > 1 and "<<" not in lines[0]


def _script(session: Session, options: argparse.Namespace, name: str, text: str) -> int:
    """Read a whole script and say what it does."""
    if options.long or options.short or options.tidy:
        raise Failure("--long, --short and --tidy rewrite one line, not a script", status=2)
    from dowsing.commandline.scripts.script import read_script

    finder = CommandFinder(session.store, session.settings, ask=False, suggest=True)
    script = read_script(name, text, finder)
    status = 1 if script.mistaken else 0
    only = options.only or ""
    if session.json:
        from dowsing.render.script_json import script_json

        session.print_json(script_json(script, only))
        return status
    from dowsing.render.script_text import script_lines

    lines = script_lines(script, session.screen.width, only, session.program)
    session.screen.show(lines, paged=not from_shell())
    return status


# --- a line in another form
# ----------------------------------------------------------------------------------------


def _rewritten(session: Session, options: argparse.Namespace, found: Unpicked) -> int:
    """The line in another form, and what was left out of it."""
    from dowsing.commandline.rewriting.rewrite import kept, long_form, short_form, tidied
    from dowsing.render.phrases import words
    from dowsing.render.piece_text import mistakes_of

    left_out: list[str] = []
    as_typed: list[str] = []
    if options.tidy:
        line, needless = tidied(found)
        left_out = [f"{text}: {words(reason)}" for text, reason in needless]
    else:
        line = long_form(found) if options.long else short_form(found)
        as_typed = [f"{flag}: {words(reason)}" for flag, reason in kept(found, options.long)]
    status = 1 if found.mistaken else 0
    if session.json:
        from dowsing.render.line_json import unpicked_json

        more = {"rewritten": line, "left_out": left_out, "kept": as_typed}
        session.print_json({**unpicked_json(found), **more})
        return status
    write(line + "\n")
    for said in left_out:
        message(f"left out {clean_line(said)}")
    for said in as_typed:
        message(f"kept {clean_line(said)}")
    for _, _, says, _ in mistakes_of(found):
        message(clean_line(says))
    return status
