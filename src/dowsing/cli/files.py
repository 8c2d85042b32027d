"""Files that the user asked for."""

from __future__ import annotations

import os
import stat

from dowsing.model.errors import Failure
from dowsing.model.replacing import replace_text


def write_file(path: str, text: str) -> None:
    """Write a text to a file, which is the whole text or stays as it was. Raises Failure if that is
    not possible.
    """
    try:
        if _takes_as_it_comes(path):  # a pipe or a device takes the text as it comes
            with open(path, "w", encoding="utf-8") as file:
                file.write(text)
            return
        replace_text(path, text)
    except OSError as error:
        raise Failure(
            f"cannot write {path}: {(error.strerror or 'failed').lower()}", status=3
        ) from None


def _takes_as_it_comes(path: str) -> bool:
    try:
        return not stat.S_ISREG(os.stat(path).st_mode)
    except FileNotFoundError:
        return False
