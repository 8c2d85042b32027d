"""What of a sentence asks for something to be added to a line: an option, a pipe, a file that it
goes to. Each is known by phrases (knowledge/asks.py), which are looked for in the sentence.
"""

from __future__ import annotations

from dowsing.index.word_reader import related_terms
from dowsing.knowledge.asks import FILLING, LINE, NO, Addition, additions_of, item_of
from dowsing.knowledge.recipes import KINDS, SLOT, Slot, kind_by_name
from dowsing.knowledge.stems import EMPTY, stem
from dowsing.model.record import Record
from dowsing.tasks.part_phrases import Token, tokens_of
from dowsing.tasks.slot_fit import points_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable

    from dowsing.index.store import Store
    from dowsing.tasks.sentence import ParsedSentence
    from dowsing.tasks.values import Value

LIGHT = 0.3  # how much a word counts that could stand in any phrase
LEAST_SAID = 0.8  # of a phrase
LEAST_RELATED = 0.5  # what counts less for a word does not stand for it
BETWEEN = 2  # words that may stand among those of a phrase, beside as many as it has
LEAST_COLUMNS = 2  # that are listed
TO_VALUE = 3  # words from a word of the phrase to the value beside it
#: Such words, as they are compared.
_LIGHT = frozenset(
    item_of(word) for word in EMPTY.union("time else now then but also many much often".split())
) - {NO}
LEAST_NEAR = 0.35  # how much of what words say must speak for an addition
LEAST_ALONE = 0.65  # the same, and by how much it is before the next one
OF_RELATED = 0.5  # how much a word counts that may only stand for the one that is said
OF_A_VALUE = 0.15  # how much it counts that an addition takes the value that stands there
#: Words that deny what stands before them.
_NOTHING = frozenset("nothing none nobody".split())
#: Words that part what is asked for.
_PARTS = frozenset("and but then also plus with".split())
#: What may stand between the names of columns.
_IN_A_LIST = frozenset("and the its their also plus or with".split())
#: Kinds of values that stand in a place for a text: names; by the place's name, others.
_NAMES = frozenset(("text", "name", "extension", "command", "separator"))
_FIGURES = frozenset(("number", "size"))
_KINDS_OF_TEXT = {
    **dict.fromkeys(
        "bits degrees angle rounds percent quality year kbit ttl hostport offset low high crf rate "
        "priority fps memory".split(),
        _FIGURES,
    ),
    **dict.fromkeys("version release range".split(), _FIGURES | {"name", "file"}),
    **dict.fromkeys(
        "name tag commit branch revision object label image".split(), _NAMES | {"file"}
    ),
    **dict.fromkeys("volume mount place value context".split(), _NAMES | {"file", "path", "host"}),
    **dict.fromkeys("comment author owner".split(), _NAMES | {"host"}),
}
#: What a value is said to be that does not matter for an addition.
_NO_UNITS = frozenset(("excluded", "nth", "ordinal", "owner"))


class Asked(Record):
    """An addition that is asked for: by which words of the sentence (`words`, their numbers), with
    which values in its places, how much of the phrase is said (to 1), whether words that tell are
    among them (`told`), and whether words only speak for it (`near`).
    """

    addition: Addition
    words: frozenset[int]
    values: dict[str, Value]
    said: float
    told: bool
    near: bool = False


