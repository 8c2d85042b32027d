"""Asking the user before something is done."""

from __future__ import annotations

import re
import sys


def can_ask() -> bool:
    """Whether there is a terminal to ask on."""
    return sys.stdin is not None and sys.stdin.isatty() and sys.stderr.isatty()


def agreed(question: str) -> bool:
    """Whether the user says yes; no is what an empty answer means."""
    sys.stderr.write(f"{question} [y/N] ")
    sys.stderr.flush()
    return bool(re.fullmatch(r"y(es)?", sys.stdin.readline().strip().lower()))
