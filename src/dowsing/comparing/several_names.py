"""Looks at many names in several processes, each with a connection to the index of its own."""

from __future__ import annotations

import multiprocessing
import os
from concurrent.futures import ProcessPoolExecutor

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable, Iterator
    from typing import TypeVar

    from dowsing.index.store import Store
    from dowsing.machine.settings import Settings

    T = TypeVar("T")
    #: What is found out about one name, with the store of the process that does it.
    Look = Callable[[str, Store], T]

FEW = 24  # names that one process is done with before others have begun
PORTION = 6  # names that are looked at in one go

_here: list = []  # type: ignore[type-arg]


def looked_at(names: list[str], look: Look[T], store: Store, settings: Settings) -> Iterator[T]:
    """What `look` finds out about each name, in their order."""
    cores = len(os.sched_getaffinity(0)) if hasattr(os, "sched_getaffinity") else 1
    if len(names) < FEW or cores < 2:
        for name in names:
            yield look(name, store)
        return
    # the function is handed on by the fork itself: what it holds need not be written down
    _here[:] = [look, settings]
    portions = [names[at : at + PORTION] for at in range(0, len(names), PORTION)]
    pool = ProcessPoolExecutor(cores, multiprocessing.get_context("fork"), _begin)
    try:
        for found in pool.map(_portion, portions):
            yield from found
    finally:
        pool.shutdown(cancel_futures=True)
        _here.clear()


def _begin() -> None:
    """A connection of this process's own."""
    from dowsing.ingest.refresh import open_index

    _here.append(open_index(_here[1])[0])


def _portion(names: list[str]) -> list:  # type: ignore[type-arg]
    look, _, store = _here
    return [look(name, store) for name in names]
