"""The commands that people use for what words ask for, by the model that was fitted to the wordings
of recipes (knowledge/task_choice.py).
"""

from __future__ import annotations

import math
from array import array

from dowsing.knowledge.task_choice import STEP

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store

LEAST = -8.0  # log odds against the best recipe; what is below counts for nothing


def commands_asked(store: Store, stems: list[str]) -> dict[str, float]:
    """How likely each command is the one that is asked for, the sum of its recipes, times how many
    of the stems wordings have; {} if they have none.
    """
    marks = ",".join("?" * len(stems))
    rows = store.rows(f"SELECT numbers, steps FROM task_stems WHERE stem IN ({marks})", stems)
    if not rows:
        return {}
    starts = store.rows("SELECT number, start, command FROM task_starts")
    scores: dict[int, float] = {number: start for number, start, _ in starts}
    for numbers, steps in rows:
        for number, much in zip(array("H", numbers), steps, strict=True):
            if number in scores:
                scores[number] += much * STEP
    best = max(scores.values(), default=0.0)
    shares: dict[str, float] = {}
    for number, _, command in starts:
        odds = scores[number] - best
        if odds > LEAST:
            shares[command] = shares.get(command, 0.0) + math.exp(odds)
    whole = sum(shares.values())
    known = len(rows) / len(set(stems))
    return {command: known * known * share / whole for command, share in shares.items()}
