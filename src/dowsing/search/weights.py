"""What things are worth in a ranking: fields, synonyms, sections. The numbers are in weights.toml,
which bench/fit.py writes.
"""

from __future__ import annotations

import os

from dowsing.index.schema import HEAD_FIELDS, TEXT_FIELDS
from dowsing.model.record import Record

FILE = os.path.join(os.path.dirname(os.path.abspath(__file__)), "weights.toml")


class Weights(Record):
    """What things are worth in a score; what each is stands beside its number in weights.toml."""

    whole_name: float
    in_name: float
    in_alias: float
    in_summary: float
    is_meaning: float
    in_task: float
    in_label: float
    in_lead: float
    is_flag: float
    in_option: float
    in_heading: float
    more: float
    synonym: float
    text_spread: float
    ceiling: float
    coverage: float
    static_rank: float
    task: float
    summary: float
    task_fit: float
    fit: float
    precise: float
    special: float
    asked: float
    least_asked: float
    of_name: float
    inside_name: float
    section: float
    called: float
    missed: float


def read_weights(path: str = FILE) -> Weights:
    """The weights of a file. Its lines are plain enough to be read without a parser, which would
    cost a look-up its time.
    """
    with open(path, encoding="utf-8") as file:
        rows = [line.partition(" = ") for line in file if line[:1].isalpha()]
    return Weights(**{name: float(number) for name, _, number in rows})


WEIGHTS = read_weights()

#: What a section costs somebody at a prompt, by its first character: commands come first.
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
OTHER_SECTION_COST = 2.0
_AT_A_PROMPT = ("1", "8", "b", "6", "")

#: Stems that say which sections are meant.
_CALLING = {
    "2": frozenset("c function syscal api libc".split()),
    "3": frozenset("c function api libc librari".split()),
    "5": frozenset("format configur config set syntax file".split()),
    "7": frozenset("mean overview topic protocol standard convent concept explain format".split()),
}


def field_boosts(weights: Weights, words: int) -> tuple[list[float], list[float]]:
    """What each combination of fields is worth, for the heads and for the text.

    A name says less of what is looked for the more words there are.
    """
    heads = {bit: getattr(weights, name) for name, bit in HEAD_FIELDS.items()}
    heads[HEAD_FIELDS["whole_name"]] = weights.in_name + (
        weights.whole_name - weights.in_name
    ) / max(words, 1)
    text = {bit: getattr(weights, name) for name, bit in TEXT_FIELDS.items()}
    return [_boost(bits, heads, weights.more) for bits in range(1 << len(heads))], [
        _boost(bits, text, weights.more) for bits in range(1 << len(text))
    ]


def _boost(bits: int, boosts: dict[int, float], more: float) -> float:
    """What several fields at once are worth: the best one, and a part of the rest."""
    values = [value for bit, value in boosts.items() if bits & bit]
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
        for section in _AT_A_PROMPT:
            costs[section] += weights.missed
    return costs


def section_cost(costs: dict[str, float], section: str) -> float:
    """What the section of an entry costs."""
    return costs.get(section[:1], OTHER_SECTION_COST)
