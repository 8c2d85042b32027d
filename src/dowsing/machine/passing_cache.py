"""Where the index is kept for the time being, where the user's folder for it cannot be written."""

from __future__ import annotations

import os
import stat
import tempfile

LEAST_FREE = 8 << 20  # bytes: with less, an index is not begun


def passing_cache(make: bool) -> str:
    """A folder of the user's own among the temporary ones, for a cache that need not last; "" if
    there is none. It is made if `make`. One that somebody else could write into is not taken.
    """
    folder = os.path.join(tempfile.gettempdir(), f"dowsing-{os.getuid()}")
    try:
        if make and not os.path.lexists(folder):
            os.mkdir(folder, 0o700)
        found = os.lstat(folder)
    except OSError:
        return ""
    is_own = stat.S_ISDIR(found.st_mode) and found.st_uid == os.getuid()
    return folder if is_own and not stat.S_IMODE(found.st_mode) & 0o077 else ""


def may_be_written(folder: str) -> bool:
    """Whether a folder, or what it would be made in, can be written, as far as can be told."""
    while not os.path.lexists(folder):
        parent = os.path.dirname(folder)
        if parent == folder:
            return False
        folder = parent
    if not os.path.isdir(folder) or not os.access(folder, os.W_OK | os.X_OK):
        return False
    space = os.statvfs(folder)
    return space.f_bavail * space.f_frsize >= LEAST_FREE
