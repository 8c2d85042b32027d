"""What stands beside the places of values in wordings: how a sentence is cut for that, and the
words around a place. bench/fit_tasks.py counts them, a look-up weighs a sentence by them
(tasks/cues.py).
"""

from __future__ import annotations

import re

#: A place of a wording, a word, a sign that parts clauses.
_TOKEN = re.compile(r"<[a-z][a-z0-9-]*>|[^\W_]+(?:['’][a-z]+)?|[,:;?=]")
#: What stands for a value, and for the beginning and end of a sentence.
VALUE, BEGIN, END = "<>", "^", "$"


#: Slots for what is made, and for what it is made of, which are cued alike.
_ROLES = {
    "@target": "new target copy link output destination into backup".split(),
    "@source": "file existing old source folder path".split(),
}


def slot_role(name: str) -> str:
    """The slots that a slot is cued together with, "" if it is alone."""
    kind = slot_kind(name)
    return next((role for role, names in _ROLES.items() if kind in names), "")


def pieces_of(text: str) -> list[tuple[str, int, int]]:
    """The words, signs and places of a text with where they stand, in characters."""
    return [
        (match[0] if match[0][0] == "<" else match[0].lower(), match.start(), match.end())
        for match in _TOKEN.finditer(text)
    ]


def around(words: list[str], first: int, last: int) -> list[str]:
    """What stands beside the words from `first` to `last`: the word before, the one behind, and two
    words before and behind, each marked by its side.
    """

    def at(place: int) -> str:
        if not 0 <= place < len(words):
            return BEGIN if place < 0 else END
        return VALUE if words[place][0] == "<" else words[place]

    return [
        f"l {at(first - 1)}",
        f"r {at(last + 1)}",
        f"L {at(first - 2)} {at(first - 1)}",
        f"R {at(last + 1)} {at(last + 2)}",
    ]


def slot_kind(name: str) -> str:
    """The name of a slot without its number: `file2` is cued as `file`."""
    return name.rstrip("0123456789")
