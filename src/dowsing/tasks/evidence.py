"""What speaks for and against a recipe, filled with the values of a sentence: the parts of its
score, each by its name. What each is worth is in evidence.toml, which bench/fit_evidence.py writes.
"""

from __future__ import annotations

import os

from dowsing.model.record import Record

FILE = os.path.join(os.path.dirname(os.path.abspath(__file__)), "evidence.toml")


class Evidence(Record):
    """The parts. `chosen`: what the words say for the recipe beside the best one (0 and less);
    `covered`, `union`: how much of the sentence its nearest wording, and all its wordings have;
    `unsaid`: nothing is said of what its command is for; `said`: how much of the nearest wording
    the sentence has; `guessed`: words that stand in slots by their place alone; `unused`, `open`:
    values for which there is no slot, slots without a value while values are said; `fit`: how well
    values fit; `like`: a file is of the kind that the slot is for; `changes`, `shows`: how unlikely
    it is that a change is asked for, of one that makes any, and how likely, of one that makes none;
    `lost`: conditions on files that it leaves out; `wanted`: it uses a tool that was asked for;
    `absent`: its command is not here; `added`: additions that were asked for in so many words,
    `near`: those that words only speak for; `named`: the verb that the sentence begins with is a
    word of the line (`start` of `systemctl start`).
    """

    chosen: float = 0.0
    covered: float = 0.0
    union: float = 0.0
    unsaid: float = 0.0
    said: float = 0.0
    guessed: float = 0.0
    unused: float = 0.0
    open: float = 0.0
    fit: float = 0.0
    like: float = 0.0
    changes: float = 0.0
    shows: float = 0.0
    lost: float = 0.0
    wanted: float = 0.0
    absent: float = 0.0
    added: float = 0.0
    near: float = 0.0
    named: float = 0.0

    def worth(self, weights: Evidence) -> float:
        """The score: each part times what it is worth."""
        parts: list[float] = [getattr(self, name) * getattr(weights, name) for name in self._fields]
        return sum(parts)


def read_weights(path: str = FILE) -> Evidence:
    """What each part is worth. The lines are plain enough to be read without a parser."""
    with open(path, encoding="utf-8") as file:
        rows = [line.partition(" = ") for line in file if line[:1].isalpha()]
    return Evidence(**{name: float(number) for name, _, number in rows})
