"""Where the values of a slot stand in a sentence, as it was learned from wordings."""

from __future__ import annotations

import json
import re

from dowsing.knowledge.slot_cues import VALUE, around, pieces_of, slot_kind, slot_role
from dowsing.knowledge.stems import EMPTY
from dowsing.tasks.bare_names import may_name, noun_at, word_before
from dowsing.tasks.values import Value

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.tasks.bare_names import Ordinary

OF_TWO = 0.5  # how much two words beside a place count, beside one
OF_ROLE = 0.9  # how much the cues of all slots for what is made count, beside those of one
UNSEEN = -0.5  # what a word counts that never stood beside a place of the slot
LEAST, MOST = -4.0, 9.0
#: Words that may begin what is said of a command, and do not belong to it.
_BEHIND = re.compile(
    r"\b(?:on|over|via|at|every|each|in|inside|into|as|with|when|whenever|until|for|and|then|after"
    r"|but|so|while|without|from|again|by)\b|\bto (?=an? |the |file\b|[/~])|,"
)
#: Slots whose value may be all the rest of a sentence.
_TO_THE_END = frozenset(("message", "command", "query", "line", "text"))


class Cues:
    """The places of a sentence. `values` are those that are known by their shape."""

    def __init__(self, store: Store, text: str, values: list[Value]) -> None:
        self.store, self.text = store, text
        #: Where something else may begin behind a command.
        self._ends = [match.start() for match in _BEHIND.finditer(text)]
        self._ends += [value.start for value in values if value.kind == "schedule" and value.start]
        self._known: dict[str, dict[str, float]] = {}
        self.places: list[tuple[str, int, int]] = []
        sure = sorted((v for v in values if v.sure), key=lambda value: value.start)
        for word, start, end in pieces_of(text):
            if any(value.start < end and start < value.end for value in sure):
                continue
            self.places.append((word, start, end))
        self.places += [(VALUE, value.start, value.end) for value in sure]
        self.places.sort(key=lambda place: place[1])
        self.words = [word for word, _, _ in self.places]

    def learn(self, slots: list[str]) -> None:
        """Have the cues of slots at hand, all in one query."""
        kinds = {slot_kind(slot) for slot in slots} | {slot_role(slot) for slot in slots}
        wanted = sorted(kinds - {""} - set(self._known))
        self._known.update((slot, {}) for slot in wanted)
        marks = ",".join("?" * len(wanted))
        for slot, cues in self.store.rows(
            f"SELECT slot, cues FROM task_cues WHERE slot IN ({marks})", wanted
        ):
            self._known[slot] = json.loads(cues)

    def weight(self, slot: str, start: int, end: int) -> float:
        """How much the words around a place say that a value of the slot stands there, in log
        odds.
        """
        inside = [n for n, (_, a, b) in enumerate(self.places) if a < end and start < b]
        if not inside:
            return 0.0
        beside = around(self.words, inside[0], inside[-1])
        own = self._weighed(slot_kind(slot), beside)
        role = slot_role(slot)
        return max(own, OF_ROLE * self._weighed(role, beside)) if role else own

    def _weighed(self, slot: str, beside: list[str]) -> float:
        known = self._known.get(slot)
        if not known:
            return 0.0
        one, other, two, others = beside
        total = known.get(one, UNSEEN) + known.get(other, UNSEEN)
        total += OF_TWO * (known.get(two, 0.0) + known.get(others, 0.0))
        return max(LEAST, min(MOST, total))

    def before(self, start: int) -> list[str]:
        """The two words before a place."""
        return [word for word, _, end in self.places if end <= start][-2:]

    def behind(self, end: int) -> str:
        """The word behind a place, "" at the end."""
        return next((word for word, start, _ in self.places if start >= end), "")

    def bare(self, ordinary: Ordinary) -> list[tuple[Value, bool]]:
        """The words that may be values by their place alone, and whether they are ordinary ones."""
        found = []
        for word, start, end in self.places[1:]:  # the first says what is to be done
            if word == VALUE or not word[:1].isalnum() or not may_name(word):
                continue
            if re.split(r"['’]", word)[0] in EMPTY:
                continue
            before = word_before(self.text, start)
            noun = noun_at(self.text, start, end, before)
            name = self.text[start:end]
            value = Value(name, "name", start, end, before, sure=False, noun=noun)
            found.append((value, ordinary.has(word)))
        return found

    def rests(self, slot: str) -> list[Value]:
        """The ends of the sentence that may be the value of a slot for free text, if it is one."""
        if slot_kind(slot) not in _TO_THE_END:
            return []
        ends = [len(self.text.rstrip(" .?!"))]
        if slot_kind(slot) == "command":
            ends += [len(self.text[:end].rstrip(" ,")) for end in self._ends]
        return [
            Value(
                self.text[start:end], "text", start, end, word_before(self.text, start), sure=False
            )
            for end in ends
            for _, start, _ in self.places[1:-1]
            if start < end
        ]
