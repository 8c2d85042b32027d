"""Files that the user asked for."""

from __future__ import annotations

import os
import stat

from dowsing.model.errors import Failure
from dowsing.model.markup import escaped
from dowsing.model.replacing import replace_text
from dowsing.terminal.asking import agreed, can_ask


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


def may_replace(path: str) -> None:
    """Ask before a file that is there is written over. Raises Failure if that is not wanted, or
    nobody can be asked.
    """
    if not os.path.lexists(path) or _takes_as_it_comes(path):
        return
    shown = escaped(path)
    if not can_ask():
        raise Failure(f"{shown} is there already; remove it first, or say another file", status=3)
    if not agreed(f"{shown} is there already; write over it?"):
        raise Failure(f"{shown} is as it was", status=1)


def _takes_as_it_comes(path: str) -> bool:
    try:
        return not stat.S_ISREG(os.stat(path).st_mode)
    except FileNotFoundError:
        return False
