"""Writing a file in one step: it holds the whole new text, or stays as it was."""

from __future__ import annotations

import os
import stat


def replace_text(path: str, text: str, *, lasting: bool = True) -> None:
    """Put a new file in the place of an old one, with its permissions; there may be none yet.

    `lasting`: it is on the disk when this returns, as the user's own files are to be.

    A link stays one: the file that it leads to is replaced. Lone surrogates are the bytes that they
    stand for. Raises OSError; the old file is then as it was, and nothing is left beside it.
    """
    target = os.path.realpath(path)
    new = f"{target}.{os.getpid()}.new"
    try:
        with open(new, "w", encoding="utf-8", errors="surrogateescape", newline="") as file:
            if os.path.exists(target):
                os.fchmod(file.fileno(), stat.S_IMODE(os.stat(target).st_mode))
            file.write(text)
            if lasting:
                file.flush()
                os.fsync(file.fileno())
        os.replace(new, target)
    except OSError:
        if os.path.exists(new):
            os.unlink(new)
        raise
