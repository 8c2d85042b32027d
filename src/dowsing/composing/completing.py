"""Completing what is typed into a field: allowed values, files, folders, users and what else this
machine has.

A name of a file is completed to a word that is that very file: quoted where a shell would take
something in it for itself. What cannot be written so is not offered.
"""

from __future__ import annotations

import re

from dowsing.composing.field import Field, FieldKind
from dowsing.machine.known_values import files_here, values_here
from dowsing.model.quoting import bare, file_word, items
from dowsing.model.value_kinds import FILE_KINDS, ValueKind


def completions(field: Field, typed: str, home: str = "") -> list[str]:
    """The values that the last item of what is typed may become, each as it is to be typed."""
    part = typed[_begin(field, typed) :]
    if field.values:
        return [value for value in field.values if value.startswith(part) and value != part]
    if field.kind not in FILE_KINDS:
        return values_here(field.kind, field.placeholder, part, home) or []
    words = [word for path in _paths(field, part, home) if (word := _word(field, path))]
    return [word for word in words if word != part]


def completed(field: Field, typed: str, home: str = "") -> str:
    """What is typed with its last item completed as far as all that it may become agree; where that
    adds nothing, the first of them. A value that is one of those becomes the next.
    """
    begin = _begin(field, typed)
    part = typed[begin:]
    found = completions(field, typed, home)
    if not found:
        if field.values and part in field.values:
            return typed[:begin] + field.values[(field.values.index(part) + 1) % len(field.values)]
        return typed
    common = _common(found)
    # a beginning is taken as it is only where nothing in it needs quotes: half a name may mean
    # something else
    if len(common) > len(part) and (
        field.kind not in FILE_KINDS or re.fullmatch(r"[\w@%=:,./][\w@%+=:,./-]*", common)
    ):
        return typed[:begin] + common
    return typed[:begin] + found[0]


def _paths(field: Field, part: str, home: str) -> list[str]:
    """The paths that begin with what the typed part stands for."""
    path = bare(part)
    if path.startswith("~") and not part.startswith("~"):
        path = "./" + path  # in quotes it is no home folder
    return files_here(path, field.kind == ValueKind.FOLDER, home)


def _word(field: Field, path: str) -> str:
    """A path as it is written into the field, "" if it cannot be."""
    word = file_word(path)
    if field.separator and field.separator in path:
        return ""  # within a list the separator would part the name
    if field.what == FieldKind.COLUMN and word != path:
        return ""  # lines of files have no quotes
    return word


def _common(texts: list[str]) -> str:
    """What all of them begin with."""
    least, most = min(texts), max(texts)
    size = next(
        (n for n, (a, b) in enumerate(zip(least, most, strict=False)) if a != b),
        min(len(least), len(most)),
    )
    return least[:size]


def _begin(field: Field, typed: str) -> int:
    """Where the last item begins: items of a list are parted by blanks outside of quotes, or by the
    separator.
    """
    begin = 0
    if field.repeats:
        words = items(typed)
        begin = (
            words[-1][0] if words and words[-1][0] + len(words[-1][1]) == len(typed) else len(typed)
        )
    if field.separator and field.separator in typed:
        begin = max(begin, typed.rfind(field.separator) + len(field.separator))
    return begin
