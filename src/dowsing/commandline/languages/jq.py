"""Filters of jq: each step of the way with what it does."""

from __future__ import annotations

from dowsing.commandline.languages.balance import Lexis, imbalance
from dowsing.commandline.languages.jq_steps import steps
from dowsing.commandline.languages.jq_words import step_words
from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading


def read(value: str, dialect: str = "") -> Reading:
    """Each step between pipes; where there are several results, each of them."""
    wrong = imbalance(value, Lexis.JQ)
    if wrong is not None:
        return Reading([], "", wrong)
    if not value.strip():
        return NOTHING
    cutter = Cutter(value)
    said = []
    for start, end, step in steps(value):
        says = step_words(step)
        said.append(says)
        cutter.cut(start)
        cutter.cut(end, says)
    return cutter.finish(", then ".join(said) if all(said) and len(said) <= 3 else "")
