"""Opening files that come from outside: a plain file or an error, never a wait.

A FIFO, a socket or a device may be named like a page or like the settings; opening one would wait
for somebody who writes to it, or act on the device. Used as `open(path, "rb", opener=plain_only)`.
What others may write to is told by `is_trusted`.
"""

from __future__ import annotations

import errno
import os
import stat


def plain_only(path: str, flags: int) -> int:
    """An opener for `open`. Raises OSError (IsADirectoryError for a folder) if `path` is no plain
    file.
    """
    _check(os.stat(path).st_mode, path)
    # the file may have changed places since: not to wait, and to look again at what was opened
    descriptor = os.open(path, flags | getattr(os, "O_NONBLOCK", 0) | getattr(os, "O_CLOEXEC", 0))
    try:
        _check(os.fstat(descriptor).st_mode, path)
    except OSError:
        os.close(descriptor)
        raise
    return descriptor


def _check(mode: int, path: str) -> None:
    if stat.S_ISDIR(mode):
        raise IsADirectoryError(errno.EISDIR, os.strerror(errno.EISDIR), path)
    if not stat.S_ISREG(mode):
        raise OSError(errno.EINVAL, "it is no plain file", path)


#: Bits of a mode by which others than the owner may write.
OTHERS_MAY_WRITE = 0o022


def is_trusted(state: os.stat_result) -> bool:
    """Whether a file or folder is one's own or the system's, and nobody else may write to it."""
    return state.st_uid in (os.getuid(), 0) and not state.st_mode & OTHERS_MAY_WRITE
