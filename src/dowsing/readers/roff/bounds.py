"""How much a page may make: what exceeds it goes on for ever or is far too large, and is told to
be.
"""

from __future__ import annotations

MOST_STEPS = 400_000  # of macros and loops
MOST_LINES = 1_000_000  # of a page; the longest pages have 40,000
MOST_WRITTEN = (
    16_000_000  # characters that macros, loops and strings put in beside what the page holds
)
MOST_ITEMS = 400_000  # the largest pages have 20,000


class OutOfBounds(Exception):
    """The page makes more than a page may; the message says of what."""
