"""Where one is in `browse`."""

from __future__ import annotations

from dowsing.search.filters import Filters


class BrowseState:
    """What is kept when the screen is left for a form and comes back."""

    def __init__(self, name: str = "") -> None:
        self.query = ""
        self.filters = Filters()
        self.row = 0
        self.back: list[tuple[str, str, int]] = []  # label, source, line
        self.ahead: list[tuple[str, str, int]] = []
        self.now: tuple[str, str, int] | None = (name, "", 0) if name else None
        self.compose = ""  # the line to be composed next, or the kind of a line of a file
        self.of_file = False
