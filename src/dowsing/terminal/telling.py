"""Telling that a command cannot give its answer."""

from __future__ import annotations

from dowsing.model.errors import Failure, Unwritable
from dowsing.model.markup import clean_line, json_escaped
from dowsing.terminal.screen import message, write


def tell(failure: Failure, as_json: bool = False) -> int:
    """Print it: to stderr, or as JSON to stdout; the exit status. What cannot be written is told on
    stderr.
    """
    says = clean_line(failure.says)
    if as_json and not isinstance(failure, Unwritable):
        import json

        error = {"error": {"says": says, "nearest": failure.nearest}}
        try:
            write(json_escaped(json.dumps(error, ensure_ascii=False)) + "\n")
        except Unwritable as unwritable:
            return tell(unwritable)
        return failure.status
    if failure.nearest:
        says += ": " + ", ".join(clean_line(name) for name in failure.nearest)
    message(says)
    return failure.status
