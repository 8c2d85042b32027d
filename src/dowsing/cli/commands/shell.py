"""`shell`: completion and keys for the shell."""

from __future__ import annotations

import argparse
import os

from dowsing.model.errors import Failure
from dowsing.session.session import Session
from dowsing.shell.snippets import KEYS, SAYS, SHELLS, BadKey, snippet, source_line, startup_file
from dowsing.terminal.screen import message, write

DESCRIPTION = (
    "Prints what puts Dowsing into a shell: completion of its commands and of names, four keys in "
    "the line "
    f"({', '.join(f'{key}: {SAYS[name]}' for name, key in KEYS.items())}) and save --last. "
    "--install writes it to a file and one line into the shell's start-up file."
)
OTHERS_ARE_WORDS = True
FORMATS = ("text",)  # that it prints


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("what", nargs="*", metavar="bash|zsh|fish", help="the shell")
    parser.add_argument(
        "--install", action="store_true", help="write it to a file that the start-up file sources"
    )
    parser.add_argument(
        "--key",
        action="append",
        default=[],
        metavar="WHAT=KEY",
        help="another key: next=alt-n, read= for none",
    )
    parser.add_argument("--at", type=int, metavar="N", help=argparse.SUPPRESS)
    parser.add_argument("--described", action="store_true", help=argparse.SUPPRESS)


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text")
    what = options.what[0] if options.what else ""
    if what == "complete":
        from dowsing.cli.completion import candidates

        found = candidates(session, options.what[1:])
        texts = [
            f"{one}\t{says}" if options.described and says else one for one, says in found.items()
        ]
        write("".join(f"{text}\n" for text in texts))
        return 0
    if what == "page":
        from dowsing.cli.commands.pointing import read_at

        return read_at(session, " ".join(options.what[1:]), options.at)
    if what not in SHELLS or len(options.what) != 1:
        raise Failure(f"say which shell: dowsing shell {'|'.join(SHELLS)}", status=2)
    try:
        text = snippet(what, {**session.settings.keys, **_keys(options.key)})
    except BadKey as error:
        raise Failure(str(error), status=2) from None
    if options.install:
        _install(session, what, text)
    else:
        write(text)
    return 0


def _keys(given: list[str]) -> dict[str, str]:
    keys = {}
    for one in given:
        name, equals, key = one.partition("=")
        if not equals:
            raise Failure(f"--key takes WHAT=KEY, for example next=alt-n, not {one}", status=2)
        keys[name] = key
    return keys


def _install(session: Session, shell: str, text: str) -> None:
    """The snippet into the data folder, and the line that sources it into the start-up file,
    once.
    """
    from dowsing.model.errors import CannotKeep
    from dowsing.userdata.user_files import change

    path = os.path.join(session.settings.data, SHELLS[shell])
    start = startup_file(shell, dict(os.environ))
    line = source_line(shell, path)
    known = False

    def with_line(old: str) -> str:
        nonlocal known
        known = line in old.split("\n")
        return old if known else old + ("" if not old or old.endswith("\n") else "\n") + line + "\n"

    try:
        change(path, lambda _: text)
        change(start, with_line)
        for changed in (path, start):  # nothing of ours is left beside the user's own file
            os.unlink(f"{changed}.lock")
    except OSError:
        pass
    except CannotKeep as error:
        raise Failure(str(error), status=3) from None
    message(
        f"{path} is written; {start} "
        f"{'sources it already' if known else 'has this line more: ' + line}"
    )
    message(f"begin a new {shell}, or in this one: source {path}")
