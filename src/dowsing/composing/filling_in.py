"""What a line has already, put into the fields of its command."""

from __future__ import annotations

import re
from collections import Counter

from dowsing.commandline.model.tree import OperandUse, OptionUse, WordUse
from dowsing.composing.field import SWITCH, Field, FieldKind
from dowsing.composing.form_fields import FieldPlace

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word


class FilledIn:
    """What was found. `held`: the values by the keys of fields; `raw`: how a value stands in the
    line, by key and value; `spelled`: the spelling that an option was typed in; `joined`: options
    whose value stands after `=`; `extra`: words that no field is for; `ended`: there is a `--`;
    `bundled`: letters stand together.
    """

    def __init__(self) -> None:
        self.held: dict[str, list[str]] = {}
        self.raw: dict[tuple[str, str], str] = {}
        self.spelled: dict[str, str] = {}
        self.extra: list[str] = []
        self.joined: set[str] = set()
        self.ended = False
        self.bundled = False


def fill_in(
    fields: list[Field],
    places: list[FieldPlace],
    uses: list[OptionUse | OperandUse | WordUse],
) -> FilledIn:
    """Put the words of a command into its fields. `places` are those of its form, in order."""
    filled = FilledIn()
    words = [id(use.word) for use in uses if isinstance(use, OptionUse)]
    filled.bundled = len(set(words)) < len(words)
    for use in uses:
        if isinstance(use, OptionUse):
            _option(filled, fields, use)
        elif isinstance(use, OperandUse):
            continue
        elif use.word.text == "--":
            filled.ended = True
        else:
            filled.extra.append(use.word.text)
            if use.value is not None:
                filled.extra.append(use.value.word.text)
    _operands(filled, fields, places, [use.word for use in uses if isinstance(use, OperandUse)])
    return filled


def _option(filled: FilledIn, fields: list[Field], use: OptionUse) -> None:
    flags = set(use.spelling.option.flags)
    field = next((f for f in fields if f.what == FieldKind.OPTION and set(f.flags) & flags), None)
    if field is None:
        filled.extra += [one.text for one in (use.word, *use.value_words)]
        return
    filled.spelled[field.key] = use.flag
    value, raw = SWITCH, ""
    if use.carries or (use.value is not None and use.flag not in field.flags):
        value = use.value or SWITCH  # a command, or a number or a signal for an option
    elif use.value is not None:
        value, raw = use.value, use.raw_value or ""
    if use.value_words and not use.carries:
        value = " ".join(_plain(word) for word in use.value_words)
    elif use.word.value[len(use.flag) : len(use.flag) + 1] == "=":
        filled.joined.add(field.key)
    filled.raw[field.key, value] = raw
    filled.held[field.key] = [*filled.held.get(field.key, []), value] if field.repeats else [value]


def _plain(word: Word) -> str:
    """A word without the shell's quotes, what it puts in left as it stands."""
    return word.value if word.quoted and word.value else word.text


def _operands(
    filled: FilledIn, fields: list[Field], places: list[FieldPlace], operands: list[Word]
) -> None:
    """Give the operands to the fields in order; those that may be left out get what others do not
    need.
    """
    known = {field.key: field for field in fields}
    wanted = [
        known[p.key]
        for p in places
        if p.key in known and known[p.key].what in (FieldKind.OPERAND, FieldKind.WORD)
    ]
    literals = [place.word for place in places if place.word]
    given: list[Word] = []
    for word in operands:
        if _plain(word) in literals:
            literals.remove(_plain(word))
        else:
            given.append(word)
    spare = len(given) - sum(field.required and field.what == FieldKind.OPERAND for field in wanted)
    for at, field in enumerate(wanted):
        if field.what == FieldKind.WORD:
            if given and _plain(given[0]) == field.label:
                filled.held[field.key] = [SWITCH]
                given.pop(0)
                spare -= 1
            continue
        if not given or (not field.required and spare <= 0):
            continue
        count = 1
        if field.repeats:
            count = max(
                1,
                len(given)
                - sum(one.required and one.what == FieldKind.OPERAND for one in wanted[at + 1 :]),
            )
        taken, given = given[:count], given[count:]
        spare -= count - field.required
        for word in taken:
            value = _plain(word)
            filled.raw[field.key, value] = word.text
            filled.held.setdefault(field.key, []).append(value)
    filled.extra += [word.text for word in given]


def same_words(typed: str, written: str) -> bool:
    """Whether two lines are made of the same words, whatever their order and however letters stand
    together.
    """
    return _letters(typed) == _letters(written)


def _letters(line: str) -> Counter[str]:
    return Counter(re.sub(r"[\s=-]", "", line))
