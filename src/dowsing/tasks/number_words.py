"""Numbers in words, as they are said: `sixty`, `twenty-five`, `a hundred and ten`, `two dozen`,
`half an`, `one and a half`.
"""

from __future__ import annotations

import re

_ONES = "one two three four five six seven eight nine".split()
_TEENS = "ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen".split()
_TENS = "twenty thirty forty fifty sixty seventy eighty ninety".split()
_SCALES = {"dozen": 12, "hundred": 100, "thousand": 1000}
_VALUES = {
    **{word: number for number, word in enumerate(_ONES, 1)},
    **{word: number for number, word in enumerate(_TEENS, 10)},
    **{word: 10 * number for number, word in enumerate(_TENS, 2)},
    "fourty": 40,  # as it is often written
    "a": 1,
    "an": 1,
}
#: What is no row of numbers, and what it is worth.
_PHRASES = {
    "half an": 0.5,
    "half a": 0.5,
    "a quarter of an": 0.25,
    "a quarter of a": 0.25,
    "three quarters of an": 0.75,
    "a couple of": 2,
    "a few": 3,
    "half a dozen": 6,
}
_HALF = " and a half"

#: Every word that a number in words has one of, but for `a` and `one`.
HINTS = (*_ONES[1:], *_TEENS, *_TENS, "fourty", *_SCALES)

_BELOW_TEN = "|".join(_ONES)
_BELOW_HUNDRED = (
    rf"(?:(?:{'|'.join(_TENS)}|fourty)(?:[- ](?:{_BELOW_TEN}))?|{'|'.join(_TEENS)}|{_BELOW_TEN})"
)
_BELOW_THOUSAND = (
    rf"(?:(?:{_BELOW_HUNDRED}|a) hundred(?: (?:and )?{_BELOW_HUNDRED})?|{_BELOW_HUNDRED}"
    r"|hundred)"
)
_PLAIN = (
    rf"(?:(?:{_BELOW_THOUSAND}|a) thousand(?:,? (?:and )?{_BELOW_THOUSAND})?|thousand"
    rf"|(?:{_BELOW_HUNDRED}|a) dozen|{_BELOW_THOUSAND})"
)
_SAID = "|".join(sorted(_PHRASES, key=lambda words: -len(words)))
#: A pattern for a number in words, `a` and `an` among them.
COUNT = rf"(?:{_SAID}|{_PLAIN}(?:{_HALF})?|an|a)"
#: A pattern for one that is no article, and not `one`.
CARDINAL = rf"(?!one\b(?! (?:hundred|thousand|dozen)\b)){_PLAIN}"

_WORD = re.compile(r"[a-z]+")


def spoken_number(text: str) -> float:
    """The number that words say. Raises KeyError for what is none."""
    text = " ".join(text.lower().split())
    if text in _PHRASES:
        return _PHRASES[text]
    if text.endswith(_HALF):
        return spoken_number(text.removesuffix(_HALF)) + 0.5
    words = [word for word in _WORD.findall(text) if word != "and"]
    if not words:
        raise KeyError(text)
    total = current = 0
    for word in words:
        if word == "thousand":
            total, current = total + 1000 * (current or 1), 0
        elif word in _SCALES:
            current = (current or 1) * _SCALES[word]
        else:
            current += _VALUES[word]
    return float(total + current)
