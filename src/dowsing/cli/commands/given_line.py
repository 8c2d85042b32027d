"""The command line that a command of ours is asked about."""

from __future__ import annotations

import re
import sys

from dowsing.model.errors import Failure
from dowsing.model.paths import REPLACED, as_text

MOST_READ = 1_000_000  # characters


def given_line(words: list[str], command: str = "unpick") -> str:
    """The line: one argument as it is, several put together as a shell would write them, or the
    standard input.

    `command` of ours is what it is for. Raises Failure if there is none.
    """
    if len(words) == 1:
        line = words[0]
    elif words:
        import shlex

        line = " ".join(
            word if re.fullmatch(r"[|&;<>]{1,2}|[<>]&?\d?", word) else shlex.quote(word)
            for word in words
        )
    else:
        if sys.stdin is None or sys.stdin.isatty():
            raise Failure(
                f"say a line, in quotes: dowsing {command} 'tar -xzf notes.tgz'", status=2
            )
        line = sys.stdin.buffer.read(MOST_READ).decode("utf-8", "replace").rstrip("\n")
    if not line.strip():
        raise Failure(
            f"the line is empty; say one in quotes: dowsing {command} 'tar -xzf notes.tgz'",
            status=2,
        )
    # other control characters mean something to a shell, which takes them as they are: what shows
    # the line escapes them
    return as_text(line).replace("\0", REPLACED)


def read_aliases(path: str | None) -> dict[str, str]:
    """Aliases as shells print them: `alias ll='ls -l'` or `ll='ls -l'`, one a line. Raises
    Failure.
    """
    if path is None:
        return {}
    import shlex

    try:
        with open(path, encoding="utf-8", errors="replace") as file:
            lines = file.read().splitlines()
    except OSError as error:
        raise Failure(
            f"cannot read {path}: {(error.strerror or 'failed').lower()}", status=3
        ) from None
    found: dict[str, str] = {}
    for line in lines:
        match = re.match(r"(?:alias\s+)?([^\s=]+)[=\s](.+)", line.strip())
        if match:
            try:
                found[match[1]] = (
                    " ".join(shlex.split(match[2])) if match[2][:1] in "'\"$" else match[2]
                )
            except ValueError:
                continue
    return found
