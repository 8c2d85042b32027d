"""How wide text is on a terminal."""

from __future__ import annotations

import os

from dowsing.core.markup import plain

USUAL = 80
WIDEST_TEXT = 100  # lines longer than this are hard to read


def display_width(text: str) -> int:
    """Columns that marked text takes; wide characters take two, combining ones none."""
    text = plain(text)
    if text.isascii():
        return len(text)
    if not any(char > "\u02ff" and not "\u2010" <= char <= "\u2027" and _is_unusual(char) for char in text):
        return len(text)
    from wcwidth import wcswidth

    width: int = wcswidth(text)
    return width if width >= 0 else len(text)


def _is_unusual(char: str) -> bool:
    """Whether a character takes no column or two; only then is the table of widths worth its import."""
    import unicodedata

    return unicodedata.east_asian_width(char) in "WF" or unicodedata.category(char) in ("Mn", "Me", "Cf")


def terminal_width(asked: int | None, is_terminal: bool) -> int:
    """The width to lay out for: asked for, COLUMNS, the terminal's, or 80."""
    if asked:
        return asked
    columns = os.environ.get("COLUMNS", "")
    if columns.isdecimal() and int(columns) > 0:
        return min(int(columns), WIDEST_TEXT)
    if is_terminal:
        for stream in (1, 2, 0):
            try:
                return min(os.get_terminal_size(stream).columns or USUAL, WIDEST_TEXT)
            except OSError:
                continue
    return USUAL


def fit(text: str, width: int) -> str:
    """The text in so many columns, cut with an ellipsis."""
    if display_width(text) > width:
        while text and display_width(text) > width - 1:
            text = text[:-1]
        text = text.rstrip() + "…"
    return text + " " * max(0, width - display_width(text))
