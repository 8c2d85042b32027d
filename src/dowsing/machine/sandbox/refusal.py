"""What is never run for its usage, whatever the guard holds off: one line that says why, or
None.
"""

from __future__ import annotations

import os
import stat

from dowsing.knowledge.effects import reason_never_asked
from dowsing.machine.links import follow


def never_run(name: str) -> str | None:
    """Why a program of that name is not run, or None."""
    return reason_never_asked(name) or None


def refusal(path: str, search_path: list[str]) -> str | None:
    """Why the program at `path` is not run, or None if it may be.

    It must be an executable file that stands in a folder of PATH given from the root; neither it
    nor what its links lead to may be on the list or run with another's rights.
    """
    if not os.path.isabs(path) or os.path.dirname(path) not in [
        os.path.normpath(folder) for folder in search_path
    ]:
        return "it is not in a folder of PATH"
    real = os.path.realpath(path)
    # a program may do what the name of any link on the way to it says
    for one in dict.fromkeys(
        (path, *(step.path for step in follow(path)[0] if not step.folder), real)
    ):
        reason = never_run(os.path.basename(one))
        if reason:
            return reason if one == path else f"it leads to {one}: {reason}"
    try:
        state = os.stat(real)
    except OSError as error:
        return (error.strerror or "it cannot be looked at").lower()
    if not stat.S_ISREG(state.st_mode):
        return "it is not a file"
    if state.st_mode & (stat.S_ISUID | stat.S_ISGID):
        return "it runs with the rights of another user (set-uid)"
    if not os.access(real, os.X_OK):
        return "it may not be executed"
    return None
