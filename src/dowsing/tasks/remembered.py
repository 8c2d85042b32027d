"""What was last listed in a terminal, so that `take` and `--again` know it. One small file for each
terminal.
"""

from __future__ import annotations

import os
from enum import StrEnum

from dowsing.model.plainfile import plain_only
from dowsing.model.record import Record
from dowsing.model.replacing import replace_text

KEEP = 20  # files


class ListKind(StrEnum):
    """What the lines of a list are."""

    TASK = "task"
    EXAMPLES = "examples"
    SAVED = "saved"
    NAMES = "names"  # labels of entries
    OWN = "own"  # look-ups of ours


class Remembered(Record):
    """The last list and its lines; `task` and `again` are what was asked, `tasks` what each line is
    for.
    """

    kind: ListKind
    task: str
    again: list[str]
    lines: list[str]
    tasks: list[str] = []  # noqa: RUF012 - a record is immutable


def _path(folder: str) -> str:
    try:
        terminal = os.getsid(0)
    except OSError:
        terminal = os.getppid()
    return os.path.join(folder, "last", f"{terminal}.list")


#: What parts the fields of a file, and the texts of a field. A text that holds one of them has it
#: behind `_GUARD`.
_FIELDS, _TEXTS, _GUARD = "\x1e", "\x1f", "\x1c"
_GUARDED = {_GUARD: _GUARD + "a", _FIELDS: _GUARD + "b", _TEXTS: _GUARD + "c"}


def _guarded(text: str) -> str:
    for char, written in _GUARDED.items():
        text = text.replace(char, written)
    return text


def _as_it_was(text: str) -> str:
    for char, written in reversed(_GUARDED.items()):
        text = text.replace(written, char)
    return text


def remember(folder: str, last: Remembered) -> None:
    """Keep the last list of this terminal below `folder`. That it cannot be kept is no reason to
    fail.
    """
    path = _path(folder)
    several = (_TEXTS.join(map(_guarded, texts)) for texts in (last.again, last.lines, last.tasks))
    try:
        is_first = not os.path.exists(path)
        if is_first:
            os.makedirs(os.path.dirname(path), exist_ok=True)
        replace_text(path, _FIELDS.join((last.kind, _guarded(last.task), *several)), lasting=False)
        if is_first:  # the files of terminals that are long gone
            old = sorted(
                os.scandir(os.path.dirname(path)),
                key=lambda entry: entry.stat().st_mtime,
                reverse=True,
            )
            for entry in old[KEEP:]:
                os.unlink(entry.path)
    except OSError:  # what suppresses it would cost each look-up a millisecond to load
        pass


def recall(folder: str) -> Remembered | None:
    """The last list of this terminal, None if there was none or it is damaged."""
    try:
        with open(
            _path(folder), encoding="utf-8", errors="surrogateescape", newline="", opener=plain_only
        ) as file:
            kind, task, *several = file.read().split(_FIELDS)
        again, lines, tasks = (
            [_as_it_was(one) for one in text.split(_TEXTS)] if text else [] for text in several
        )
        return Remembered(ListKind(kind), _as_it_was(task), again, lines, tasks)
    except (OSError, ValueError):
        return None
