"""What is put into the line of a recipe beside what it has: of all that is asked for, what the
recipe does not say already, and what can stand in its line.
"""

from __future__ import annotations

import re

from dowsing.knowledge.asks import ANY, LINE
from dowsing.model.record import Record
from dowsing.tasks.additions import Additions, Asked, place_of
from dowsing.tasks.filling import in_place, written_value
from dowsing.tasks.inserting import (
    CommandPlace,
    around,
    command_names,
    command_places,
    inserted,
    replaced,
    stands_in,
)

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable

    from dowsing.knowledge.recipes import Recipe
    from dowsing.tasks.values import Value

#: Options that may stand there more than once.
REPEATED = re.compile(r"exclu|inclu|ignore|filter|label|^-[xHepvi] ")
#: What joins values in a row.
_JOINED = re.compile(r"\W*(?:(?:and|or|nor|without|not|no|the|any|excluding|except)\W+)*", re.I)
MOST_BETWEEN = 20  # characters between them
MOST_ADDED = 5  # to one line
OF_VALUE = 1.5  # how much a value counts that finds its place, in words


class Added(Record):
    """A line with what was put into it: the additions, in their order, and those that it had
    already.
    """

    line: str
    asked: list[Asked]
    had: list[Asked]


class Adding:
    """Puts additions into lines, for one sentence."""

    def __init__(self, additions: Additions) -> None:
        self.additions = additions

    def learn(self, recipes: Iterable[Recipe]) -> None:
        """Read what may be added to the lines of these recipes."""
        names = {name for one in recipes for name in command_names(one.line)}
        self.additions.read(sorted({*names, ANY}))

    def put_into(
        self, line: str, free: list[Value], new: frozenset[int], strange: frozenset[int]
    ) -> Added:
        """The line with all that is asked for and can stand there. `free`: values that have no
        place; `new`: the words that the nearest wording of the recipe has nothing of, by their
        numbers, `strange`: those that none has, which what every line may get must go by.
        """
        added: list[Asked] = []
        had: list[Asked] = []
        left = set(new)
        for one, words in self._candidates(line, free, left):
            tells_more = any(value in free for value in one.values.values())
            telling = self._telling(one) & (left if words != ANY else left & strange)
            if len(added) >= MOST_ADDED or not (tells_more or telling):
                continue
            place = _place_of(line, words, self.additions.known)
            again = tells_more and REPEATED.search(one.addition.text)
            if place is not None and stands_in(line, place, one.addition.text) and not again:
                had.append(one)
                left -= one.words
                continue
            longer = self._with(line, place, one)
            if longer is None:
                continue
            row = self._in_a_row(one, free)
            for other in row:
                place = _place_of(longer, words, self.additions.known)
                longer = self._with(longer, place, other) or longer
            line = longer
            added += [one, *row]
            left -= one.words
            taken = [value for asked in (one, *row) for value in asked.values.values()]
            free = [value for value in free if value not in taken]
        for one, words in self._near(line, free, left):
            place = _place_of(line, words, self.additions.known)
            longer = self._with(line, place, one) if place and len(added) < MOST_ADDED else None
            if place and longer and not stands_in(line, place, one.addition.text):
                line = longer
                added.append(one)
        return Added(line, added, had)

    def _near(self, line: str, free: list[Value], left: set[int]) -> list[tuple[Asked, str]]:
        """What the clauses speak for of which most is left, with the words of its command."""
        found: list[tuple[Asked, str]] = []
        for clause in self.additions.clauses:
            telling = [n for n in clause if self.additions.tells(n)]
            if len(left.intersection(telling)) * 2 <= len(telling):
                continue
            values = [one for one in free if self.additions.stands_among(one, clause)]
            near = [
                (one, words)
                for words in self._names(line)
                if (one := self.additions.near(words, clause, values)) is not None
            ]
            if near:
                found.append(max(near, key=lambda pair: pair[0].said))
        return found

    def _candidates(self, line: str, free: list[Value], new: set[int]) -> list[tuple[Asked, str]]:
        """What may be added, with the words of its command, what says most first."""
        found: list[tuple[Asked, str]] = []
        for words in [*self._names(line), ANY]:
            found += [
                (one, words)
                for one in self.additions.of(words)
                if all(value in free for value in one.values.values())
                if one.told or (one.values and (words != ANY or _is_redirection(one)))
            ]
        return sorted(found, key=lambda pair: (pair[1] == ANY, -self._gain(pair[0], new)))

    def _names(self, line: str) -> list[str]:
        """The commands of a line of which additions are known, each once."""
        return list(dict.fromkeys(one.words for one in command_places(line, self.additions.known)))

    def _in_a_row(self, one: Asked, free: list[Value]) -> list[Asked]:
        """The same addition for further values that stand in a row with its own: `without X and
        without Y`.
        """
        if len(one.values) != 1 or not REPEATED.search(one.addition.text):
            return []
        ((name, value),) = one.values.items()
        found = []
        end = value.end
        for other in sorted(free, key=lambda other: other.start):
            alike = other.kind == value.kind and other.unit == value.unit
            if other.start < end or not alike or other.start - end > MOST_BETWEEN:
                continue
            if _JOINED.fullmatch(self.additions.text[end : other.start]):
                found.append(one.changed(values={name: other}, words=frozenset()))
                end = other.end
        return found

    def _gain(self, one: Asked, new: set[int]) -> float:
        """How much of the sentence an addition has that nothing else has."""
        return one.said * (len(self._telling(one) & new) + OF_VALUE * len(one.values))

    def _telling(self, one: Asked) -> set[int]:
        return {n for n in one.words if self.additions.tells(n)}

    def _with(self, line: str, place: CommandPlace | None, one: Asked) -> str | None:
        """The line with an addition; None if it cannot stand there."""
        text = one.addition.text
        for name, value in one.values.items():
            slot = place_of(name)
            word = in_place(written_value(slot, value, text), slot, text)
            if word is None:
                return None
            text = text.replace(f"<{name}>", word)
        if place is None:
            return around(line, text)
        if "<" in text.replace("<<", "") or any(
            stands_in(line, place, other) for other in one.addition.excludes
        ):
            return None
        needs = one.addition.needs
        if needs and not any(stands_in(line, place, other) for other in needs):
            return None
        if not text.startswith(("-", "+")) and "=" not in text:
            return None
        return replaced(inserted(line, place, text), place, one.addition.instead)


def _place_of(line: str, words: str, known: frozenset[str]) -> CommandPlace | None:
    """The first command of a line with these words."""
    return next((one for one in command_places(line, known) if one.words == words), None)


def _is_redirection(one: Asked) -> bool:
    """Whether the output of the line goes into a file that has an ending."""
    return one.addition.text.startswith(f"{LINE} >") and all(
        "." in value.text for value in one.values.values()
    )
