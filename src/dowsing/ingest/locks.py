"""Which process may write: one that makes an index of names and summaries, and one that makes it
whole or brings it up to date.
"""

from __future__ import annotations

import contextlib
import os
from collections.abc import Iterator
from enum import StrEnum


class Work(StrEnum):
    """What is written; the value is the ending of the file that is locked meanwhile."""

    HEADS = "lock"
    UPKEEP = "upkeep"


class Lock:
    """The right to do a work on an index, while the file that stands for it is there."""

    def __init__(self, place: str, descriptor: int) -> None:
        self._place, self._descriptor = place, descriptor

    @property
    def is_lost(self) -> bool:
        """Whether somebody has removed the file: another process may be at the same work now."""
        try:
            return not os.path.samestat(os.fstat(self._descriptor), os.stat(self._place))
        except OSError:
            return True


@contextlib.contextmanager
def alone(path: str, work: Work) -> Iterator[Lock]:
    """Only one process at this work on the index of that path; the next waits until it is done.
    Raises OSError.
    """
    place = f"{path}.{work}"
    while True:
        descriptor = _opened(place)
        lock = Lock(place, descriptor)
        try:
            _lock(descriptor)
            if lock.is_lost:  # removed while this one waited
                continue
            yield lock
            return
        finally:
            os.close(descriptor)


def _lock(descriptor: int) -> None:
    try:
        import fcntl
    except ImportError:  # no such locks on this system: the rename is enough to stay whole
        return
    fcntl.flock(descriptor, fcntl.LOCK_EX)


def is_at_work(path: str, work: Work = Work.UPKEEP) -> bool:
    """Whether a process is at this work on the index of that path."""
    try:
        import fcntl

        descriptor = _opened(f"{path}.{work}")
    except (ImportError, OSError):
        return False
    try:
        fcntl.flock(descriptor, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        return True
    finally:
        os.close(descriptor)
    return False


def _opened(place: str) -> int:
    flags = os.O_RDWR | os.O_CREAT | getattr(os, "O_NOFOLLOW", 0) | getattr(os, "O_CLOEXEC", 0)
    return os.open(place, flags, 0o600)
