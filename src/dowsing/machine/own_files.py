"""Files that can be made anew at any time: indexes, what programs said, copies of kept lines."""

from __future__ import annotations

import contextlib
import os
import re
import shutil

_OURS = re.compile(r"(?:index|kept)(?:-[0-9a-f]{8})?\.sqlite[\w.-]*|usage")


def remove_own_files(folder: str) -> tuple[list[str], int]:
    """Remove what the program has put into a cache folder, and the folder if nothing else is in it.
    What was removed, and how many bytes that were. Raises OSError.
    """
    try:
        names = sorted(name for name in os.listdir(folder) if _OURS.fullmatch(name))
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
    return sum(entry.stat(follow_symlinks=False).st_size for entry in os.scandir(path))
