"""Aliases and functions, as an interactive shell has them from the user's start-up files."""

from __future__ import annotations

import os
import subprocess

from dowsing.machine.shells.records import RECORD_END, SEPARATOR, bare

SECONDS = 10
_SCRIPT = "printf '\\036'\n{alias}\nprintf '\\037'\n{function}\nprintf '\\036'\n"


def ask_definitions(shell: str, alias: str, function: str) -> list[tuple[str, str]]:
    """What the lines `alias` and `function` print in an interactive shell, as (kind, text), without
    empty ones.

    It is the user's own shell with the user's own files, which is what was asked for: no guard.
    """
    try:
        run = subprocess.run(
            [shell, "-i", "-c", _SCRIPT.format(alias=alias, function=function)],
            stdin=subprocess.DEVNULL,
            capture_output=True,
            timeout=SECONDS,
            start_new_session=True,
            env={**os.environ, "TERM": "dumb"},
            check=False,
        )
    except (OSError, subprocess.TimeoutExpired):
        return []
    parts = run.stdout.decode("utf-8", "replace").split(
        RECORD_END
    )  # what start-up files print comes before
    if len(parts) < 3 or SEPARATOR not in parts[-2]:
        return []
    first, _, second = parts[-2].partition(SEPARATOR)
    found = [("alias", bare(first.strip("\n"))), ("function", bare(second.strip("\n")))]
    return [(kind, text) for kind, text in found if text.strip()]
