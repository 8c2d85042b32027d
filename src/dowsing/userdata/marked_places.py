"""Places in texts that the user marked: JSON Lines, the newest last."""

from __future__ import annotations

import json
import os

from dowsing.model.record import Record
from dowsing.userdata import PLACES
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
        known = _places(text)
        left = [one for one in known if _key(one) != _key(place)]
        marked = len(left) == len(known)
        return "".join(_written(one) for one in [*left, *([place] if marked else [])][-MOST_KEPT:])

    change(os.path.join(folder, PLACES), edit)
    return marked


def marked_places(folder: str) -> list[MarkedPlace]:
    """The places, the newest first. Lines that make no sense are passed over. Raises CannotKeep if
    the file cannot be read.
    """
    return _places(read_text(os.path.join(folder, PLACES)))[::-1]


def _key(place: MarkedPlace) -> tuple[str, str, str]:
    return place.label, place.source, place.title


def _places(text: str) -> list[MarkedPlace]:
    found = []
    for line in text.split("\n"):
        try:
            row = json.loads(line)
            place = MarkedPlace(*(str(row[name]) for name in ("label", "source", "title", "day")))
        except (ValueError, TypeError, KeyError):
            continue
        found.append(place)
    return found


def _written(place: MarkedPlace) -> str:
    row = {
        "label": place.label,
        "source": place.source,
        "title": place.title,
        "day": place.day,
    }
    return json.dumps(row, ensure_ascii=True) + "\n"