class Additions:
    """The additions that a sentence asks for, by command; each command's are read once."""

    def __init__(self, store: Store, said: ParsedSentence) -> None:
        self.store, self.values, self.ordinary = store, said.values, said.ordinary
        self.text = said.text
        self.tokens: list[Token] = tokens_of(said.text)
        self.items = [item_of(one.text) for one in self.tokens]
        self.inside = {
            n
            for n, one in enumerate(self.tokens)
            if any(v.sure and v.start <= one.start and one.end <= v.end for v in said.values)
        }
        #: Words that only say what a value is: `the word storm`.
        self.nouns = {
            n
            for n, one in enumerate(self.tokens)
            if any(v.noun == one.text and 0 < v.start - one.end <= TO_VALUE for v in said.values)
        }
        self.places: dict[str, list[tuple[int, float]]] = {}
        self._related: dict[str, list[tuple[str, float]]] = {}
        self._stems: dict[str, float] = {}
        self._learn()
        self.denied = self._denied()
        self.clauses = self._clauses()
        self._asked: dict[str, list[Asked]] = {}
        self._additions: dict[str, list[Addition]] = {}

    def _learn(self) -> None:
        """Where each word stands, and those that may stand for it."""
        stems = [one for n, one in enumerate(self.items) if n not in self.inside]
        related = related_terms(self.store, list(dict.fromkeys(stems))) if stems else {}
        self._related = related
        marks = ",".join("?" * (len(stems) + 1))
        self._stems = {"": 0.0} | dict(
            self.store.rows(
                f"SELECT stem, telling FROM addition_stems WHERE stem IN ({marks})", [*stems, ""]
            )
        )
        for n, one in enumerate(self.items):
            if n in self.inside:
                continue
            self.places.setdefault(one, []).append((n, 1.0))
            for other, much in related.get(one, ()):
                if much >= LEAST_RELATED:
                    self.places.setdefault(other, []).append((n, much))

    @property
    def known(self) -> frozenset[str]:
        """The commands that were read."""
        return frozenset(self._asked)

    def of(self, command: str) -> list[Asked]:
        """What is asked for of a command, or of its name with a subcommand."""
        return self._asked.get(command, [])

    def tells(self, number: int) -> bool:
        """Whether a word of the sentence says something by itself."""
        return _weight(self.items[number]) == 1.0 and self.items[number] != NO

    def read(self, commands: Iterable[str]) -> None:
        """Find what is asked for of these commands."""
        wanted = list(commands)
        marks = ",".join("?" * len(wanted))
        for command, rows in self.store.rows(
            f"SELECT command, rows FROM additions WHERE command IN ({marks})", wanted
        ):
            self._additions[command] = additions_of(rows)
            asked = (self._best(one) for one in self._additions[command])
            self._asked[command] = [one for one in asked if one is not None]

    def _best(self, addition: Addition) -> Asked | None:
        """The phrase of an addition that is said best."""
        if addition.columns:
            return self._columns(addition)
        found = [one for text in addition.phrases if (one := self._said(addition, text))]
        return max(found, key=lambda one: (one.said, len(one.words)), default=None)

    def near(self, command: str, words: list[int], values: list[Value]) -> Asked | None:
        """The addition to a command that words of the sentence speak for, though no phrase of it is
        said; `values`: those that it may take. None if they do not speak for one alone.
        """
        rated: list[tuple[float, Asked]] = []
        whole = sum(self._telling(self.items[n]) for n in words)
        is_denied = self.items[words[0]] == NO or bool(self.denied.intersection(words))
        for addition in self._additions.get(command, ()):
            names = list(dict.fromkeys(SLOT.findall(addition.text)))
            if addition.columns or len(names) > 1 or LINE in addition.text:
                continue
            if (NO in addition.stems) != is_denied:
                continue  # it is said of the contrary
            got = sum(self._telling(self.items[n]) * self._speaks(n, addition) for n in words)
            value = self._only_value(names, values)
            if not names or value is not None:
                taken = {names[0]: value} if names and value is not None else {}
                share = got / whole / 100 + OF_A_VALUE * bool(names)
                rated.append((share, Asked(addition, frozenset(words), taken, share, True, True)))
        rated.sort(key=lambda pair: -pair[0])
        if not rated:
            return None
        best, second = rated[0][0], rated[1][0] if len(rated) > 1 else 0.0
        return rated[0][1] if best >= LEAST_NEAR and 2 * best - second >= LEAST_ALONE else None

    def _speaks(self, word: int, addition: Addition) -> float:
        """How much a word, or one that it may stand for, speaks for an addition."""
        own = addition.stems.get(self.items[word], 0)
        others = (
            OF_RELATED * much * addition.stems.get(other, 0)
            for other, much in self._related.get(self.items[word], ())
        )
        return max(float(own), *others, 0.0)

    def _only_value(self, names: list[str], values: list[Value]) -> Value | None:
        """The value for the place of an addition, if there is one that is sure and only one."""
        if not names:
            return None
        slot = place_of(names[0])
        fitting = [one for one in values if one.sure and _fits(slot, one, self.items)]
        return fitting[0] if len(fitting) == 1 else None

    def _telling(self, item: str) -> float:
        return self._stems.get(item, self._stems[""])

    def _clauses(self) -> list[list[int]]:
        """The words of the sentence that tell something, clause by clause."""
        found: list[list[int]] = [[]]
        end = 0
        for n, token in enumerate(self.tokens):
            between = self.text[end : token.start]
            if (
                token.text in _PARTS
                or any(sign in between for sign in ",;:()?!")
                or (". " in between or self.items[n] == NO)
            ):
                found.append([])
            end = token.end
            is_empty = token.text in _PARTS or token.text in FILLING
            if not is_empty and n not in self.inside and n not in self.nouns:
                found[-1].append(n)
        return [words for words in found if any(self.tells(n) for n in words)]

    def stands_among(self, value: Value, clause: list[int]) -> bool:
        """Whether a value stands among the words of a clause, or right behind them."""
        first, last = self.tokens[clause[0]], self.tokens[clause[-1]]
        return first.start <= value.start <= last.end + TO_VALUE

    def _columns(self, addition: Addition) -> Asked | None:
        """The columns that are listed: two and more of their names in a row."""
        at: dict[int, tuple[int, str]] = {}
        for name, phrases in addition.columns.items():
            for phrase in phrases:
                items = phrase.split(" ")
                for n in range(len(self.items) - len(items) + 1):
                    is_longer = len(items) > at.get(n, (0, ""))[0]
                    if self.items[n : n + len(items)] == items and is_longer:
                        at[n] = (len(items), name)
        row: list[tuple[int, int, str]] = []
        best: list[tuple[int, int, str]] = []
        for n in sorted(at):
            count, name = at[n]
            end = row[-1][0] + row[-1][1] if row else 0
            if row and n < end:
                continue
            is_next = row and {one.text for one in self.tokens[end:n]} <= _IN_A_LIST
            row = [*row, (n, count, name)] if is_next else [(n, count, name)]
            best = max(best, row, key=len)
        if len(best) < LEAST_COLUMNS:
            return None
        names = ",".join(dict.fromkeys(name for _, _, name in best))
        words = frozenset(n + more for n, count, _ in best for more in range(count))
        return Asked(
            addition.changed(text=addition.text.replace("<columns>", names)), words, {}, 1.0, True
        )

    def _said(self, addition: Addition, phrase: str) -> Asked | None:
        """Whether a phrase is said, its words near each other."""
        items = phrase.split(" ")
        whole = missing = 0.0
        for item in items:
            if item[0] != "<":
                whole += _weight(item)
                missing += _weight(item) * (item not in self.places)
        if not whole or missing > (1 - LEAST_SAID) * whole:
            return None
        anchor = min(
            (one for one in items if one in self.places),
            key=lambda one: (-_weight(one), len(self.places[one])),
        )
        tries = (self._from(addition, items, anchor, n, whole) for n, _ in self.places[anchor])
        return max((one for one in tries if one), key=lambda one: one.said, default=None)

    def _from(
        self, addition: Addition, items: list[str], anchor: str, at: int, whole: float
    ) -> Asked | None:
        """The phrase with one of its words at a place."""
        reach = len(items) + BETWEEN
        where: dict[int, int] = {}
        got = 0.0
        for n, item in enumerate(items):
            if item[0] == "<":
                continue
            near = [
                (abs(place - at), -much, place)
                for place, much in self.places.get(item, ())
                if abs(place - at) <= reach and place not in where.values()
                if item != anchor or place == at
            ]
            if near:
                _, much, where[n] = min(near)
                got += _weight(item) * -much
        said = got / whole
        if said < LEAST_SAID or self._is_contrary(items, where):
            return None
        told = any(_weight(items[n]) == 1.0 and items[n] != NO for n in where)
        values = self._values(items, where)
        telling = {n for n in where.values() if self.tells(n)}
        if values is None or (telling and not values and telling <= self.nouns):
            return None
        return Asked(addition, frozenset(where.values()), values, said, told)

    def _is_contrary(self, items: list[str], where: dict[int, int]) -> bool:
        """Whether the contrary is said: a word that denies stands before what it denies in the
        sentence and not in the phrase, or the other way round.
        """
        said = [n for n in where if items[n] != NO and _weight(items[n]) == 1.0]
        if not said:
            return False
        first = min(said)
        return any(
            (where[n] in self.denied) != (NO in items[max(0, n - BETWEEN) : n])
            for n in (said if NO in items else [first])
        )

    def _denied(self) -> set[int]:
        """The words that are denied: behind a word that does (`without asking`), or before one
        (`delete nothing`).
        """
        found: set[int] = set()
        before: list[str] = []
        for n, token in enumerate(self.tokens):
            behind = self.tokens[n + 1].text if n + 1 < len(self.tokens) else ""
            if NO in before[-BETWEEN:] or behind in _NOTHING:
                found.add(n)
            if token.text not in FILLING:
                before.append(self.items[n])
        return found

    def _values(self, items: list[str], where: dict[int, int]) -> dict[str, Value] | None:
        """The values for the places of a phrase, each beside the words that it stands beside in
        the phrase; None if one is missing.
        """
        found: dict[str, Value] = {}
        for n, item in enumerate(items):
            if item[0] != "<":
                continue
            slot = place_of(item[1:-1])
            fitting = [
                (gap, value.start, value)
                for value in self.values
                if value not in found.values() and _fits(slot, value, items)
                if value.text != "1" or self.text[value.start : value.end] == "1"  # `all in one`
                if value.sure or self._is_named(value, slot, items[n - 1] if n else "")
                if (gap := self._gap(value, n, items, where)) is not None
            ]
            if not fitting:
                return None
            found[item[1:-1]] = min(fitting, key=lambda one: one[:2])[2]
        return found

    def _is_named(self, value: Value, slot: Slot, before: str) -> bool:
        """Whether a word that may be none of the language is a name: by the noun beside it, or as
        the phrase has a word before it that says what it is.
        """
        is_ordinary = self.ordinary.has(value.text.casefold())
        if value.noun and (value.unit == "excluded" or not is_ordinary):
            return True
        first = self._inside(value)[:1]
        is_led_to = bool(first) and first[0] > 0 and self._stands_for(first[0] - 1, before)
        return slot.kind == "text" and is_led_to and _weight(before) == 1.0

    def _gap(self, value: Value, at: int, items: list[str], where: dict[int, int]) -> int | None:
        """How many words stand between a value and the words of the phrase beside it; None if it
        does not stand beside them.
        """
        inside = self._inside(value)
        if not inside:
            return None
        gaps = [
            self._gap_to(items, where, at - 1, inside[0], -1),
            self._gap_to(items, where, at + 1, inside[-1], 1),
        ]
        known = [gap for gap in gaps if gap is not None]
        return None if -1 in known or not known else min(known)

    def _gap_to(
        self, items: list[str], where: dict[int, int], item: int, word: int, step: int
    ) -> int | None:
        """The words up to a word of the phrase on one side of a value: None if the phrase has none
        there, -1 if the sentence has not.
        """
        if not 0 <= item < len(items) or items[item][0] == "<":
            return None
        beside = word + step
        while 0 <= beside < len(self.tokens) and self.tokens[beside].text in FILLING:
            beside += step
        if 0 <= beside < len(self.tokens) and self._stands_for(beside, items[item]):
            return 0
        place = where.get(item)
        if place is None or _weight(items[item]) < 1.0:
            return -1
        gap = (place - word) * step - 1
        return gap if 0 <= gap <= TO_VALUE else -1

    def _stands_for(self, word: int, item: str) -> bool:
        return any(place == word for place, _ in self.places.get(item, ()))

    def _inside(self, value: Value) -> list[int]:
        """The words of a value, by their numbers."""
        return [
            n
            for n, one in enumerate(self.tokens)
            if one.start < value.end and value.start < one.end
        ]


def place_of(name: str) -> Slot:
    """The slot for a place of an addition."""
    kind = kind_by_name(name)
    return Slot(name, kind if kind in KINDS else "text")


def _fits(slot: Slot, value: Value, items: list[str]) -> bool:
    """Whether a value may stand in a place. Its unit does not matter if the phrase says it, nor
    that it is something left out.
    """
    if slot.kind == "text" and value.kind not in _KINDS_OF_TEXT.get(slot.name, _NAMES):
        return False
    if value.unit and (value.unit in _NO_UNITS or stem(value.unit) in items):
        value = value.changed(unit="")
    return points_of(slot, value) > 0


def _weight(item: str) -> float:
    return LIGHT if item in _LIGHT else 1.0
