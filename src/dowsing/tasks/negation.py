"""What a sentence says is not so, and whether the wordings of a recipe say the contrary."""

from __future__ import annotations

from dowsing.knowledge.stems import stem

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable

NEGATIONS = frozenset(
    stem(word) for word in "not no without never except excluding omitting skipping".split()
)
#: Words that rule out what stands behind them, as they are said.
_RULING_OUT = frozenset("not no never except without nor neither unless".split())
#: Of the wordings of a recipe that have to say something for it to be what the recipe does.
LEAST_SAID = 0.3
#: Of the wordings with a word that have to deny it for the recipe to be about what is not so.
LEAST_DENIED = 0.6
FEW = 2  # wordings tell nothing


def denied_in(stems: Iterable[str]) -> frozenset[str]:
    """Of stems in their order, those behind a word that denies them: `no udp`."""
    found, is_denied = set(), False
    for one in stems:
        if is_denied and one not in NEGATIONS:
            found.add(one)
        is_denied = one in NEGATIONS
    return frozenset(found)


def contradictions(
    plain: frozenset[str], denied: frozenset[str], wordings: list[list[str]]
) -> list[str]:
    """Of what is said and of what is denied, as stems, that of which the wordings of a recipe say
    the contrary; sorted.
    """
    rows = [(frozenset(one), denied_in(one)) for one in wordings]
    return sorted(
        [one for one in denied if _is_said(one, rows)]
        + [one for one in plain - NEGATIONS if _is_denied(one, rows)]
    )


def _is_said(one: str, rows: list[tuple[frozenset[str], frozenset[str]]]) -> bool:
    """Whether many wordings have a word, and none denies it."""
    count = sum(one in has for has, _ in rows)
    return count >= LEAST_SAID * len(rows) > 0 and not any(one in denied for _, denied in rows)


def _is_denied(one: str, rows: list[tuple[frozenset[str], frozenset[str]]]) -> bool:
    """Whether most wordings that have a word deny it."""
    count = sum(one in has for has, _ in rows)
    against = sum(one in denied for _, denied in rows)
    return count >= FEW and against >= max(LEAST_DENIED * count, LEAST_SAID * len(rows))


def leaves_out_a_negation(left: list[str]) -> bool:
    """Whether what was ruled out is not ruled out by the line: of the words that it leaves, one
    follows on a negation.
    """
    return any(word in _RULING_OUT for word in left[:-1])
