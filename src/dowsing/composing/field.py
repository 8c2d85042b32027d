"""One thing to be filled in, and whether a value can be right for it."""

from __future__ import annotations

import os
import re

from dowsing.model.nearness import nearest_words
from dowsing.model.quoting import bare, is_quoted_word
from dowsing.model.record import Record
from dowsing.model.value_kinds import wrong_kind

SWITCH = ""  # what stands for the value of an option that is given without one

#: The steps that fields are filled in by.
REQUIRED, USUAL, ALL = "required", "often used", "all"
STEPS = (REQUIRED, USUAL, ALL)


class Field(Record):
    """A field. `key` is its own among all of a sheet; `what`: form, subcommand, option, operand, word or column.

    `label` is how it is spelled, `placeholder` the name of its value; `kind` is one of the value kinds of the project,
    "" for what is only on or off. `takes`: it has a value, `bare`: it can also be given without one. `values` are the
    allowed ones, and with `strict` no other is right; `limits` the least and the greatest. `repeats`: it may be given
    several times. `exists`: the file that it names must be there. `group` is the title of the section that tells of it,
    `flags` all spellings of an option. `separator` parts the items of a list in one value.
    """

    key: str
    what: str
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
    def step(self) -> str:
        """The step that it is asked for in."""
        return REQUIRED if self.required else USUAL if self.usual else ALL


def wrong(field: Field, value: str, folder: str = "") -> str:
    """Why a value cannot be right for a field, "" if it can. Files are looked for below `folder` (the current one).

    Values that the shell makes other ones of (`$HOME`, `*.txt`) are not looked at.
    """
    if not field.takes or not value:
        return "" if not value or field.takes else "this is on or off: it takes no value"
    if "\n" in value or not value.isprintable():
        return "there are characters in it that cannot be typed"
    for part in value.split(field.separator) if field.separator else [value]:
        reason = _wrong_part(field, part, folder) if part else ""
        if reason:
            return reason
    return ""


def _wrong_part(field: Field, value: str, folder: str) -> str:
    if field.kind == "schedule":
        return _wrong_schedule(field, value)
    if field.values and field.strict and value not in field.values:
        near = nearest_words(value, field.values)
        some = ", ".join(near or field.values[:6]) + (", …" if not near and len(field.values) > 6 else "")
        return f"“{value}” is none of the allowed values: {some}"
    if "$" in value or "`" in value:
        return ""
    if field.pattern and not re.fullmatch(field.pattern, value):
        return f"{field.wanted} is wanted here" if field.wanted else f"“{value}” does not fit here"
    if len(field.limits) == 2 and re.fullmatch(r"[-+]?\d+", value):
        least, most = (int(limit) for limit in field.limits)
        if not least <= int(value) <= most:
            return f"it must be from {least} to {most}"
    if field.kind == "address" and field.what == "column":
        return _wrong_address(value)
    if field.what != "column" or not field.pattern:
        reason = wrong_kind(field.kind, value, field.says)
        if reason:
            return reason
    return missing_file(field, value, folder)


def _wrong_schedule(field: Field, value: str) -> str:
    """Why a value is no list of numbers, ranges and steps of crontab(5), whose names stand for single numbers."""
    least, most = (int(limit) for limit in field.limits) if len(field.limits) == 2 else (0, 9999)
    for item in value.split(","):
        match = re.fullmatch(r"(\*|\w+)(?:-(\w+))?(?:/(\d+))?", item)
        if match is None:
            return "a number, *, a range 1-5, a list 1,3 or a step */2 is wanted here"
        for number in (match[1], match[2]):
            if number is None or number == "*" or number.lower() in (field.values or ()):
                continue
            if not number.isdecimal():
                near = nearest_words(number.lower(), field.values or [])
                return f"“{number}” is no number" + (f": {', '.join(near)}?" if near else "")
            if not least <= int(number) <= most:
                return f"{number} is not from {least} to {most}"
        if match[1].isdecimal() and match[2] and match[2].isdecimal() and int(match[1]) > int(match[2]):
            return f"the range {match[1]}-{match[2]} runs backwards"
        if match[3] is not None and int(match[3]) == 0:
            return "a step of 0 never comes"
        if match[3] is not None and match[1] != "*" and match[2] is None:
            return f"a step goes with * or a range: */{match[3]}"
    return ""


def _wrong_address(value: str) -> str:
    import ipaddress

    try:
        ipaddress.ip_address(value)
    except ValueError:
        return "an address of IPv4 or IPv6 is wanted here, such as 192.0.2.7"
    return ""


def missing_file(field: Field, value: str, folder: str) -> str:
    """Why the file that a value names cannot be used where one must be, "" if nothing is wrong."""
    if not field.exists or field.kind not in ("file", "folder", "path"):
        return ""
    if is_quoted_word(value):
        value = bare(value) if not value.startswith("~/") else os.path.expanduser(bare(value))
        return _missing(field, os.path.join(folder, value))
    if re.search(r"[*?\[{$]", value):  # the shell makes other ones of it
        return ""
    if value == "-" or "://" in value or re.match(r"[\w.@-]+:", value):
        return ""
    return _missing(field, os.path.join(folder, os.path.expanduser(value)))


def _missing(field: Field, path: str) -> str:
    if not os.path.lexists(path):
        return "there is no such " + {"folder": "folder"}.get(field.kind, "file") + " here"
    if field.kind == "folder" and not os.path.isdir(path):
        return "this is no folder"
    return ""
