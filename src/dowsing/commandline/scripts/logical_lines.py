"""Lines of a file that go on behind a backslash."""

from __future__ import annotations

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator


def logical_lines(text: str) -> Iterator[tuple[int, str]]:
    """Each line with those that go on from it, and the number of its first, from 1."""
    lines = text.split("\n")
    n = 0
    while n < len(lines):
        first, line = n, lines[n]
        while line.endswith("\\") and n + 1 < len(lines):
            n += 1
            line += "\n" + lines[n]
        n += 1
        yield first + 1, line
