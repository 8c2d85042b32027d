"""The upkeep of the index in the background: a process of its own makes it whole and takes up what
came and went, at low priority.
"""

from __future__ import annotations

import contextlib
import os
import sys

from dowsing.ingest.progress_file import failure_of, progress_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.machine.settings import Settings

#: The module that the process runs (cli/upkeep.py).
PROGRAM = "dowsing.cli.upkeep"


def begin(settings: Settings) -> None:
    """Start the process, without the terminal. Where that cannot be done, the next look-up tries
    again.
    """
    nothing = [(os.POSIX_SPAWN_OPEN, 0, os.devnull, os.O_RDONLY, 0)]
    nothing += [(os.POSIX_SPAWN_OPEN, number, os.devnull, os.O_WRONLY, 0) for number in (1, 2)]
    # -P: a folder of our name where the user happens to be is not ours
    arguments = [sys.executable, "-P", "-m", PROGRAM, *(["--demo"] if settings.demo else [])]
    environment = {**os.environ, "DOWSING_CACHE": settings.cache}
    # a session of its own: it outlives the terminal
    with contextlib.suppress(OSError, NotImplementedError):
        os.posix_spawn(sys.executable, arguments, environment, file_actions=nothing, setsid=True)


def may_begin(settings: Settings, path: str) -> bool:
    """Whether it may be started unasked: the settings let it, the folder can be written, and it has
    not just failed.
    """
    if settings.values.get("background") == "never" or failure_of(path):
        return False
    return os.access(settings.cache, os.W_OK | os.X_OK)


def told(store: Store, came: int) -> str:
    """A line about what the index does not have yet, "" for nothing. `came`: how many page files
    came and went.
    """
    failed = failure_of(store.path)
    done = progress_of(store.path)
    how_far = f", {100 * done[0] // done[1]} % done" if done else ""
    if not store.is_whole:
        said = "so far the index has names and summaries; the rest "
        if failed:
            return f"{said}could not be made ({failed}): dowsing index tries again"
        return f"{said}is being made in the background{how_far}"
    if not came:
        return ""
    pages = f"{came} pages came or went" if came > 1 else "a page came or went"
    if failed:
        return f"{pages} and could not be taken up ({failed}): dowsing index tries again"
    return f"{pages}: the index is being brought up to date in the background{how_far}"
