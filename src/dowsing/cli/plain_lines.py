"""Questions in plain lines: on stderr, with answers from the standard input."""

from __future__ import annotations

import sys

from dowsing.model.markup import clean


class Ended(Exception):
    """There is no more input."""


def tell(text: str) -> None:
    """A line on stderr."""
    sys.stderr.write(clean(text) + "\n")
    sys.stderr.flush()


def ask(prompt: str) -> str:
    """What is answered to a question. Raises Ended."""
    sys.stderr.write(clean(prompt))
    sys.stderr.flush()
    line = sys.stdin.readline()
    if not line:
        tell("")
        raise Ended
    return "".join(char for char in line.rstrip("\n") if char.isprintable()).strip()
