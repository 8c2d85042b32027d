"""What a sentence says and a line has nothing of: values with a form of their own, conditions, and
words that tell. A line that lacks something is never sure.
"""

from __future__ import annotations

import os
import re
from functools import cache

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.recipe_ranking import Ranked
    from dowsing.tasks.sentence import ParsedSentence

FILE = os.path.join(os.path.dirname(os.path.abspath(__file__)), "small_talk.txt")
#: A contraction is denied in many ways that a line need not show: `that don't lead anywhere`.
_DENIED = "not"


_WORD = re.compile(r"[^\W_]+")
SEVERAL = 2  # words that tell; one may be said in a way that no wording has


class Lacking(Record):
    """What a line lacks, each as it is said: `values` and conditions, `words` that tell."""

    values: list[str]
    words: list[str]

    @property
    def much(self) -> bool:
        """Whether it lacks so much that it is another task: a value, a condition, several words."""
        return bool(self.values) or len(self.words) >= SEVERAL

    @property
    def told(self) -> list[str]:
        """All of it, each once."""
        return list(dict.fromkeys([*self.values, *self.words]))


def lacking(said: ParsedSentence, best: Ranked) -> Lacking:
    """What is said, and the line of a recipe has nothing of."""
    line = best.filled.line
    placed = best.filled.placed
    missed = [
        one
        for one in best.missed
        # what was said again another way is not missed
        if not one.stands_in(line)
        and not any(later.turn > one.turn and later.kind == one.kind for later in placed)
    ]
    places = [(one.start, one.end) for one in missed]
    values = [said.text[start:end].strip(" ,'\"") for start, end in places]
    # some words stand for what is said; one that stands in the line is not lacking
    spoken = {token.text for token in said.tokens} - set(_WORD.findall(line.casefold()))
    words = [
        word
        for word in best.left
        if word in spoken and word != _DENIED and word not in _small_talk()
    ]
    within = " ".join(values).casefold()
    return Lacking([*values, *best.lost], [word for word in words if word not in within])


@cache
def _small_talk() -> frozenset[str]:
    """Words that a line need not have."""
    with open(FILE, encoding="utf-8") as file:
        return frozenset(word for row in file if row[:1] != "#" for word in row.split())
