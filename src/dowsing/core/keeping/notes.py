"""The user's own remarks on names: a page that is wrong, a trap, what to remember."""

from __future__ import annotations

import os

from dowsing.core.keeping import NOTES
from dowsing.core.keeping.files import CannotKeep, change, quoted, read_text
from dowsing.core.record import Record

_HEAD = "# Remarks kept with dowsing note. You may edit this file.\n\n"


class Note(Record):
    """A remark on a name: the label of the entry (`tar(1)`), the text, and the day (ISO 8601), "" if not known."""

    name: str
    text: str
    day: str = ""


def read_notes(folder: str) -> list[Note]:
    """All remarks, the oldest first. Raises CannotKeep if the file cannot be read or is no TOML."""
    path = os.path.join(folder, NOTES)
    if not os.path.exists(path):
        return []
    import tomllib

    try:
        rows = tomllib.loads(read_text(path)).get("note", [])
    except tomllib.TOMLDecodeError as error:
        raise CannotKeep(f"{path} is not TOML: {error}; correct it by hand") from None
    found = [row for row in rows if isinstance(row, dict)] if isinstance(rows, list) else []
    return [
        Note(str(row["name"]), str(row["text"]), str(row.get("day", "")))
        for row in found
        if "name" in row and "text" in row
    ]


def notes_on(folder: str, names: list[str]) -> list[Note]:
    """The remarks on any of these labels."""
    return [note for note in read_notes(folder) if note.name in names] if names else []


def _written(note: Note) -> str:
    return f"[[note]]\nname = {quoted(note.name)}\ntext = {quoted(note.text)}\nday = {quoted(note.day)}\n"


def add_note(folder: str, note: Note) -> None:
    """Keep a remark. Raises CannotKeep."""
    row = _written(note)
    change(os.path.join(folder, NOTES), lambda text: (text.rstrip("\n") + "\n\n" if text.strip() else _HEAD) + row)


def drop_note(folder: str, note: Note) -> None:
    """Take a remark out; nothing happens if it is not there. Raises CannotKeep."""

    def edit(text: str) -> str:
        left = [one for one in read_notes(folder) if one != note]
        rows = [_written(one) for one in left]
        return _HEAD + "\n".join(rows) if text else text

    change(os.path.join(folder, NOTES), edit)
