"""Asks many programs for their usage, several at a time; the answers are kept."""

from __future__ import annotations

import os
from concurrent.futures import ThreadPoolExecutor
from typing import TypeVar

from dowsing.model.record import Record
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.sources.asking import ask_program

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.machine.settings import Settings

WORKERS = 4
One = TypeVar("One")
Answer = TypeVar("Answer")


class Asked(Record):
    """A program that was to be asked: whether it has a usage text, and why not."""

    path: str
    told: bool
    says: str = ""

    @property
    def name(self) -> str:
        """The name of the program."""
        return os.path.basename(self.path)


def ask_many(
    paths: list[str], settings: Settings, progress: Callable[[int, int], None] | None
) -> list[Asked]:
    """Ask the programs of these files, in order."""

    def ask(path: str) -> Asked:
        usage = ask_program(path, os.path.basename(path), settings, True)
        told = usage is not None and usage.kind == UsageKind.USAGE
        return Asked(path, told, usage.says if usage is not None else "")

    return at_once(ask, paths, progress)


def at_once(
    ask: Callable[[One], Answer], asked: list[One], progress: Callable[[int, int], None] | None
) -> list[Answer]:
    """The answers to all that is asked, in order; several are asked at a time."""
    found: list[Answer] = []
    pool = ThreadPoolExecutor(WORKERS)
    try:
        for answer in pool.map(ask, asked):
            found.append(answer)
            if progress:
                progress(len(found), len(asked))
    finally:
        pool.shutdown(cancel_futures=True)  # an interrupt does not wait for those not yet asked
    return found
