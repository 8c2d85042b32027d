"""Files that can be made anew at any time: indexes with what belongs to them, what programs said,
copies of kept lines, what is shown beside, the last lists of terminals.
"""

from __future__ import annotations

import contextlib
import os
import re
import shutil

_OURS = re.compile(
    r"(?:index|kept)(?:-\d+)?(?:-[0-9a-f]{8})?\.sqlite[\w.-]*|usage|beside|tried|told"
)
_LISTS = re.compile("last")  # in the folder of what the user keeps


def remove_own_files(cache: str) -> tuple[list[str], int]:
    """Remove what the program has put into a cache folder, and the folder if nothing else is in it.
    What was removed, and how many bytes that were. Raises OSError.
    """
    return _removed(cache, _OURS)


def remove_lists(data: str) -> tuple[list[str], int]:
    """Remove the last lists of terminals from the folder of what the user keeps, likewise."""
    return _removed(data, _LISTS)


def _removed(folder: str, ours: re.Pattern[str]) -> tuple[list[str], int]:
    try:
        names = sorted(name for name in os.listdir(folder) if ours.fullmatch(name))
    except (FileNotFoundError, NotADirectoryError):
        return [], 0
    paths = [os.path.join(folder, name) for name in names]
    size = sum(map(_size, paths))
    for path in paths:
        if os.path.isdir(path) and not os.path.islink(path):
            shutil.rmtree(path)
        else:
            os.unlink(path)
    with contextlib.suppress(OSError):  # somebody else's files are in it
        os.rmdir(folder)
    return paths, size


def _size(path: str) -> int:
    """Bytes of a file, or of the files in a folder."""
    if not os.path.isdir(path):
        return os.lstat(path).st_size
    return sum(
        os.lstat(os.path.join(folder, name)).st_size
        for folder, _, names in os.walk(path)
        for name in names
    )
