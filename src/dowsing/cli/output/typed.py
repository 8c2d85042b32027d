"""Names in hints, written so that they can be typed at a shell."""

from __future__ import annotations

from dowsing.core.markup import clean_line


def typed(name: str) -> str:
    """The name as it is, or in quotes where a shell would take something in it for itself."""
    name = clean_line(name)
    return name if name and all(char.isalnum() or char in "-_.+:@" for char in name) else f"'{name}'"
