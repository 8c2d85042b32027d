"""How far the upkeep of an index is, or why it failed, told in files beside it: those who look
something up may say so.
"""

from __future__ import annotations

import contextlib
import os
import time
from collections.abc import Callable, Iterator

from dowsing.index.index_file import being_written, work_folder
from dowsing.model.markup import clean_line

EVERY = 0.5  # seconds between two writings
NOT_AGAIN = 3600  # seconds after one that failed in which none is begun unasked
MOST_REASON = 200  # characters
_NAME = "progress"


@contextlib.contextmanager
def telling(
    path: str, also: Callable[[int, int], None] | None
) -> Iterator[Callable[[int, int], None]]:
    """A function that is told the pages done and in all, writes them beside the index of that path,
    and tells `also`.
    """
    last = 0.0

    def tell(done: int, total: int) -> None:
        nonlocal last
        if also is not None:
            also(done, total)
        now = time.monotonic()
        if now - last > EVERY:
            last = now
            with contextlib.suppress(OSError):
                _write(being_written(path, _NAME), f"{done} {total}")

    try:
        yield tell
    finally:
        with contextlib.suppress(OSError):
            os.unlink(os.path.join(work_folder(path), _NAME))


def progress_of(path: str) -> tuple[int, int] | None:
    """The pages done and in all of the work on the index of that path, None if it does not tell."""
    try:
        with open(os.path.join(work_folder(path), _NAME), encoding="ascii") as file:
            done, total = map(int, file.read(100).split())
    except (OSError, ValueError):
        return None
    return (done, total) if 0 <= done <= total and total else None


def note_failure(path: str, says: str) -> None:
    """Note why the index of that path could not be made or brought up to date; "" once it is."""
    file = f"{path}.failed"
    if says:
        with contextlib.suppress(OSError):
            _write(file, says[:MOST_REASON])
    else:
        with contextlib.suppress(OSError):
            os.unlink(file)


def failure_of(path: str) -> str:
    """Why the index of that path could not be made a short time ago; "" if that is not so."""
    try:
        with open(f"{path}.failed", encoding="utf-8", errors="replace") as file:
            if time.time() - os.fstat(file.fileno()).st_mtime < NOT_AGAIN:
                return clean_line(file.read(MOST_REASON))
    except OSError:
        pass
    return ""


def _write(file: str, text: str) -> None:
    """Put a new file in its place; whatever lies there under that name is not written into."""
    part = file + ".part"
    with contextlib.suppress(FileNotFoundError):
        os.unlink(part)
    flags = os.O_WRONLY | os.O_CREAT | os.O_EXCL
    with open(os.open(part, flags, 0o600), "w", encoding="utf-8", errors="replace") as out:
        out.write(text)
    os.replace(part, file)
