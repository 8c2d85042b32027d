"""Completing what is typed into a field: allowed values, files, folders, users and what else this machine has."""

from __future__ import annotations

from dowsing.core.commandline.here import values_here
from dowsing.core.composing.field import Field


def completions(field: Field, typed: str, home: str = "") -> list[str]:
    """The values that the last item of what is typed may become."""
    begin = _begin(field, typed)
    part = typed[begin:]
    if field.values:
        return [value for value in field.values if value.startswith(part) and value != part]
    return values_here(field.kind, field.placeholder, part, home) or []


def completed(field: Field, typed: str, home: str = "") -> str:
    """What is typed with its last item completed as far as all that it may become agree; where that adds nothing, the
    first of them. A value that is one of those becomes the next."""
    begin = _begin(field, typed)
    part = typed[begin:]
    found = completions(field, typed, home)
    if not found:
        if field.values and part in field.values:
            return typed[:begin] + field.values[(field.values.index(part) + 1) % len(field.values)]
        return typed
    common = _common(found)
    if len(common) > len(part):
        return typed[:begin] + common
    return typed[:begin] + found[0]


def _common(texts: list[str]) -> str:
    """What all of them begin with."""
    least, most = min(texts), max(texts)
    size = next((n for n, (a, b) in enumerate(zip(least, most, strict=False)) if a != b), min(len(least), len(most)))
    return least[:size]


def _begin(field: Field, typed: str) -> int:
    """Where the last item begins."""
    places = (
        [typed.rfind(field.separator) + len(field.separator)] if field.separator and field.separator in typed else [0]
    )
    if field.repeats:
        places.append(typed.rfind(" ") + 1)
    return max(places)
