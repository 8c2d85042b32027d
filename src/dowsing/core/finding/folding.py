"""Folding: a family that would flood a list is shown by its best entries only, unless it is what was asked for."""

from __future__ import annotations

from collections import Counter

from dowsing.core.index.store import Candidate

SHARE = 4  # a family may have one line in so many of the list
SUBJECT = 0.5  # a family that has this part of the best hits is what the words are about
LOOKED_AT = 12


def folded(ranked: list[Candidate], limit: int, named: set[str]) -> tuple[list[Candidate], set[str]]:
    """The first `limit` of the ranked entries with families folded, and which families were.

    `named`: words of the query; a family that is among them is not folded.
    """
    share = max(2, -(-limit // SHARE))
    best = Counter(one.family for one in ranked[:LOOKED_AT] if one.family)
    subject = {family for family, count in best.items() if count >= SUBJECT * min(len(ranked), LOOKED_AT)}
    shown: list[Candidate] = []
    lines: Counter[str] = Counter()
    over: set[str] = set()
    for one in ranked:
        family = one.family
        if family and family.casefold() not in named and family not in subject:
            if lines[family] >= share:
                over.add(family)
                continue
            lines[family] += 1
        if len(shown) < limit:
            shown.append(one)
    return shown, over
