"""Changing a file of the user's so that nothing is lost: one at a time, and never half written."""

from __future__ import annotations

import os

from dowsing.model.errors import CannotKeep
from dowsing.model.plainfile import plain_only
from dowsing.model.replacing import replace_text

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable


def read_text(path: str) -> str:
    """The text of a file, "" if there is none. Bytes that are no UTF-8 stay what they are, as lone
    surrogates.

    Raises CannotKeep if it cannot be read.
    """
    try:
        with open(
            path, encoding="utf-8", errors="surrogateescape", newline="", opener=plain_only
        ) as file:
            return file.read()
    except FileNotFoundError:
        return ""
    except OSError as error:
        raise CannotKeep(f"{path} cannot be read: {(error.strerror or 'failed').lower()}") from None


def change(path: str, edit: Callable[[str], str]) -> None:
    """Replace the text of a file by what `edit` makes of it, in one step; others who change it
    wait.

    Raises CannotKeep if that is not possible; the file is then as it was.
    """
    import fcntl

    try:
        os.makedirs(os.path.dirname(path), mode=0o700, exist_ok=True)
        with open(f"{path}.lock", "a") as lock:
            fcntl.flock(lock, fcntl.LOCK_EX)
            replace_text(path, edit(read_text(path)))
    except OSError as error:
        why = (error.strerror or "failed").lower()
        raise CannotKeep(f"{path} cannot be written: {why}; it is as it was") from None


def toml_string(text: str) -> str:
    """A text as a basic string of TOML."""
    import json

    return json.dumps(text, ensure_ascii=False).replace("\x7f", "\\u007f")
