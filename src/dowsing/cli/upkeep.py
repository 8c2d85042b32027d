"""The process in the background that makes the index whole and takes up what came and went
(session/background.py starts it).
"""

from __future__ import annotations

import contextlib
import os
import sys

POLITE = 15  # steps of niceness: others go first


def main(arguments: list[str]) -> int:
    """Do what there is to do; the exit status."""
    from dowsing.ingest.upkeep import bring_up_to_date
    from dowsing.machine.settings import read_settings
    from dowsing.model.errors import Trouble

    with contextlib.suppress(OSError):
        os.nice(POLITE)
    try:
        bring_up_to_date(read_settings(demo="--demo" in arguments))
    except Trouble:  # which is noted beside the index
        return 3
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
