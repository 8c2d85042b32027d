"""Words and their stems (Snowball's English stemmer), so that `removes`, `removing` and `remove` are one."""

from __future__ import annotations

from functools import cache

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

_TYPOGRAPHIC = "…’‘“”–—‐•·"
_stems: dict[str, str] = {}
MOST_LETTERS = 40


def words(text: str) -> list[str]:
    """The runs of letters and digits of `text`, in lower case."""
    text = text.casefold()
    if not text.isascii():
        for mark in _TYPOGRAPHIC:
            text = text.replace(mark, " ")
    if text.isascii():
        return text.translate(_BLANKED).split()
    return "".join(char if char.isalnum() else " " for char in text).split()


_BLANKED = {code: " " for code in range(128) if not chr(code).isalnum()}


def stem(word: str) -> str:
    """The stem of one word in lower case; the same object each time, which makes readings small to send."""
    found = _stems.get(word)
    if found is None:
        found = _stems[word] = _stemmer()(word[:MOST_LETTERS])
    return found


def stems(text: str) -> list[str]:
    """The stems of the words of `text`, in order."""
    known = _stems
    return [known.get(word) or stem(word) for word in words(text)]


@cache
def _stemmer() -> Callable[[str], str]:
    import Stemmer

    stemming: Callable[[str], str] = Stemmer.Stemmer("english", 0).stemWord
    return stemming
