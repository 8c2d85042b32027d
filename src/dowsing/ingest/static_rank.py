"""How much an entry counts before any word is looked at: the part of a ranking that can be worked
out beforehand.
"""

from __future__ import annotations

import math

from dowsing.index.schema import MIDDLE, UNIT

_PRIORITY = {"essential": 1.0, "required": 1.0, "important": 0.8, "standard": 0.5, "builtin": 0.8}
_COMMON_FAMILY = 40  # members; beyond that a family counts less the larger it is


_MOST_RECIPES = 31  # of a command; more say nothing more of how usual it is


def static_rank(
    family_size: int, depth: int, referred: int, priority: str, recipes: int = 0
) -> int:
    """The static rank of an entry.

    `family_size`: entries in its family; `depth`: how many parts its name has beyond the family's;
    `referred`: how many pages of other families send to it; `priority`: how basic its package is;
    `recipes`: how many recipes there are whose command it is.
    """
    score = 0.6 * math.log2(1 + referred) + 1.5 * _PRIORITY.get(priority, 0.0)
    score += 0.5 * math.log2(1 + min(recipes, _MOST_RECIPES))
    if family_size > _COMMON_FAMILY:
        score -= 1.0 * math.log2(family_size / _COMMON_FAMILY)
    score -= 0.5 * min(depth, 6)
    return max(0, min(255, round(MIDDLE + UNIT * score)))


def share(family_size: int) -> float:
    """How much of one an entry counts for how common a term is: a family counts for at most so many
    entries.
    """
    return min(1.0, _COMMON_FAMILY / max(family_size, 1))
