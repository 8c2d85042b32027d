"""Folding: a family that would flood a list is shown by its best entries only, unless it is what
was asked for.
"""

from __future__ import annotations

from collections import Counter

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.entry import Candidate

SHARE = 0.25  # of the lines a family may have
OF_SUBJECT = 0.75  # and one that the words are about,
SUBJECT = 0.5  # which is one that has this part of the best hits
LOOKED_AT = 12


def folded(
    ranked: list[Candidate], limit: int, named: set[str]
) -> tuple[list[Candidate], set[str]]:
    """The first `limit` of the ranked entries with families folded, and which families were: of
    entries of one family that say the same of themselves only the first stands among them. Where
    the others do not fill the list, what is folded does.

    `named`: words of the query; a family that is among them is not folded.
    """
    best = Counter(one.family for one in ranked[:LOOKED_AT] if one.family)
    subject = {
        family for family, count in best.items() if count >= SUBJECT * min(len(ranked), LOOKED_AT)
    }
    shown: list[Candidate] = []
    lines: Counter[str] = Counter()
    over: set[str] = set()
    back: list[Candidate] = []
    said: set[tuple[str, str]] = set()
    for one in ranked:
        family = one.family
        if family and family.casefold() not in named:
            says = family, one.summary or one.name
            many = lines[family] >= max(2, limit * (OF_SUBJECT if family in subject else SHARE))
            if many or says in said:
                over.add(family)
                back.append(one)
                continue
            said.add(says)
            lines[family] += 1
        shown.append(one)
    if len(shown) < limit:
        shown += back[: limit - len(shown)]
    return shown[:limit], over
