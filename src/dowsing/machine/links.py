"""Links, followed one step at a time."""

from __future__ import annotations

import os

from dowsing.model.record import Record

MOST_STEPS = 40


class LinkStep(Record):
    """A link on the way to a file: the path that is the link, where it points, whether a folder of
    the path it is.
    """

    path: str
    target: str
    folder: bool


def follow(path: str) -> tuple[list[LinkStep], str]:
    """The links on the way from `path`, in order, and the file at the end ("" if they lead nowhere
    or in a circle).
    """
    steps: list[LinkStep] = []
    current = os.path.normpath(path)
    for _ in range(MOST_STEPS):
        linked = _first_link(current)
        if linked is None:
            return steps, current if os.path.exists(current) else ""
        try:
            target = os.readlink(linked)
        except OSError:
            return steps, ""
        steps.append(LinkStep(linked, target, linked != current))
        rest = current[len(linked) :]
        current = os.path.normpath(os.path.join(os.path.dirname(linked), target)) + rest
    return steps, ""


def _first_link(path: str) -> str | None:
    """The first part of the path, from the root, that is a link."""
    at = path.find(os.sep, 1)
    while at > 0:
        if os.path.islink(path[:at]):
            return path[:at]
        at = path.find(os.sep, at + 1)
    return path if os.path.islink(path) else None
