"""What things are worth in a ranking: fields, related words, sections. Found by trying on judged queries (docs/decisions)."""

from __future__ import annotations

from dowsing.index.schema import HEAD_FIELDS, TEXT_FIELDS
from dowsing.model.record import Record


class Weights(Record):
    """What things are worth in a score. Those of fields go with how telling the word is."""

    whole_name: float = 2.4
    in_name: float = 0.6
    in_alias: float = 0.7
    in_summary: float = 0.75
    is_meaning: float = 0.35
    in_task: float = 1.2
    in_lead: float = 0.1
    is_flag: float = 0.3
    in_option: float = 0.2
    in_heading: float = 0.1
    more: float = 0.2  # of what further fields are worth beside the best one
    equal: float = 1.0  # how much related words count, times what the lexicon says
    text_spread: float = 0.2  # how much standing in texts makes a term common
    coverage: float = 0.6  # the power of how much of what was asked is there
    standing: float = 0.3
    section: float = 1.0
    called: float = 0.1  # of what a section costs if the words ask for its kind of page
    missed: float = 2.8  # what the other sections cost then
    task: float = 9.0
    summary: float = 3.3
    fit: float = 1.0  # the power of how well a task or summary fits
    ceiling: float = 2500  # entries; a term in fewer is not more telling


WEIGHTS = Weights()

_SECTION_COST = {
    "1": 0.0,
    "8": 0.4,
    "b": 0.3,
    "6": 0.8,
    "": 1.5,
    "5": 1.6,
    "7": 1.8,
    "2": 2.2,
    "3": 2.8,
    "4": 2.2,
    "9": 4.0,
}


#: Stems that say which sections are meant.
_CALLING = {
    "2": frozenset("c function syscal api libc".split()),
    "3": frozenset("c function api libc librari".split()),
    "5": frozenset("format configur config set syntax file".split()),
    "7": frozenset("mean overview topic protocol standard convent concept explain format".split()),
}


def field_worths(weights: Weights, words: int) -> tuple[list[float], list[float]]:
    """What each combination of fields is worth, for the heads and for the text.

    A name says less of what is looked for the more words there are.
    """
    heads = {bit: getattr(weights, name) for name, bit in HEAD_FIELDS.items()}
    heads[HEAD_FIELDS["whole_name"]] = weights.in_name + (weights.whole_name - weights.in_name) / max(words, 1)
    text = {bit: getattr(weights, name) for name, bit in TEXT_FIELDS.items()}
    return [_worth(bits, heads, weights.more) for bits in range(64)], [
        _worth(bits, text, weights.more) for bits in range(16)
    ]


def _worth(bits: int, worth: dict[int, float], more: float) -> float:
    values = [value for bit, value in worth.items() if bits & bit]
    best = max(values, default=0.0)
    return best + more * (sum(values) - best)


def section_costs(asked: set[str], weights: Weights) -> dict[str, float]:
    """What each section costs, by its first character, when these stems are asked for.

    Somebody at a prompt means commands, unless the words say else.
    """
    called = {section for section, words in _CALLING.items() if words & asked}
    costs = {section: cost * weights.section for section, cost in _SECTION_COST.items()}
    for section in called:
        costs[section] *= weights.called
    if "3" in called:
        for section in ("1", "8", "b", "6", ""):
            costs[section] += weights.missed
    return costs
