"""Paths as bytes: what the system gives is kept to the byte, what is stored or shown is text.

The system's paths are bytes. Python has those that are no UTF-8 as lone surrogates, which neither
SQLite nor a terminal takes. `stored` writes such a byte as a character of the last private plane,
`restored` gives the very same path back.
"""

from __future__ import annotations

import os
import re

_FIRST = 0x10FF00  # stands for the byte 0; a byte b is chr(_FIRST + b)
_SURROGATES = "[\udc80-\udcff]"
_NO_TEXT = "[\ud800-\udfff]"
_STANDING_IN = (
    "[\U0010ff80-\U0010ffff]"  # compiled when first needed, as are the others: it takes its time
)
REPLACED = "\ufffd"


def stored(path: str) -> str:
    """The path as text that is valid in every encoding; `restored` undoes it."""
    if path.isascii() or path.isprintable():
        return path
    # a name that has such a character itself is written byte by byte too, so that nothing is
    # ambiguous
    spelled = re.sub(
        _STANDING_IN, lambda match: match[0].encode().decode("ascii", "surrogateescape"), path
    )
    return re.sub(_SURROGATES, lambda match: chr(_FIRST + ord(match[0]) - 0xDC00), spelled)


def restored(text: str) -> str:
    """The path that was `stored`."""
    if text.isascii() or re.search(_STANDING_IN, text) is None:
        return text
    spelled = re.sub(_STANDING_IN, lambda match: chr(ord(match[0]) - _FIRST + 0xDC00), text)
    return os.fsdecode(spelled.encode("utf-8", "surrogateescape"))


def as_text(name: str) -> str:
    """What may hold bytes of a path, as text to be shown, searched and stored: each byte that is no
    UTF-8 is `\ufffd`.
    """
    return name if name.isascii() else re.sub(_NO_TEXT, REPLACED, name)


def is_within(path: str, folders: list[str]) -> bool:
    """Whether the path is that of one of the folders, or of something in it."""
    return any(path == folder or path.startswith(folder + "/") for folder in folders)
