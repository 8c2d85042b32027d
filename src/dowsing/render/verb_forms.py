"""Forms of verbs."""

from __future__ import annotations

import re

_IRREGULAR = {
    "be": "is",
    "have": "has",
    "do": "does",
    "go": "goes",
    "undo": "undoes",
    "redo": "redoes",
}


def third_person(verb: str) -> str:
    """`copy` as it is said of somebody: `copies`."""
    if verb in _IRREGULAR:
        return _IRREGULAR[verb]
    if re.search(r"(?:s|x|z|ch|sh)\Z", verb):
        return f"{verb}es"
    if re.search(r"[^aeiou]y\Z", verb):
        return f"{verb[:-1]}ies"
    return f"{verb}s"
