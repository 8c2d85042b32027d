"""The file of the index: its name, whose it must be, how a new one takes its place, and whether it
is damaged.

Nothing is ever written into a file of that name. What is new is written into a file in the work
folder beside it, which is then renamed; so a reader needs no lock, whatever ends a writer, and the
folder may be read-only or on a network.

    index-39.sqlite         the index; the number is that of its layout
    index-39.sqlite.lock    held while one of names and summaries is made
    index-39.sqlite.upkeep  held while it is made whole or brought up to date
    index-39.sqlite.failed  why that could not be done, if it could not
    index-39.sqlite.work/   what is being written, and how far it is
"""

from __future__ import annotations

import os
import stat

from dowsing.index.schema import VERSION
from dowsing.model.plainfile import is_trusted

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

#: Where the header of a file of SQLite has four bytes for the program that it belongs to, which
#: SQLite keeps and does not use: here they hold the sum of all other bytes.
SUM_AT, SUM_SIZE = 68, 4
_BLOCK = 1 << 20  # bytes that are summed at a time
#: What SQLite puts beside a file that is written in place.
_COMPANIONS = ("-journal", "-wal", "-shm")


def index_path(cache: str, others: list[str] | None = None) -> str:
    """The index file of a user; where it is made of `others` than what is usual it is apart."""
    if not others:
        return os.path.join(cache, f"index-{VERSION}.sqlite")
    mark = 0x811C9DC5
    for byte in "\n".join(others).encode(
        "utf-8", "surrogateescape"
    ):  # the FNV-1a hash: no module to load for it
        mark = (mark ^ byte) * 0x01000193 & 0xFFFFFFFF
    return os.path.join(cache, f"index-{VERSION}-{mark:08x}.sqlite")


def work_folder(path: str) -> str:
    """The folder beside an index for what is being written."""
    return f"{path}.work"


def being_written(path: str, name: str) -> str:
    """A file of that name in the work folder, which is made. Raises OSError."""
    folder = work_folder(path)
    os.makedirs(folder, mode=0o700, exist_ok=True)
    return os.path.join(folder, name)


def is_own_file(path: str) -> bool:
    """Whether there is a file, and no link, that `is_trusted`. Raises FileNotFoundError."""
    state = os.lstat(path)
    return stat.S_ISREG(state.st_mode) and is_trusted(state)


def identity(path: str) -> tuple[int, int, int] | None:
    """What tells a file from the one that takes its place; None if there is none."""
    try:
        state = os.stat(path)
    except OSError:
        return None
    return state.st_ino, state.st_mtime_ns, state.st_size


def remove(path: str) -> None:
    """Remove a file that was being written, and what SQLite has put beside it."""
    _unlink(path)
    remove_companions(path)


def remove_companions(path: str) -> None:
    """Remove what SQLite has put beside a file that is closed."""
    for ending in _COMPANIONS:
        _unlink(path + ending)


def _unlink(path: str) -> None:
    try:
        os.unlink(path)
    except OSError:
        pass


def publish(new: str, path: str) -> None:
    """Have a file that is written and closed be the index. Raises OSError."""
    with open(new, "r+b") as file:
        checksum = _sum(_blocks(file.fileno()))
        os.pwrite(file.fileno(), checksum, SUM_AT)
        os.fsync(file.fileno())  # a name must not last longer than what it stands for
    remove_companions(new)
    remove_companions(path)  # of an older version of the program, which wrote in place
    os.replace(new, path)


def damage_of(path: str) -> str:
    """What is wrong with an index, "" if nothing is: it is not as it was when it was written."""
    import sqlite3

    try:
        with open(path, "rb") as file:
            kept = os.pread(file.fileno(), SUM_SIZE, SUM_AT)
            if _sum(_blocks(file.fileno())) != kept:
                return "its sum is not right"
        db = sqlite3.connect(f"{address(path)}&immutable=1", uri=True)
        try:
            says = str(db.execute("PRAGMA quick_check(1)").fetchone()[0])
        finally:
            db.close()
    except FileNotFoundError:
        return ""  # somebody has just removed it
    except OSError as error:
        return (error.strerror or "it cannot be read").lower()
    except sqlite3.Error as error:
        return str(error)
    return "" if says == "ok" else says


def address(path: str) -> str:
    """The file as SQLite's addresses name it, to be read only."""
    place = path.replace("%", "%25").replace("?", "%3f").replace("#", "%23")
    return f"file:{place}?mode=ro"


def _blocks(descriptor: int) -> Iterator[bytes]:
    """The contents of a file, with zeros in the place of the sum."""
    at = 0
    while block := os.pread(descriptor, _BLOCK, at):
        if not at:
            block = block[:SUM_AT] + bytes(SUM_SIZE) + block[SUM_AT + SUM_SIZE :]
        yield block
        at += len(block)


def _sum(blocks: Iterator[bytes]) -> bytes:
    import zlib

    checksum = 0
    for block in blocks:
        checksum = zlib.crc32(block, checksum)
    return checksum.to_bytes(SUM_SIZE, "big")
