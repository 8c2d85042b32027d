"""Running a line that the user chose, after a look at it."""

from __future__ import annotations

import os
import sys

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.knowledge.recipes import SLOT
from dowsing.model.errors import Failure
from dowsing.model.markup import BOLD, ITALIC, ROMAN, clean_line, escaped, has_unsafe
from dowsing.render.phrases import words
from dowsing.render.piece_text import effect_line
from dowsing.session.session import Session
from dowsing.terminal.asking import agreed, can_ask


def run_line(session: Session, line: str, yes: bool) -> int:
    """Show the line with what it would change, ask, and run it; the exit status is the line's own.

    Raises Failure if a place in it is open, or if nobody can be asked and `yes` was not said.
    """
    missing = list(dict.fromkeys(SLOT.findall(line)))
    if missing:
        raise Failure(
            f"the line has places without a value: {', '.join(missing)}; say them, or edit the "
            f"line: {line}",
            status=2,
        )
    if not yes and not can_ask():
        raise Failure(
            "a line is run only after asking, and there is no terminal to ask on; --yes runs it "
            "unasked",
            status=2,
        )
    found = unpick(line, CommandFinder(session.store, session.settings))
    said = [f"   {BOLD}{escaped(line)}{ROMAN}"]
    if has_unsafe(line):
        said.append(
            f"   {ITALIC}careful{ROMAN}: it holds characters that are not seen, shown escaped "
            "here, run as they are"
        )
    said += [f"   {ITALIC}careful{ROMAN}: {clean_line(effect_line(one))}" for one in found.changes]
    said += [
        f"   {ITALIC}mistake{ROMAN}: {clean_line(words(problem.reason))}"
        for problem in found.problems
    ]
    sys.stderr.write("\n".join(session.screen.encode(one) for one in said) + "\n")
    sys.stderr.flush()
    if not yes and not agreed("run it?"):
        sys.stderr.write("not run\n")
        return 1
    return _run(line)


def _run(line: str) -> int:
    import shutil
    import subprocess

    # recipes are written for bash; where it is missing the plain shell can do most of them
    shell = shutil.which("bash") or os.environ.get("SHELL") or "/bin/sh"
    try:
        done = subprocess.run([shell, "-c", line], check=False)
    except OSError as error:
        raise Failure(
            f"{shell} cannot be run: {(error.strerror or 'failed').lower()}", status=3
        ) from None
    except KeyboardInterrupt:
        return 130
    return done.returncode if done.returncode >= 0 else 128 - done.returncode
