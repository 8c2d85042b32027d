"""The recipes that the words of a sentence speak for, by the model that was fitted to their
wordings (knowledge/task_choice.py).
"""

from __future__ import annotations

import json
import math
from array import array

from dowsing.index.schema import DOMAIN, Meta
from dowsing.knowledge.task_choice import STEP
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store

#: How much a stem counts that is only as good as said, by the endings of files.
OF_HINT = 0.5
UNKNOWN = 5.0  # how telling a stem is that no wording has: it may well be a name


#: The recipes that take conditions on files.
FILTERS = "SELECT number FROM task_starts WHERE filters ORDER BY number"
MOST_FILTERS = 6  # recipes for conditions that are chosen by what is said beside these


class Candidate(Record):
    """A recipe that is chosen: packed, the stems of its wordings, what speaks for it (log odds
    against a recipe of which nothing is said), and whether its line changes anything. `beside` is
    what speaks for it without the words of conditions on files, `by_stem` what each stem says.
    """

    row: str
    wordings: list[str]
    score: float
    changing: bool
    beside: float = 0.0
    by_stem: dict[str, float] = {}  # noqa: RUF012 - a record is immutable

    def without(self, stems: frozenset[str]) -> float:
        """What speaks for it without these stems."""
        return self.score - sum(self.by_stem.get(one, 0.0) for one in stems)


class Choice:
    """What the stems of a sentence say, and its marks (knowledge/task_choice.py). `harm` and
    `change`: the log odds that it asks for something to be destroyed or stopped, and for any
    change. Of the `hints` among the stems, which are words for the same, only the one that says
    most for a recipe counts for it. `inside` are the stems that stand in conditions on files alone.
    """

    def __init__(
        self,
        store: Store,
        stems: list[str],
        marks: list[str],
        hints: frozenset[str] = frozenset(),
        inside: frozenset[str] = frozenset(),
    ) -> None:
        self.store = store
        self.harm = float(store.meta_value(Meta.TASK_HARM) or 0.0)
        self.change = float(store.meta_value(Meta.TASK_CHANGE) or 0.0)
        starts = store.rows("SELECT number, start FROM task_starts")
        self._scores: dict[int, float] = dict(starts)
        self._hinted: dict[int, float] = {}
        self._inside: dict[int, float] = {}
        self._by_stem: dict[str, dict[int, float]] = {}
        wanted = list(dict.fromkeys([*stems, *marks]))
        places = ",".join("?" * len(wanted))
        for stem, harm, change, numbers, steps in store.rows(
            f"SELECT stem, harm, change, numbers, steps FROM task_stems WHERE stem IN ({places})",
            wanted,
        ):
            if stem in marks:
                self.harm += harm
                self.change += change
            if stem in stems:
                weights = {
                    number: much * STEP
                    for number, much in zip(array("H", numbers), steps, strict=True)
                    if number in self._scores
                }
                if stem in hints:
                    self._hint(weights)
                else:
                    self._by_stem[stem] = weights
                    self._add(weights, stem in inside)
        self._add(self._hinted)

    def _add(self, weights: dict[int, float], is_inside: bool = False) -> None:
        for number, much in weights.items():
            self._scores[number] += much
            if is_inside:
                self._inside[number] = self._inside.get(number, 0.0) + much

    def _hint(self, weights: dict[int, float]) -> None:
        for number, much in weights.items():
            self._hinted[number] = max(self._hinted.get(number, 0.0), OF_HINT * much)

    def best(self, most: int) -> list[Candidate]:
        """The recipes that most speaks for, the best first; where conditions on files are said,
        behind them those for such for which most speaks beside that.
        """
        chosen = sorted(self._scores.items(), key=lambda pair: (-pair[1], pair[0]))[:most]
        chosen += self._filters({number for number, _ in chosen})
        marks = ",".join("?" * len(chosen))
        rows = {
            number: values
            for number, *values in self.store.rows(
                "SELECT number, recipe, wordings, changing FROM task_recipes "
                f"WHERE number IN ({marks})",
                [number for number, _ in chosen],
            )
        }
        found = []
        for number, score in chosen:
            recipe, wordings, changing = rows[number]
            texts = wordings.split("\n")
            beside = score - self._inside.get(number, 0.0)
            by_stem = {
                stem: weights[number]
                for stem, weights in self._by_stem.items()
                if number in weights
            }
            found.append(Candidate(recipe, texts, score, bool(changing), beside, by_stem))
        return found

    def _filters(self, chosen: set[int]) -> list[tuple[int, float]]:
        """The best recipes for conditions, of those that are not chosen."""
        if not self._inside:
            return []
        numbers = [number for (number,) in self.store.rows(FILTERS) if number not in chosen]
        numbers.sort(key=lambda number: self._inside.get(number, 0.0) - self._scores[number])
        return [(number, self._scores[number]) for number in numbers[:MOST_FILTERS]]

    @property
    def asks_harm(self) -> float:
        """How likely it is that harm is asked for."""
        return share_of(self.harm)

    @property
    def asks_change(self) -> float:
        """How likely it is that a change is asked for."""
        return share_of(self.change)


def share_of(odds: float) -> float:
    """The probability of log odds."""
    return 1 / (1 + math.exp(-max(-30.0, min(30.0, odds))))


def telling_of(store: Store, stems: list[str]) -> dict[str, float]:
    """How telling stems are, of those that wordings have."""
    marks = ",".join("?" * len(stems))
    return dict(
        store.rows(f"SELECT stem, telling FROM task_telling WHERE stem IN ({marks})", stems)
    )


def domains_of(store: Store, commands: set[str]) -> dict[str, frozenset[str]]:
    """The stems of which one is said by nearly all who mean a command, of those that have such."""
    marks = ",".join("?" * len(commands))
    rows = store.rows(
        f"SELECT slot, cues FROM task_cues WHERE slot IN ({marks})",
        [DOMAIN + command for command in sorted(commands)],
    )
    return {slot[len(DOMAIN) :]: frozenset(json.loads(stems)) for slot, stems in rows}
