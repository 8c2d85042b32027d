"""How wide text is on a terminal."""

from __future__ import annotations

from dowsing.model.markup import plain


def display_width(text: str) -> int:
    """Columns that marked text takes; wide characters take two, combining ones none."""
    text = plain(text)
    if text.isascii():
        return len(text)
    if not any(
        char > "\u02ff" and not "\u2010" <= char <= "\u2027" and _is_unusual(char) for char in text
    ):
        return len(text)
    from wcwidth import wcswidth

    width: int = wcswidth(text)
    return width if width >= 0 else len(text)


def _is_unusual(char: str) -> bool:
    """Whether a character takes no column or two; only then is the table of widths worth its
    import.
    """
    import unicodedata

    return unicodedata.east_asian_width(char) in "WF" or unicodedata.category(char) in (
        "Mn",
        "Me",
        "Cf",
    )


def fit(text: str, width: int) -> str:
    """The text in so many columns, cut with an ellipsis."""
    if display_width(text) > width:
        while text and display_width(text) > width - 1:
            text = text[:-1]
        text = text.rstrip() + "…"
    return text + " " * max(0, width - display_width(text))


def fit_words(text: str, width: int) -> str:
    """As fit(), but cut between two words where there is one not far before the end."""
    if display_width(text) <= width:
        return fit(text, width)
    whole = fit(text, width).rstrip("…").rstrip()
    at = whole.rfind(" ")
    if at < width // 2:
        return fit(text, width)
    return fit(whole[:at].rstrip(",;:") + " …", width)
