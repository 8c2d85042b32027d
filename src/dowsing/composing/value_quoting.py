"""What is typed into a field as one word of the shell."""

from __future__ import annotations

import re

from dowsing.model.quoting import is_quoted_word, quoted
from dowsing.model.value_kinds import FILE_KINDS, ValueKind

_PLAIN = re.compile(r"[\w@%+=:,./^-]+\Z")


def shell_word(value: str, kind: str = ValueKind.TEXT) -> str:
    """The value so that the shell takes it as one word.

    What is quoted already stays as it is; a variable by itself, a home folder and, where files are wanted, patterns of
    names are left to the shell.
    """
    if not value:
        return "''"
    if _PLAIN.match(value) or is_quoted_word(value):
        return value
    if re.fullmatch(r"\$(?:\w+|\{\w+\})(?:/[\w./-]*)?", value):
        return f'"{value}"'
    if re.fullmatch(r"~[\w-]*(?:/[\w@%+=:,./-]*)?", value):
        return value
    if kind in FILE_KINDS and re.fullmatch(r"[\w@%+=:,./*?~\[\]-]+", value) and re.search(r"[*?\[]", value):
        return value
    return quoted(value)
