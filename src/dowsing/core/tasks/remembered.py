"""What was last listed in a terminal, so that `take` and `--again` know it. One small file for each terminal."""

from __future__ import annotations

import os

from dowsing.core.record import Record

KEEP = 20  # files


class Remembered(Record):
    """The last list: `kind` is task, examples or saved, whose `lines` are command lines, or names, whose lines are labels
    of entries; `task` and `again` what was asked; `tasks` what each line is for."""

    kind: str
    task: str
    again: list[str]
    lines: list[str]
    tasks: list[str] = []  # noqa: RUF012 - a record is immutable


def _path(folder: str) -> str:
    try:
        terminal = os.getsid(0)
    except OSError:
        terminal = os.getppid()
    return os.path.join(folder, "last", f"{terminal}.json")


def remember(folder: str, last: Remembered) -> None:
    """Keep the last list of this terminal below `folder`. That it cannot be kept is no reason to fail."""
    import contextlib
    import json

    path = _path(folder)
    new = f"{path}.{os.getpid()}.new"
    with contextlib.suppress(OSError):
        os.makedirs(os.path.dirname(path), exist_ok=True)
        with open(new, "w", encoding="utf-8") as file:
            json.dump([last.kind, last.task, last.again, last.lines, last.tasks], file)
        os.replace(new, path)
        old = sorted(os.scandir(os.path.dirname(path)), key=lambda entry: entry.stat().st_mtime, reverse=True)
        for entry in old[KEEP:]:
            os.unlink(entry.path)


def recall(folder: str) -> Remembered | None:
    """The last list of this terminal, None if there was none or it is damaged."""
    import json

    try:
        with open(_path(folder), encoding="utf-8") as file:
            kind, task, again, lines, tasks = json.load(file)
        texts = [[str(one) for one in several] for several in (again, lines, tasks)]
        return Remembered(str(kind), str(task), *texts)
    except (OSError, ValueError, TypeError):
        return None
