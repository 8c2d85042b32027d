"""What `browse` begins with: what was read last, the marked places, the remarks, and the families
of this machine with how much of each was read.
"""

from __future__ import annotations

import contextlib

from dowsing.model.entry import Entry
from dowsing.model.errors import CannotKeep
from dowsing.session.session import Session
from dowsing.userdata.marked_places import MarkedPlace, marked_places
from dowsing.userdata.reading_progress import read_labels
from dowsing.userdata.remarks import Remark, read_notes

MOST_READ, MOST_PLACES, MOST_REMARKS, MOST_FAMILIES = 8, 6, 4, 8

_BEGINNING = "its beginning"
#: A name, what is said of it, and what the row stands for.
Row = tuple[str, str, object]


class Family:
    """A family that can be looked into, with how many of its entries there are and were read."""

    __slots__ = ("name", "read", "total")

    def __init__(self, name: str, read: int, total: int) -> None:
        self.name, self.read, self.total = name, read, total


class StartPage:
    """The lists. They are empty for somebody who has read nothing yet, but for the families."""

    def __init__(self, session: Session) -> None:
        folder = session.settings.kept
        labels: list[str] = []
        self.places: list[MarkedPlace] = []
        notes: list[Remark] = []
        with contextlib.suppress(CannotKeep):  # the screen is of use without
            labels = list(read_labels(folder))
            self.places = marked_places(folder)[:MOST_PLACES]
            notes = read_notes(folder)[0]
        known = [one for label in labels if (one := session.store.labelled(label)) is not None]
        self.read: list[Entry] = known[::-1][:MOST_READ]
        self.remarks = [(note.name, note.text) for note in notes[::-1]][:MOST_REMARKS]
        self.families = _families(session, known)

    def lists(self) -> list[tuple[str, list[Row]]]:
        """Each list with its title; empty ones too."""
        return [
            ("READ LAST", [(one.label, one.summary, one) for one in self.read]),
            ("YOUR PLACES", [(one.label, one.title or _BEGINNING, one) for one in self.places]),
            ("YOUR REMARKS", [(name, text, name) for name, text in self.remarks]),
            (
                "FAMILIES",
                [(one.name, f"{one.total} entries, {one.read} read", one) for one in self.families],
            ),
        ]


def _families(session: Session, known: list[Entry]) -> list[Family]:
    """Families that were begun first, then the largest."""
    read: dict[str, int] = {}
    for entry in known:
        if entry.family:
            read[entry.family] = read.get(entry.family, 0) + 1
    found = [
        Family(name, read.get(name, 0), count)
        for name, count in session.store.vocabulary("family")
        if count > 1
    ]
    return sorted(found, key=lambda one: (not one.read, -one.total))[:MOST_FAMILIES]
