"""Whether the values of a line that destroys or stops something were said to be what they are taken
for. A word that nobody knows may be a misspelled one: `remove the brnch old-login` removes no user
of the name brnch.
"""

from __future__ import annotations

import re

from dowsing.model.nearness import is_slip
from dowsing.tasks.bare_names import NOUNS
from dowsing.tasks.slot_fit import NOUN_SLOTS

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.filling import FilledRecipe
    from dowsing.tasks.sentence import ParsedSentence
    from dowsing.tasks.values import Value

#: Kinds of values that are told by their form.
_FORMS = frozenset(
    "file path glob number size date time url host remote extension sum text schedule".split()
)
#: Slots that a name alone may stand in: what is stopped, started, removed or installed by its name.
#: A value of any other slot must be led to by a noun.
_BY_NAME = frozenset(
    "service services unit program package packages process pid command name file files folder "
    "folders path paths text pattern word".split()
)
_NEXT_WORD = re.compile(r"\s+([\w.-]+)")
_OWNED = re.compile(r"(\w+) (?:of|for) (?:the )?\Z")  # `the account of fern`
SHORTEST = 4  # letters of a word that may be a misspelled noun


def is_meant(said: ParsedSentence, filled: FilledRecipe, harms: bool) -> bool:
    """Whether every value of a line that changes anything was said to be what it is taken for, as
    far as can be told; `harms`: it destroys or stops something, so that it must be told.
    """
    if harms:
        return all(_is_led_to(said, slot, value) for slot, value in filled.places.items())
    return not any(_is_a_misspelled_noun(said, value) for value in filled.places.values())


def _is_led_to(said: ParsedSentence, slot: str, value: Value) -> bool:
    kind = slot.rstrip("0123456789")
    if value.kind in _FORMS and (value.sure or value.kind != "text"):
        return True
    if value.noun:
        return kind == value.noun or kind in NOUN_SLOTS.get(value.noun, (kind,))
    if value.unit == "owner" or value.before == kind:
        return True
    owned = _OWNED.search(said.text[: value.start])
    if owned and kind in NOUN_SLOTS.get(owned[1].lower(), ()):
        return True
    if _is_a_misspelled_noun(said, value):
        return False
    return kind in _BY_NAME


def _is_a_misspelled_noun(said: ParsedSentence, value: Value) -> bool:
    """Whether a word that is none of the language stands where a noun does, before a name, or is
    written like one.
    """
    word = value.text.casefold()
    if value.noun or value.kind in _FORMS:
        return False
    if said.ordinary.has(word) or not word.isalpha():
        return False
    behind = _NEXT_WORD.match(said.text[value.end :])
    if behind and not said.ordinary.has(behind[1].casefold()):
        return True
    return len(word) >= SHORTEST and any(is_slip(word, noun) for noun in NOUNS)
