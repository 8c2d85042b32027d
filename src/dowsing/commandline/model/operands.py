"""Which place of a form each operand of a line takes."""

from __future__ import annotations

import re

from dowsing.commandline.model.form_facts import distance, is_options_place
from dowsing.commandline.model.tree import Slot
from dowsing.facts.forms import Element, ElementKind, Form
from dowsing.model.value_kinds import ValueKind, value_kind
from dowsing.model.values import OperandRole

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Command

#: What placeholders tell of the role, where no fact does.
_ROLES = {
    **dict.fromkeys(("source", "src", "from", "infile", "input"), OperandRole.SOURCE),
    **dict.fromkeys(
        ("dest", "destination", "target", "to", "outfile", "output"), OperandRole.TARGET
    ),
    **dict.fromkeys(("pattern", "patterns", "regex", "regexp"), OperandRole.PATTERN),
    **dict.fromkeys(("host", "hostname", "server"), OperandRole.HOST),
    **dict.fromkeys(("command", "cmd"), OperandRole.COMMAND),
    **dict.fromkeys(("container",), OperandRole.CONTAINER),
    **dict.fromkeys(("image",), OperandRole.IMAGE),
    **dict.fromkeys(("package", "pkg"), OperandRole.PACKAGE),
}


class Fit:
    """How the operands of a line fit a form: the slot of each (None for those beyond the last), and
    the slots that are required and not filled.
    """

    def __init__(self, slots: list[Slot | None], lacking: list[Slot]) -> None:
        self.slots, self.lacking = slots, lacking

    @property
    def surplus(self) -> int:
        """How many operands have no place."""
        return sum(slot is None for slot in self.slots)


def best_fit(known: Command, count: int, used: set[str]) -> Fit:
    """The fit of the form that suits so many operands and these options best."""
    best: tuple[tuple[int, int, int], Fit] | None = None
    for form in known.forms:
        named = bool(form.elements) and form.elements[0].what == ElementKind.COMMAND
        if form.defines or form.problem or not named:
            continue
        fit = fit_of(slots_of(known, form), count)
        rank = (distance(form, used), fit.surplus, len(fit.lacking))
        if best is None or rank < best[0]:
            best = (rank, fit)
    return best[1] if best else Fit([None] * count, [])


def fit_of(slots: list[Slot], count: int) -> Fit:
    """Which of the slots so many operands take: required ones first, then those that may be left
    out, from the left; what is over goes to the first that repeats.
    """
    required = [slot for slot in slots if slot.required]
    if count < len(required):
        return Fit(list(required[:count]), required[count:])
    spare = count - len(required)
    taken: list[Slot | None] = []
    repeating = next((slot for slot in slots if slot.repeats), None)
    optional = sum(not slot.required for slot in slots)
    over = max(0, spare - optional) if repeating is not None else 0
    for slot in slots:
        if not slot.required:
            if not spare:
                continue
            spare -= 1
        taken.append(slot)
        if slot is repeating:
            taken += [slot] * over
    taken += [None] * (count - len(taken))
    return Fit(taken, [])


def slots_of(known: Command, form: Form) -> list[Slot]:
    """The places for operands in a form, in order. The words of the command itself have none."""
    found: list[Slot] = []
    for element in form.elements:
        found += _slots(known, element, element.required)
    return found


def _slots(known: Command, element: Element, required: bool) -> list[Slot]:
    if element.what in (ElementKind.COMMAND, ElementKind.OPTION):
        return []
    if element.what == ElementKind.GROUP and _is_options_group(element):
        return []
    if element.what == ElementKind.GROUP:
        inner = [
            slot
            for one in element.elements
            for slot in _slots(known, one, required and element.required and one.required)
        ]
        return [slot.changed(repeats=slot.repeats or element.repeats) for slot in inner]
    if element.what == ElementKind.CHOICE:
        return _chosen(known, element, required)
    if element.what == ElementKind.LITERAL and _is_own_word(known, element.text):
        return []
    if is_options_place(element.text) or re.search(r"\{.*\|", element.text):
        return []
    if not any(char.isalnum() for char in element.text):  # a sign between placeholders
        return []
    return [_slot(known, element, required)]


def _is_options_group(element: Element) -> bool:
    """Whether words in brackets together stand for options: `[command-line switches]`."""
    parts = element.elements
    return all(one.what == ElementKind.OPERAND for one in parts) and any(
        is_options_place(one.text) for one in parts
    )


def _chosen(known: Command, element: Element, required: bool) -> list[Slot]:
    """The slots of a choice: of words, one with these; else those of the first alternative that has
    any.
    """
    words = [one.text for one in element.elements if one.what == ElementKind.LITERAL]
    if any(_is_own_word(known, word) for word in words):
        return []
    if len(words) == len(element.elements):
        return [
            Slot(
                " | ".join(words),
                ValueKind.CHOICE,
                None,
                required and element.required,
                element.repeats,
                words,
            )
        ]
    for one in element.elements:
        if one.what == ElementKind.OPTION:  # then an option may stand there instead
            required = False
    for one in element.elements:
        inner = _slots(known, one, required and element.required)
        if inner:
            return [slot.changed(repeats=slot.repeats or element.repeats) for slot in inner]
    return []


def _is_own_word(known: Command, word: str) -> bool:
    """Whether a word of a form is the subcommand itself."""
    return word in known.words.split(" ")[1:] or word == known.only


def _slot(known: Command, element: Element, required: bool) -> Slot:
    text = element.text
    bare = re.match(r"[\[<{]*([^\[\]<>{}]*)", text)
    name = (bare[1].strip("' ,") if bare else "") or text
    repeats = element.repeats and ("[," not in text or text.endswith("]..."))
    if "[," in text:  # `MODE[,MODE]...` is one word
        repeats = False
    fact = known.facts.operands.get(name)
    if fact is None:
        kind = value_kind(name, "file mode" if name.isupper() else "")
        return Slot(name, kind, role_of(name), required and element.required, repeats)
    value = fact.value
    return Slot(
        name,
        value.kind,
        fact.role,
        required and element.required,
        repeats,
        value.choices,
        value.closed,
        value.units,
    )


def role_of(name: str) -> OperandRole | None:
    """The role that a placeholder tells."""
    low = name.strip("[]<>{}.").lower()
    return _ROLES.get(low) or _ROLES.get(re.split(r"[-_ ]", low)[-1].rstrip("s"))
