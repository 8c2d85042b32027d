"""What a text must hold for a pattern to match it, which is looked at before the pattern is: made
when the files of messages are compiled, never at look-up.
"""

from __future__ import annotations

# The parser of patterns is not public; it has been there, by this name, since Python 3.11, and what
# is made with it ships.
from re import _parser as parser  # type: ignore[attr-defined]

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

_SHORTEST = 3  # characters that tell anything


def needed_words(pattern: str) -> list[str]:
    """Texts in small letters one of which a text must hold; [] if no such are known."""
    return sorted(_needed(list(parser.parse(pattern))) or ())


def _needed(items: list[tuple[Any, Any]]) -> frozenset[str] | None:
    """Of what stands one after the other: the texts that tell most."""
    found: list[frozenset[str]] = []
    run = ""
    for name, value in [*items, (None, None)]:
        if str(name) == "LITERAL":
            run += chr(value).lower()
            continue
        if len(run) >= _SHORTEST:
            found.append(frozenset((run,)))
        run = ""
        inner = _needed_of_one(str(name), value)
        if inner is not None:
            found.append(inner)
    return max(found, key=lambda one: (min(map(len, one)), -len(one)), default=None)


def _needed_of_one(name: str, value: Any) -> frozenset[str] | None:
    if name == "SUBPATTERN":
        return _needed(list(value[3]))
    if name == "BRANCH":
        each = [_needed(list(one)) for one in value[1]]
        return None if None in each else frozenset(word for one in each if one for word in one)
    if name in ("MAX_REPEAT", "MIN_REPEAT") and value[0] > 0:
        return _needed(list(value[2]))
    return None
