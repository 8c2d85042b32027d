"""Numbers of a sentence, in digits and in words, with their units, and what is calculated."""

from __future__ import annotations

import re

from dowsing.tasks.amounts import UNIT_WORDS, number_of
from dowsing.tasks.number_words import CARDINAL, COUNT, HINTS
from dowsing.tasks.patterns import Pattern

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.taking import Take

_SUM = Pattern(
    r"(?<![\w./-])\d+(?:\.\d+)?(?:(?: ?[+*^] ?| [-/] )\d+(?:\.\d+)?)+(?![\w.])",
    "+",
    "-",
    "*",
    "/",
    "^",
    exact=True,
)
_OPERATOR = (
    r"times|plus|minus|multiplied by|divided by|over|modulo|mod|x|to the power of|to the power"
)
_SPELLED_SUM = Pattern(
    rf"(?<![\w./-])\d+(?:\.\d+)?(?: (?:{_OPERATOR}) \d+(?:\.\d+)?)+(?![\w.])",
    "times",
    "plus",
    "minus",
    " by ",
    "over",
    "mod",
    " x ",
    "power",
    exact=True,
)
_OPERATORS = re.compile(rf" ({_OPERATOR}) ")
_SIGN_OF_OPERATOR = {
    "times": "*",
    "multiplied by": "*",
    "x": "*",
    "plus": "+",
    "minus": "-",
    "divided by": "/",
    "over": "/",
    "mod": "%",
    "modulo": "%",
}
#: From one number of something to another: `lines 10-20`.
_FROM_TO = Pattern(
    r"\b(?:lines?|rows?|columns?|fields?|chars?|characters?|bytes?|pages?)\s+(?:number )?(\d+)"
    r"\s*(?:-|–|\.\.|to|through|until|till|and)\s*(?:line )?(\d+)(?![\w.-]*\w)",
    "line",
    "row",
    "column",
    "field",
    "char",
    "byte",
    "page",
)
#: Seconds since 1970, of this century.
_EPOCH = Pattern(r"(?<![\w.@/-])@?(1\d{9})(?![\w.-]*\w)", "1", exact=True)
_NUMBER = Pattern(
    r"(?<![\w.-])(\d+(?:\.\d+)?)\s*(bytes?|[kKmMgGtT](?:i?[bB])?|kilobytes?|megs?|megabytes?|gigs?"
    r"|gigabytes?|seconds?|secs?"
    r"|minutes?|mins?|hours?|days?|weeks?|months?|years?|lines?|times|columns?|chars?|characters?"
    r"|percent|%|pixels?|px)?(?![\w.-]*\w)",
    *"0123456789",
    exact=True,
)
_SPELLED = Pattern(
    rf"(?<![\w.-])({COUNT})\s+({UNIT_WORDS}|lines?|columns?|characters?|times)\b",
    "second",
    "sec",
    "minute",
    "min",
    "hour",
    "day",
    "night",
    "week",
    "month",
    "year",
    "line",
    "column",
    "character",
    "times",
)
_ORDINAL = Pattern(r"(?<![\w-])(\d+)(?:st|nd|rd|th)(?![\w-])", *"0123456789", exact=True)
_SPELLED_ORDINAL = Pattern(
    r"\b(first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth)\s+(?=columns?|fields?"
    r"|words?|lines?\b(?! of code))",
    "column",
    "field",
    "word",
    "line",
)
_EVERY = Pattern(
    r"\b(?:every|each) (second|minute|hour)\b(?! (?:line|column|word|row|field|file))",
    "every",
    "each",
)
#: A number in words before what is counted; `two` is said of anything.
_COUNTED = Pattern(
    rf"\b(?!two\b)({CARDINAL})\b(?=\s+(?!of\b)[a-z])"
    r"|\b(two)(?=\s+(?:levels?|pages|copies|parts|pieces|cores|jobs|digits)\b)",
    *HINTS,
)
_ORDINALS = "first second third fourth fifth sixth seventh eighth ninth tenth".split()
_SIZES = {"k": "k", "m": "M", "g": "G", "t": "T"}


def _operator(match: re.Match[str]) -> str:
    """The sign of an operator that is said in words."""
    return _SIGN_OF_OPERATOR.get(match[1], "^")


def amounts_in(sentence: str, take: Take) -> None:
    """Numbers in digits and in words, with their units."""
    for match in _EPOCH.finditer(sentence):
        take(*match.span(), match[1], "number", "epoch")
    for match in _FROM_TO.finditer(sentence):
        take(*match.span(1), match[1], "number", "from")
        take(*match.span(2), match[2], "number", "until")
    for match in _ORDINAL.finditer(sentence):
        noun = re.match(r"\s+(line|row|column|field|word)\b", sentence[match.end() :])
        unit = (
            "ordinal"
            if noun is None
            else {"line": "nth", "row": "nth", "field": "column", "word": "column"}.get(
                noun[1], noun[1]
            )
        )
        take(*match.span(), match[1], "number", unit)
    for match in _SPELLED_ORDINAL.finditer(sentence):
        take(*match.span(1), str(_ORDINALS.index(match[1].lower()) + 1), "number", "ordinal")
    for match in _EVERY.finditer(sentence):
        take(*match.span(1), "1", "number", match[1].lower())
    for match in _COUNTED.finditer(sentence):
        take(*match.span(), f"{number_of(match[0]):g}", "number")
    for match in _NUMBER.finditer(sentence):
        unit = (match[2] or "").lower()
        kind = "size" if unit[:1] in _SIZES and unit[:2] not in ("mi", "mo", "ti") else "number"
        if unit.startswith("byte"):
            kind, unit = "size", "c"
        text = match[1] + (_SIZES[unit[0]] if kind == "size" and unit[0] in _SIZES else "")
        take(*match.span(), text, kind, unit.rstrip("s"))
    for match in _SPELLED.finditer(sentence):
        take(*match.span(), f"{number_of(match[1]):g}", "number", match[2].lower().rstrip("s"))


def sums_in(sentence: str, take: Take) -> None:
    """What is to be calculated, in signs and in words."""
    for match in _SUM.finditer(sentence):
        take(*match.span(), match[0], "sum")
    for match in _SPELLED_SUM.finditer(sentence):
        take(*match.span(), _OPERATORS.sub(_operator, match[0]), "sum")
