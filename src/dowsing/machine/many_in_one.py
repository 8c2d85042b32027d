"""Programs that are many in one, called by links that have the names of others."""

from __future__ import annotations

import os

from dowsing.knowledge.command_classes import CommandClass, members_of
from dowsing.machine.search_path import executables


def maker_of(name: str, search_path: list[str]) -> str:
    """The program of many in one that runs when `name` is typed, `busybox`; "" where it is a
    program of its own.
    """
    found = executables(name, search_path)[:1]
    if not found or not os.path.islink(found[0]):
        return ""
    real = os.path.basename(os.path.realpath(found[0]))
    return real if real != name and real in members_of(CommandClass.MANY_IN_ONE) else ""
