"""One thing to be filled in, and whether a value can be right for it."""

from __future__ import annotations

import os
import re
from enum import StrEnum

from dowsing.composing.faults import FaultCode
from dowsing.machine.known_values import wrong_here
from dowsing.model.nearness import nearest_words
from dowsing.model.quoting import bare, is_quoted_word
from dowsing.model.record import Record
from dowsing.model.told import Told, told
from dowsing.model.value_kinds import FILE_KINDS, ValueKind

SWITCH = ""  # what stands for the value of an option that is given without one

# the kind of numbers, ranges, lists and steps of them, which only lines of files have
SCHEDULE = "schedule"
MOST_TOLD = 6  # allowed values that are told


class Step(StrEnum):
    """The steps that fields are filled in by, in order."""

    REQUIRED = "required"
    USUAL = "often used"
    ALL = "all"


class FieldKind(StrEnum):
    """What a field stands for."""

    FORM = "form"
    SUBCOMMAND = "subcommand"
    OPTION = "option"
    OPERAND = "operand"
    WORD = "word"
    COLUMN = "column"


class Field(Record):
    """A field. `key` is its own among all of a sheet; `what`: what it stands for.

    `label` is how it is spelled, `placeholder` the name of its value; `kind` is one of the value
    kinds of the project, "" for what is only on or off. `takes`: it has a value, `bare`: it can
    also be given without one. `values` are the allowed ones, and with `strict` no other is right;
    `limits` the least and the greatest. `repeats`: it may be given several times. `exists`: the
    file that it names must be there. `group` is the title of the section that tells of it, `flags`
    all spellings of an option. `separator` parts the items of a list in one value.
    """

    key: str
    what: FieldKind
    label: str
    placeholder: str = ""
    kind: str = ""
    says: str = ""
    page: str = ""
    flags: list[str] = []  # noqa: RUF012 - a record is immutable
    values: list[str] | None = None
    strict: bool = False
    limits: list[str] = []  # noqa: RUF012
    default: str | None = None
    required: bool = False
    repeats: bool = False
    takes: bool = True
    bare: bool = False
    exists: bool = False
    usual: bool = False
    group: str = ""
    separator: str = ""
    pattern: str = ""
    wanted: str = ""  # in words, what `pattern` is for

    @property
    def step(self) -> Step:
        """The step that it is asked for in."""
        return Step.REQUIRED if self.required else Step.USUAL if self.usual else Step.ALL


def wrong(field: Field, value: str, folder: str = "") -> Told | None:
    """Why a value cannot be right for a field. Files are looked for below `folder` (the current
    one).

    Values that the shell makes other ones of (`$HOME`, `*.txt`) are not looked at.
    """
    if not value:
        return None
    if not field.takes:
        return told(FaultCode.ON_OR_OFF)
    if "\n" in value or not value.isprintable():
        return told(FaultCode.NOT_TYPABLE)
    for part in value.split(field.separator) if field.separator else [value]:
        reason = _wrong_part(field, part, folder) if part else None
        if reason:
            return reason
    return None


def _wrong_part(field: Field, value: str, folder: str) -> Told | None:
    if field.kind == SCHEDULE:
        return _wrong_schedule(field, value)
    if field.values and field.strict and value not in field.values:
        return _not_allowed(value, field.values)
    if "$" in value or "`" in value:
        return None
    return _misfit(field, value) or missing_file(field, value, folder)


def _not_allowed(value: str, allowed: list[str]) -> Told:
    near = nearest_words(value, allowed)
    rest = ", …" if not near and len(allowed) > MOST_TOLD else ""
    return told(FaultCode.NOT_ALLOWED, value, ", ".join(near or allowed[:MOST_TOLD]) + rest)


def _misfit(field: Field, value: str) -> Told | None:
    """Why a value does not fit the pattern, the limits or the kind of a field."""
    if field.pattern and not re.fullmatch(field.pattern, value):
        return (
            told(FaultCode.WANTED, field.wanted)
            if field.wanted
            else told(FaultCode.DOES_NOT_FIT, value)
        )
    if len(field.limits) == 2 and re.fullmatch(r"[-+]?\d+", value):
        least, most = field.limits
        if not int(least) <= int(value) <= int(most):
            return told(FaultCode.OUT_OF_LIMITS, least, most)
    if field.what == FieldKind.COLUMN and field.kind == ValueKind.ADDRESS:
        return _wrong_address(value)
    if field.what == FieldKind.COLUMN and field.pattern:
        return None
    reason = wrong_here(field.kind, value, field.says)
    return told(reason) if reason else None


def _wrong_schedule(field: Field, value: str) -> Told | None:
    """Why a value is no list of numbers, ranges and steps of crontab(5), whose names stand for
    single numbers.
    """
    return next((reason for item in value.split(",") if (reason := _wrong_item(field, item))), None)


def _wrong_item(field: Field, item: str) -> Told | None:
    match = re.fullmatch(r"(\*|\w+)(?:-(\w+))?(?:/(\d+))?", item)
    if match is None:
        return told(FaultCode.NO_SCHEDULE)
    first, last, step = match.groups()
    for number in (first, last):
        reason = _wrong_number(field, number) if number not in (None, "*") else None
        if reason:
            return reason
    if first.isdecimal() and last and last.isdecimal() and int(first) > int(last):
        return told(FaultCode.BACKWARDS, first, last)
    if step is not None and int(step) == 0:
        return told(FaultCode.STEP_OF_ZERO)
    if step is not None and first != "*" and last is None:
        return told(FaultCode.STEP_ALONE, step)
    return None


def _wrong_number(field: Field, number: str) -> Told | None:
    """Why a number of a schedule, or a name for one, cannot be right."""
    names = field.values or []
    if number.lower() in names:
        return None
    if not number.isdecimal():
        near = nearest_words(number.lower(), names)
        return (
            told(FaultCode.NOT_A_NAME, number, ", ".join(near))
            if near
            else told(FaultCode.NOT_A_NUMBER, number)
        )
    least, most = field.limits if len(field.limits) == 2 else ("0", "9999")
    return (
        None
        if int(least) <= int(number) <= int(most)
        else told(FaultCode.NOT_WITHIN, number, least, most)
    )


def _wrong_address(value: str) -> Told | None:
    import ipaddress

    try:
        ipaddress.ip_address(value)
    except ValueError:
        return told(FaultCode.NO_ADDRESS)
    return None


def missing_file(field: Field, value: str, folder: str) -> Told | None:
    """Why the file that a value names cannot be used where one must be."""
    if not field.exists or field.kind not in FILE_KINDS:
        return None
    if is_quoted_word(value):
        value = bare(value) if not value.startswith("~/") else os.path.expanduser(bare(value))
        return _missing(field, os.path.join(folder, value))
    if re.search(r"[*?\[{$]", value):  # the shell makes other ones of it
        return None
    if value == "-" or "://" in value or re.match(r"[\w.@-]+:", value):
        return None
    return _missing(field, os.path.join(folder, os.path.expanduser(value)))


def _missing(field: Field, path: str) -> Told | None:
    folder_wanted = field.kind == ValueKind.FOLDER
    if not os.path.lexists(path):
        return told(FaultCode.NO_FOLDER if folder_wanted else FaultCode.NO_FILE)
    if folder_wanted and not os.path.isdir(path):
        return told(FaultCode.NOT_A_FOLDER)
    return None
