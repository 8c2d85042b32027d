"""Patterns that are made only for sentences with a word that they need: most of the time of a
look-up would go into them.
"""

from __future__ import annotations

import re

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator


class Pattern:
    """A pattern. `hints`: one of these (small letters) stands in all that it matches. `exact`:
    capitals are told apart.
    """

    __slots__ = ("_made", "exact", "hints", "source")

    def __init__(self, source: str, *hints: str, exact: bool = False) -> None:
        self.source = source
        self.hints = hints
        self.exact = exact
        self._made: re.Pattern[str] | None = None

    def finditer(self, text: str) -> Iterator[re.Match[str]]:
        """All matches."""
        low = text.casefold()
        if self.hints and not any(hint in low for hint in self.hints):
            return iter(())
        return self._pattern().finditer(text)

    def search(self, text: str) -> re.Match[str] | None:
        """The first match."""
        return next(self.finditer(text), None)

    def match(self, text: str) -> re.Match[str] | None:
        """The match at the beginning of the text."""
        return self._pattern().match(text)

    def _pattern(self) -> re.Pattern[str]:
        if self._made is None:
            self._made = re.compile(self.source, 0 if self.exact else re.IGNORECASE)
        return self._made
