"""Where the index is kept for the time being, where the user's folder for it cannot be written."""

from __future__ import annotations

import os
import stat
import time

from dowsing.model.plainfile import OTHERS_MAY_WRITE, is_trusted

LEAST_FREE = 8 << 20  # bytes: with less, an index is not begun
#: Seconds for which an index that did not fit is not tried again in the folder that it is meant
#: for.
NOT_AGAIN = 3600
_TRIED = "tried"  # the file whose time says when an index last did not fit


def passing_cache(make: bool) -> str:
    """A folder of the user's own among the temporary ones, for a cache that need not last; "" if
    there is none. It is made if `make`. One that somebody else could write into is not taken.
    """
    import tempfile  # which most look-ups do without

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


def is_safe(folder: str) -> bool:
    """Whether what lies in a cache folder can be trusted: nobody else may write into it. The usual
    folder is made so where it is one's own. One that is not there yet is safe.
    """
    try:
        found = os.stat(folder)
    except OSError:
        return True  # what it lacks is told where it is to be used
    if is_trusted(found):
        return True
    mode = stat.S_IMODE(found.st_mode)
    is_usual = os.path.basename(folder) == "dowsing" and not mode & stat.S_ISVTX
    if found.st_uid not in (os.getuid(), 0) or not is_usual:
        return False
    try:
        os.chmod(folder, mode & ~OTHERS_MAY_WRITE)
    except OSError:
        return False
    return True


def note_tried(passing: str) -> None:
    """Note in the folder for the time being that an index did not fit where it is meant to be."""
    try:
        with open(os.path.join(passing, _TRIED), "w"):
            pass
    except OSError:
        pass


def may_be_tried(folder: str, passing: str) -> bool:
    """Whether an index may be begun in the folder that it is meant for, though there may be one in
    the folder for the time being.
    """
    if not may_be_written(folder):
        return False
    try:
        tried = os.stat(os.path.join(passing, _TRIED)).st_mtime
    except OSError:
        return True
    return not 0 <= time.time() - tried < NOT_AGAIN
