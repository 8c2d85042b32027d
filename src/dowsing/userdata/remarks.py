"""The user's own remarks on names: a page that is wrong, a trap, what to remember."""

from __future__ import annotations

import os

from dowsing.knowledge.recipes import FileFault, not_toml
from dowsing.knowledge.toml_blocks import blocks_of, parsed
from dowsing.model.record import Record
from dowsing.userdata import NOTES
from dowsing.userdata.dropping import take_out
from dowsing.userdata.user_files import change, read_text, toml_string

_HEAD = "# Remarks kept with dowsing note. You may edit this file.\n\n"


class Remark(Record):
    """A remark on a name: the label of the entry (`tar(1)`), the text, and the day (ISO 8601), ""
    if not known.
    """

    name: str
    text: str
    day: str = ""


def read_notes(folder: str) -> tuple[list[Remark], list[FileFault]]:
    """All remarks, the oldest first, and what is wrong in their file: one that is damaged does not
    hide the others.

    Raises CannotKeep if the file cannot be read.
    """
    path = os.path.join(folder, NOTES)
    text = read_text(path)
    if not text:
        return [], []
    try:
        rows = parsed(text).get("note", [])
        return [note for row in rows if (note := _note_of(row)) is not None], []
    except (ValueError, TypeError):
        blocks = blocks_of(text, "note")
    found = [note for block in blocks if block.row and (note := _note_of(block.row)) is not None]
    faults = [not_toml(path, block.line, block.trouble) for block in blocks if block.row is None]
    return found, faults or [FileFault(path, 1, "is not TOML")]


def _note_of(row: object) -> Remark | None:
    """The remark that a table describes, None if it has no name or no text."""
    if not isinstance(row, dict) or "name" not in row or "text" not in row:
        return None
    return Remark(str(row["name"]), str(row["text"]), str(row.get("day", "")))


def _written(note: Remark) -> str:
    return (
        f"[[note]]\nname = {toml_string(note.name)}\ntext = {toml_string(note.text)}\nday = "
        f"{toml_string(note.day)}\n"
    )


def add_note(folder: str, note: Remark) -> None:
    """Keep a remark. Raises CannotKeep."""
    row = _written(note)
    change(
        os.path.join(folder, NOTES),
        lambda text: (text.rstrip("\n") + "\n\n" if text.strip() else _HEAD) + row,
    )


def drop_note(folder: str, note: Remark) -> None:
    """Take a remark out of the file, whose other parts stay as they are; it is put at the end of
    another one.

    Nothing happens if it is not there. Raises CannotKeep.
    """

    def edit(text: str) -> str:
        for block in blocks_of(text, "note"):
            if block.row is not None and _note_of(block.row) == note:
                return take_out(folder, text, block)
        return text

    change(os.path.join(folder, NOTES), edit)
