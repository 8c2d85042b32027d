"""Places in texts that the user marked: JSON Lines, the newest last."""

from __future__ import annotations

import os

from dowsing.model.record import Record
from dowsing.userdata import PLACES
from dowsing.userdata.json_lines import read_records, written_records
from dowsing.userdata.user_files import change, read_text

MOST_KEPT = 200


class MarkedPlace(Record):
    """A place: the `label` of the entry, the `source` of the text, the `title` of its part ("" for
    its beginning), and the day (ISO 8601).
    """

    label: str
    source: str
    title: str
    day: str


def turn_mark(folder: str, place: MarkedPlace) -> bool:
    """Mark a place, or take its mark away; whether it is marked now. Raises CannotKeep."""
    marked = True

    def edit(text: str) -> str:
        nonlocal marked
        known = read_records(text, MarkedPlace)
        left = [one for one in known if _key(one) != _key(place)]
        marked = len(left) == len(known)
        return written_records([*left, *([place] if marked else [])][-MOST_KEPT:])

    change(os.path.join(folder, PLACES), edit)
    return marked


def marked_places(folder: str) -> list[MarkedPlace]:
    """The places, the newest first. Lines that make no sense are passed over. Raises CannotKeep if
    the file cannot be read.
    """
    return read_records(read_text(os.path.join(folder, PLACES)), MarkedPlace)[::-1]


def _key(place: MarkedPlace) -> tuple[str, str, str]:
    return place.label, place.source, place.title
