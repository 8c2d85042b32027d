"""What a line has already, put into the fields of its command."""

from __future__ import annotations

import re
from collections import Counter

from dowsing.commandline.pieces import Piece
from dowsing.commandline.rewrite import raw_value
from dowsing.composing.field import SWITCH, Field, FieldKind
from dowsing.composing.form_fields import FieldPlace
from dowsing.model.roles import Role


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


def fill_in(fields: list[Field], places: list[FieldPlace], own: list[Piece]) -> FilledIn:
    """Put the pieces of a command into its fields. `places` are those of its form, in order."""
    filled = FilledIn()
    operands: list[Piece] = []
    n = 0
    while n < len(own):
        piece = own[n]
        n += 1
        if piece.role == Role.OPTION and piece.text == "--":
            filled.ended = True
        elif piece.role == Role.OPTION:
            values: list[Piece] = []
            while n < len(own) and (
                own[n].role == Role.VALUE
                or (own[n].role == Role.SUBSTITUTION and not values and _waits(piece))
            ):
                values.append(own[n])
                n += 1
            _option(filled, fields, piece, values)
        elif piece.role in (Role.OPERAND, Role.SUBSTITUTION):
            if not operands or piece.start >= operands[-1].end:  # not one within a word
                operands.append(piece)
        elif not (piece.role == Role.OPERATOR and piece.of):  # that closes the command of an option
            filled.extra.append(piece.text)
    _operands(filled, fields, places, operands)
    return filled


def _waits(option: Piece) -> bool:
    """Whether the value of an option is the next word."""
    return option.value is not None and not option.word


def _option(filled: FilledIn, fields: list[Field], piece: Piece, values: list[Piece]) -> None:
    field = next(
        (f for f in fields if f.what == FieldKind.OPTION and set(f.flags) & set(piece.flags or ())),
        None,
    )
    if field is None:
        filled.extra.append(piece.word or piece.text)
        filled.extra += [one.text for one in values]
        return
    if re.match(r"-[A-Za-z]{2,}", piece.word) and len(piece.text) == 2:
        filled.bundled = True
    filled.spelled[field.key] = piece.text
    value, raw = SWITCH, ""
    if values:
        value, raw = (
            " ".join(v.plain or v.text for v in values),
            " ".join(one.text for one in values),
        )
    elif piece.value is not None and piece.text not in field.flags:
        value, raw = piece.value, ""  # a number or a signal for an option
    elif piece.value is not None:
        value, raw = piece.value, raw_value(piece)
    if "=" in (piece.word or "")[len(piece.text) : len(piece.text) + 1] and not values:
        filled.joined.add(field.key)
    filled.raw[field.key, value] = raw
    filled.held[field.key] = [*filled.held.get(field.key, []), value] if field.repeats else [value]


def _operands(
    filled: FilledIn, fields: list[Field], places: list[FieldPlace], operands: list[Piece]
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
    given: list[Piece] = []
    for piece in operands:
        if (piece.plain or piece.text) in literals:
            literals.remove(piece.plain or piece.text)
        else:
            given.append(piece)
    spare = len(given) - sum(field.required and field.what == FieldKind.OPERAND for field in wanted)
    for at, field in enumerate(wanted):
        if field.what == FieldKind.WORD:
            if given and (given[0].plain or given[0].text) == field.label:
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
        for piece in taken:
            value = piece.plain or piece.text
            filled.raw[field.key, value] = piece.text
            filled.held.setdefault(field.key, []).append(value)
    filled.extra += [piece.text for piece in given]


def same_words(typed: str, written: str) -> bool:
    """Whether two lines are made of the same words, whatever their order and however letters stand
    together.
    """
    return _letters(typed) == _letters(written)


def _letters(line: str) -> Counter[str]:
    return Counter(re.sub(r"[\s=-]", "", line))
