"""A sheet of fields that are filled in, whatever line comes of it."""

from __future__ import annotations

from dowsing.composing.faults import FaultCode
from dowsing.composing.field import SWITCH, Field, FieldKind, Step, wrong
from dowsing.model.record import Record
from dowsing.model.told import Told, told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.unpicked import Unpicked


class FieldFault(Record):
    """A value that cannot be right, or a field that lacks one."""

    field: Field
    value: str
    reason: Told


class Sheet:
    """The fields of a line and what they hold. Derived classes know how the line is written.

    `title` names what is composed, `summary` says what it is, `page` names the text that says so.
    """

    title = summary = page = ""
    #: whether there are several spellings of an option to choose from
    has_spellings = False

    def __init__(self, folder: str = "") -> None:
        self.folder = folder
        self.fields: list[Field] = []
        self._held: dict[str, list[str]] = {}

    # --- what it holds
    # -------------------------------------------------------------------------------

    def values(self, field: Field) -> list[str]:
        """The values of a field, [] if it is not filled in. `SWITCH` is that of an option without a
        value.
        """
        return list(self._held.get(field.key, []))

    def put(self, field: Field, values: list[str]) -> None:
        """Let a field hold these values; of several, the first alone if it may not be repeated."""
        kept = values if field.repeats else values[:1]
        self._held.pop(field.key, None)
        if kept:
            self._held[field.key] = list(kept)

    def state(self) -> dict[str, list[str]]:
        """All that it holds, by field."""
        return {key: list(values) for key, values in self._held.items()}

    def restore(self, state: dict[str, list[str]]) -> None:
        """Let it hold what it held before, of which a form may have brought other fields."""
        form = state.get(FieldKind.FORM, [])
        if form and form != self._held.get(FieldKind.FORM):
            self.put(self.field(FieldKind.FORM), form)
        self._held = {key: list(values) for key, values in state.items()}

    def initial(self, field: Field) -> list[str]:
        """What a field held when the form was opened."""
        return []

    def field(self, key: str) -> Field:
        """The field of a key. Raises KeyError if there is none."""
        for field in self.fields:
            if field.key == key:
                return field
        raise KeyError(key)

    def is_on(self, field: Field) -> bool:
        """Whether it is filled in."""
        return bool(self._held.get(field.key))

    # --- what is asked
    # -------------------------------------------------------------------------------

    def of_step(self, step: Step) -> list[Field]:
        """The fields of a step: those required, those often used or filled in, or all."""
        if step == Step.ALL:
            return list(self.fields)
        if step == Step.REQUIRED:
            return [field for field in self.fields if field.required]
        return [
            field
            for field in self.fields
            if not field.required and (field.usual or self.is_on(field))
        ]

    def counts(self) -> dict[Step, int]:
        """How many fields each step has."""
        return {step: len(self.of_step(step)) for step in Step}

    def search(self, words: str) -> list[Field]:
        """The fields that have all the words in their spelling or text: first those whose spelling
        is or begins with the first of them, then those with them in the spelling.
        """
        wanted = words.casefold().split()
        found: list[tuple[int, Field]] = []
        for field in self.fields:
            name = f"{field.label} {field.placeholder} {' '.join(field.flags)}".casefold()
            text = f"{name} {field.says} {field.group}".casefold()
            if all(word in text for word in wanted):
                spellings = [flag.casefold().lstrip("-") for flag in field.flags or [field.label]]
                first = wanted[0].lstrip("-") if wanted else ""
                nearness = (
                    0
                    if first in spellings
                    else 1
                    if any(one.startswith(first) for one in spellings)
                    else 2
                )
                found.append((nearness + 3 * sum(word not in name for word in wanted), field))
        return [field for _, field in sorted(found, key=lambda pair: pair[0])]

    # --- what is wrong
    # -------------------------------------------------------------------------------

    def ruled_out(self) -> dict[str, str]:
        """The keys of the fields that others rule out, each with what does it."""
        return {}

    def wrong(self, field: Field) -> Told | None:
        """Why what a field holds cannot be right."""
        values = self.values(field)
        if field.what == FieldKind.OPTION and field.takes and not field.bare and SWITCH in values:
            return (
                told(FaultCode.WANTED, field.placeholder)
                if field.placeholder
                else told(FaultCode.VALUE_WANTED)
            )
        return next(
            (reason for value in values if (reason := wrong(field, value, self.folder))), None
        )

    def read_line(self, spelling: str = "") -> Unpicked | None:
        """The line as it stands, taken apart; None for lines of files."""
        return None

    def examples(self, field: Field) -> list[str]:
        """Lines that show how a field is used."""
        return []

    def means(self, field: Field, value: str) -> str:
        """What choosing this value of a field is for, in the words of the page, "" if it is not
        known.
        """
        return ""

    def faults(self) -> list[FieldFault]:
        """All that is wrong with the values there are, in the order of the fields."""
        found = []
        for field in self.fields:
            reason = self.wrong(field)
            if reason:
                found.append(FieldFault(field, ", ".join(self.values(field)), reason))
        return found

    def missing(self) -> list[FieldFault]:
        """The fields that must be filled in and are not; of alternatives the first stands for
        all.
        """
        return [
            FieldFault(field, "", told(FaultCode.NEEDED, field.label))
            for field in self.fields
            if field.required and not self.is_on(field)
        ]

    def settle(self) -> bool:
        """Take up what changes the fields themselves, now that it was chosen; whether the fields
        are others now.
        """
        return False

    # --- what comes of it
    # ----------------------------------------------------------------------------

    def line(self, spelling: str = "") -> str:
        """The line as it stands. `spelling`: long or short for options, "" for each as it was
        typed.
        """
        raise NotImplementedError

    def first_step(self) -> Step:
        """The step to begin with: the required fields while one of them lacks a value, then those
        often used.
        """
        if any(fault.field.required for fault in self.missing()):
            return Step.REQUIRED
        counts = self.counts()
        return next((step for step in (Step.USUAL, Step.REQUIRED) if counts[step]), Step.ALL)
