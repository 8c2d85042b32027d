"""The rest of an index of names and summaries: made by a process of its own, at low priority."""

from __future__ import annotations

import contextlib
import os
import sys

from dowsing.ingest.build import is_being_built
from dowsing.ingest.progress_file import failure_of, progress_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.settings import Settings

POLITE = 15  # steps of niceness: others go first


def have_rest_made(path: str, settings: Settings) -> str:
    """Have the whole index of that path made if nobody is at it; a line that says how far it is."""
    failed = failure_of(path)
    if failed:
        return (
            f"so far the index has names and summaries; the rest could not be made ({failed}): "
            "dowsing index tries again"
        )
    if not is_being_built(path):
        _begin(settings)
    done = progress_of(path)
    how_far = f", {100 * done[0] // done[1]} % done" if done else ""
    return (
        "so far the index has names and summaries; the rest is being made in the background"
        f"{how_far}"
    )


def _begin(settings: Settings) -> None:
    """Start the process that makes the rest: on its own, without the terminal, in no hurry."""
    import subprocess

    demo = ["--demo"] if settings.demo else []
    # where this cannot be done, the next look-up tries again
    with contextlib.suppress(OSError, subprocess.SubprocessError):
        subprocess.Popen(
            # -P: a folder of our name where the user happens to be is not ours
            [sys.executable, "-P", "-m", "dowsing", *demo, "index", "--format", "json"],
            env={**os.environ, "DOWSING_CACHE": settings.cache},
            stdin=subprocess.DEVNULL,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            start_new_session=True,
            preexec_fn=_be_polite,  # nothing else runs in this process
        )


def _be_polite() -> None:
    with contextlib.suppress(OSError):
        os.nice(POLITE)
