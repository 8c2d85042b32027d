"""Whether a file that a value names must be there already, told from words."""

from __future__ import annotations

import re

from dowsing.model.value_kinds import FILE_KINDS, ValueKind

_MADE = re.compile(
    r"\b(?:writ\w+|output|creat\w+|new|mak\w+|generat\w+|stor\w+|sav\w+|dest\w*|target|log\w*"
    r"|append\w*|put\w*|touch\w*"
    r"|renam\w+|link\w*|mov\w+|copy|archiv\w*|start\w*|edit\w*|open\w*|update\w*|install\w*"
    r"|set\w*)\b",
    re.IGNORECASE,
)
_READ = re.compile(
    r"\b(?:reads?|load\w*|tak\w+ .{0,40}from|gets? .{0,40}from|from (?:the )?(?:given |specified "
    r"|this )?file|infile|input"
    r"|source|src|script|included?|listed in|concatenate|counts?|show|display|list|remove|delete"
    r"|sort|compare|print|search|compress|view|check|calculate|report|change|look)\b",
    re.IGNORECASE,
)


def must_exist(kind: str, placeholder: str, says: str, alone: bool = True) -> bool:
    """Whether the value names a file that is read: its name or the text says so, and neither says
    that one is made.

    `alone`: it is the only file of the command, so that what is said of the command is said of it.
    """
    if kind not in FILE_KINDS:
        return False
    if _MADE.search(placeholder) or (kind == ValueKind.PATH and not _READ.search(placeholder)):
        return False
    if re.match(r"(?:infile|input|source|src)", placeholder, re.IGNORECASE):
        return True
    return alone and bool(_READ.search(says)) and not _MADE.search(says)
