"""Words and their stems (Snowball's English stemmer), so that `removes`, `removing` and `remove`
are one.
"""

from __future__ import annotations

from functools import cache

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

_TYPOGRAPHIC = "…’‘“”–—‐•·"
_stems: dict[str, str] = {}
MOST_LETTERS = 40

#: Words that say nothing of what is looked for.
EMPTY = frozenset(
    """
        a an the of to in on for with and or my me i is are be been was were it its that this
        these those by at from as into which what how who whom whose do does did doing can could
        should would will shall may might must am please want wants need needs like there where
        when why not no so such if than then them they their you your we our us any some all each
        every has have had having being get gets got getting let lets ones thing things something
        somebody someone anything everything just only about over up out off again too very way
        ways use used uses using make made makes making still same other another via onto s t m
        don isn doesn
    """.split()
)


#: Those of them that a question begins with; some are names of commands as well.
QUESTIONS = frozenset("what which how who whom whose where when why".split())


def words(text: str) -> list[str]:
    """The runs of letters and digits of `text`, in lower case."""
    text = text.casefold()
    if not text.isascii():
        for mark in _TYPOGRAPHIC:
            text = text.replace(mark, " ")
    if text.isascii():
        return text.translate(_BLANKED).split()
    return "".join(char if char.isalnum() else " " for char in text).split()


#: Forms of verbs that no rule leads back, and what they are forms of. Those that are words of their
#: own as well (found, left, hidden, known, stuck) are not here.
_FORMS = {
    form: verb
    for verb, forms in {
        "run": "ran",
        "write": "wrote written",
        "overwrite": "overwrote overwritten",
        "rewrite": "rewrote rewritten",
        "take": "took taken",
        "keep": "kept",
        "send": "sent",
        "build": "built",
        "lose": "lost",
        "break": "broke broken",
        "grow": "grew grown",
        "shrink": "shrank shrunk",
        "choose": "chose chosen",
        "throw": "threw thrown",
        "draw": "drew drawn",
        "spend": "spent",
        "tell": "told",
        "say": "said",
        "go": "went gone",
        "come": "came",
        "become": "became",
        "begin": "began begun",
        "buy": "bought",
        "bring": "brought",
        "catch": "caught",
        "fall": "fell fallen",
        "forget": "forgot forgotten",
        "freeze": "froze frozen",
        "hide": "hid",
        "hold": "held",
        "mean": "meant",
        "sell": "sold",
        "speak": "spoke spoken",
        "steal": "stole stolen",
        "eat": "ate eaten",
        "tear": "tore torn",
        "undo": "undid undone",
        "wake": "woke woken",
        "hang": "hung",
        "understand": "understood",
    }.items()
    for form in forms.split()
}


_BLANKED = {code: " " for code in range(128) if not chr(code).isalnum()}


def stem(word: str) -> str:
    """The stem of one word in lower case; the same object each time, which makes readings small to
    send.
    """
    found = _stems.get(word)
    if found is None:
        found = _stems[word] = _stemmer()(_FORMS.get(word, word)[:MOST_LETTERS])
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


def telling_stems(text: str) -> list[str]:
    """The stems of a text that say something; all of them if none does."""
    found = words(text)
    return [stem(word) for word in found if word not in EMPTY] or [stem(word) for word in found]
