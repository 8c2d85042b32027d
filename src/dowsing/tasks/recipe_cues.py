"""Where the values of one recipe stand in a sentence: what the words around a place say, and which
words may be values at all.
"""

from __future__ import annotations

from dowsing.knowledge.recipes import Slot
from dowsing.knowledge.slot_cues import slot_kind
from dowsing.knowledge.stems import stem
from dowsing.tasks.bare_names import FOLDER_NAMES
from dowsing.tasks.cues import Cues
from dowsing.tasks.slot_fit import VERBS_TOO

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.bare_names import Ordinary
    from dowsing.tasks.values import Value

#: What the words around a word must say for it to be a value: of the name of a command where one
#: may stand, of a word that is none of the language, of one that folders are often named by, of an
#: ordinary one, of one that the recipe is asked for with, of one that nothing is named by, and of
#: the rest of a sentence.
PROGRAM, BARE, FOLDER, ORDINARY, OWN_WORD, NEVER, REST = 0.5, 2.0, 3.5, 5.0, 6.5, 8.0, 4.0
NOUN = 4.0  # what it counts that the noun beside a word is what the slot is called
AGAINST = -9.0
OF_CUES = 0.5  # how much that counts beside the kinds of values
#: Slots that the name of a command may stand in.
_OF_PROGRAMS = frozenset(
    "name program package command service process line shell interpreter tool editor pager".split()
)


class RecipeCues:
    """Where the values of one recipe stand in a sentence; `own` are the stems of its wordings,
    `programs` the words that are names of commands here.
    """

    def __init__(
        self,
        cues: Cues,
        own: set[str],
        bare: list[tuple[Value, bool]],
        programs: frozenset[str],
        ordinary: Ordinary,
    ) -> None:
        self.cues, self.own, self.bare, self.programs = cues, own, bare, programs
        self.ordinary = ordinary

    def may_name(self, word: str) -> bool:
        """Whether an ordinary word may be a name all the same."""
        return self.ordinary.can_name(word.casefold())

    def points(self, slot: Slot, value: Value) -> float:
        """What the words around a value say for the slot; much against a word that is there for
        another reason.
        """
        says = self._says(slot, value)
        if not value.sure and says < ORDINARY and self._is_of_the_task(slot, value):
            return AGAINST
        return OF_CUES * says

    def _is_of_the_task(self, slot: Slot, value: Value) -> bool:
        """Whether an unsure value is a word that says what is to be done, or with what."""
        word = value.text.casefold()
        if not value.start and self.ordinary.has(word):
            return True  # the first word says what is to be done
        if value.text in self.programs:
            return slot_kind(slot.name) not in _OF_PROGRAMS and self.ordinary.has(word)
        if value.noun or " " in word or word in FOLDER_NAMES:
            return False
        return stem(word) in self.own

    def more(self, slots: list[Slot], values: list[Value]) -> list[Value]:
        """Words that may be values of these slots by their place."""
        found = []
        for value, is_ordinary in self.bare:
            if any(one.start < value.end and value.start < one.end for one in values):
                continue
            least = self._least(value, is_ordinary)
            if any(self._says(slot, value) >= self._bound(slot, value, least) for slot in slots):
                found.append(value)
        return found + [one for slot in slots for one in self._rests(slot)]

    def _least(self, value: Value, is_ordinary: bool) -> float:
        """What the words around a word must say for it to be a value."""
        is_folder = value.text in FOLDER_NAMES
        may_name = is_folder or value.text in self.programs or self.may_name(value.text)
        if is_ordinary and not may_name:
            return NEVER
        if is_folder:
            return FOLDER
        if stem(value.text.casefold()) in self.own:
            return OWN_WORD
        return ORDINARY if is_ordinary else BARE

    def _bound(self, slot: Slot, value: Value, least: float) -> float:
        """The same for a slot: the name of a command may well stand where one is wanted."""
        if value.text not in self.programs:
            return least
        return PROGRAM if slot_kind(slot.name) in _OF_PROGRAMS else OWN_WORD

    def _rests(self, slot: Slot) -> list[Value]:
        """The ends of the sentence that are the value of a slot. Behind its own name it is all of
        one piece, whatever words are in it; a line begins with a command.
        """
        name = slot_kind(slot.name)
        return [
            one.changed(sure=one.before == name)
            for one in self.cues.rests(slot.name)
            if name != "line" or one.text.split(" ")[0] in self.programs
            if self._says(slot, one) >= REST
        ]

    def _says(self, slot: Slot, value: Value) -> float:
        name = slot_kind(slot.name)
        says = self.cues.weight(slot.name, value.start, value.end)
        word = value.text.casefold()
        if self.ordinary.has(word) and not self.ordinary.can_name(word) and not value.noun:
            return says
        beside = (value.noun or value.before, value.before, self.cues.behind(value.end))
        is_named = name in beside and name not in VERBS_TOO
        has_role = self.cues.before(value.start) == [name, slot.kind]
        return says + NOUN * (is_named or has_role)
