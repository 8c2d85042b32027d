"""Progress on stderr."""

from __future__ import annotations

import contextlib
import sys
from collections.abc import Callable, Iterator

from dowsing.terminal.screen import message


@contextlib.contextmanager
def building(
    title: str, quiet: bool = False, what: str = "pages"
) -> Iterator[Callable[[int, int], None] | None]:
    """A progress function for long work over `what`: a bar on a terminal, one line before and after
    elsewhere.
    """
    if quiet:
        yield None
        return
    if not sys.stderr.isatty():
        message(title)
        done = [0]

        def count(at: int, total: int) -> None:
            done[0] = at

        yield count
        message(f"{done[0]} {what} read")
        return
    from rich.console import Console
    from rich.progress import (
        BarColumn,
        MofNCompleteColumn,
        Progress,
        TextColumn,
        TimeRemainingColumn,
    )

    columns = (
        TextColumn("dowsing: {task.description}"),
        BarColumn(),
        MofNCompleteColumn(),
        TextColumn(what),
        TimeRemainingColumn(),
    )
    with Progress(
        *columns, console=Console(stderr=True), transient=True, refresh_per_second=5
    ) as bar:
        task = bar.add_task(title, total=None)
        yield lambda at, total: bar.update(task, completed=at, total=total)
