"""Descriptions of the structured lines of files: their fields in order, kinds and layout. TOML, a
format of our own.

name = "fstab"            what the kind is called
page = "fstab(5)"         the page that tells of it; `pages`: others that do
file = "/etc/fstab"       the file that such lines stand in
summary = "…"             what one line is
layout = "blanks"         how fields are parted: blanks, colons, or settings (NAME=value below
                          [section])
[[field]]
name = "fs_spec"          as the page calls it
says = "…"                what it is
kind = "text"             one of the value kinds; schedule for numbers, ranges, lists and steps
required = true
default = "0"             what holds, and is written, where a later field is given and this one not
values = ["0", "1"]       values to choose from; strict = true: and no others
range = [0, 9]            the least and the greatest number
pattern = '[0-9]+'        a regular expression for the whole value; wanted = "…" says it in words
list = ","                the value is a list, parted by this
repeats = true            may be given again (the last field of a line, a setting)
rest = true               takes the rest of the line, blanks too
section = "Unit"          of a setting
"""

from __future__ import annotations

import os
import re
from enum import StrEnum

from dowsing.composing.field import Field, FieldKind
from dowsing.machine.settings import DEMO_LIBRARY, Settings
from dowsing.model.errors import BadDescription
from dowsing.model.plainfile import plain_only
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

FOLDER = "lines"  # of the user's and the demo library's descriptions


class LineLayout(StrEnum):
    """How the fields of a line are parted."""

    BLANKS = "blanks"
    COLONS = "colons"
    SETTINGS = "settings"  # NAME=value below [section]


_SHIPPED = os.path.join(
    os.path.dirname(os.path.dirname(os.path.abspath(__file__))), "knowledge", "line_kinds"
)
_NAME = re.compile(r"[A-Za-z0-9][\w.+-]*\Z")
_KEYS = frozenset(
    "name says kind required default values strict range pattern wanted list repeats rest "
    "section".split()
)


class LineKind(Record):
    """A kind of line. `sections` are those of the fields, in the same order, "" where there are
    none; `rest`: the last field takes the rest of the line; `path` is the file of the description.
    """

    name: str
    page: str
    pages: list[str]
    file: str
    summary: str
    layout: LineLayout
    fields: list[Field]
    sections: list[str]
    rest: bool
    path: str


def folders(settings: Settings) -> list[str]:
    """Where descriptions are: the user's own first, then those of the demo library while that is in
    use, ours.
    """
    demo = [os.path.join(DEMO_LIBRARY, FOLDER)] if settings.demo else []
    return [os.path.join(settings.config, FOLDER), *demo, _SHIPPED]


def line_kinds(settings: Settings) -> dict[str, str]:
    """The names of all kinds of lines with the files of their descriptions."""
    found: dict[str, str] = {}
    for folder in folders(settings):
        try:
            names = sorted(os.listdir(folder))
        except OSError:
            continue
        for name in names:
            if name.endswith(".toml"):
                found.setdefault(name.removesuffix(".toml"), os.path.join(folder, name))
    return dict(sorted(found.items()))


def read_kind(path: str) -> LineKind:
    """The description in a file. Raises BadDescription."""
    import tomllib

    try:
        with open(path, "rb", opener=plain_only) as file:
            table = tomllib.load(file)
    except OSError as error:
        raise BadDescription(
            f"{path} cannot be read: {(error.strerror or 'failed').lower()}"
        ) from None
    except (tomllib.TOMLDecodeError, UnicodeDecodeError) as error:
        raise BadDescription(f"{path} is not TOML: {error}") from None
    try:
        return _kind_of(table, path)
    except (ValueError, TypeError, KeyError) as error:
        raise BadDescription(f"{path}: {error}") from None


def _kind_of(table: dict[str, Any], path: str) -> LineKind:
    name = table.get("name")
    if not isinstance(name, str) or not _NAME.match(name):
        raise ValueError("name must be a word")
    layout = table.get("layout", LineLayout.BLANKS)
    if layout not in set(LineLayout):
        raise ValueError(f"layout must be one of {', '.join(LineLayout)}")
    rows = table.get("field")
    if not isinstance(rows, list) or not rows or not all(isinstance(row, dict) for row in rows):
        raise ValueError("there is no [[field]]")
    page = str(table.get("page", ""))
    fields = [_field(row, n, page) for n, row in enumerate(rows)]
    if any(field.repeats for field in fields[:-1]) and layout != LineLayout.SETTINGS:
        raise ValueError("only the last field may be repeated")
    if layout == LineLayout.SETTINGS and not all(row.get("section") for row in rows):
        raise ValueError("each setting needs its section")
    return LineKind(
        name,
        page,
        [str(one) for one in table.get("pages", [])],
        str(table.get("file", "")),
        str(table.get("summary", "")),
        LineLayout(layout),
        fields,
        [str(row.get("section", "")) for row in rows],
        bool(rows[-1].get("rest")),
        path,
    )


def _field(row: dict[str, Any], place: int, page: str) -> Field:
    name = row.get("name")
    if not isinstance(name, str) or not name.strip():
        raise ValueError(f"field {place + 1} has no name")
    unknown = set(row) - _KEYS
    if unknown:
        raise ValueError(f"field {name}: {sorted(unknown)[0]} means nothing here")
    values = row.get("values")
    if values is not None and not (
        isinstance(values, list) and all(isinstance(one, str) for one in values)
    ):
        raise ValueError(f"field {name}: values must be a list of texts")
    limits = row.get("range", [])
    if limits and not (len(limits) == 2 and all(isinstance(one, int) for one in limits)):
        raise ValueError(f"field {name}: range must be two whole numbers")
    pattern = str(row.get("pattern", ""))
    try:
        re.compile(pattern)
    except re.error as error:
        raise ValueError(f"field {name}: its pattern is none: {error}") from None
    required = bool(row.get("required"))
    return Field(
        f"column {place + 1} {name}",
        FieldKind.COLUMN,
        name,
        name,
        str(row.get("kind", "text")),
        str(row.get("says", "")),
        page,
        values=values,
        strict=bool(row.get("strict")),
        limits=[str(one) for one in limits],
        default=row.get("default"),
        required=required,
        usual=not required,
        repeats=bool(row.get("repeats")),
        group=str(row.get("section", "")),
        separator=str(row.get("list", "")),
        pattern=pattern,
        wanted=str(row.get("wanted", "")),
    )
