"""Files that the user asked for."""

from __future__ import annotations

import os
import stat

from dowsing.cli.failure import Failure


def write_file(path: str, text: str) -> None:
    """Write a text to a file, which is the whole text or stays as it was. Raises Failure if that is not possible."""
    try:
        mode = _mode_of(path)
        if mode is not None and not stat.S_ISREG(mode):  # a pipe or a device takes the text as it comes
            with open(path, "w", encoding="utf-8") as file:
                file.write(text)
            return
        _replace(os.path.realpath(path), text, mode)
    except OSError as error:
        raise Failure(f"cannot write {path}: {(error.strerror or 'failed').lower()}", status=3) from None


def _mode_of(path: str) -> int | None:
    try:
        return os.stat(path).st_mode
    except FileNotFoundError:
        return None


def _replace(path: str, text: str, mode: int | None) -> None:
    """Put a new file in the place of an old one, with its permissions. Raises OSError; the old one is then as it was."""
    new = f"{path}.{os.getpid()}.new"
    try:
        with open(new, "w", encoding="utf-8") as file:
            if mode is not None:
                os.fchmod(file.fileno(), stat.S_IMODE(mode))
            file.write(text)
            file.flush()
            os.fsync(file.fileno())
        os.replace(new, path)
    except OSError:
        if os.path.exists(new):
            os.unlink(new)
        raise
