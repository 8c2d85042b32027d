"""Which entries were read: those whose card, page or examples were shown. JSON Lines, a line for
each entry.
"""

from __future__ import annotations

import os

from dowsing.model.errors import CannotKeep
from dowsing.model.plainfile import plain_only
from dowsing.model.record import Record
from dowsing.userdata import READ
from dowsing.userdata.user_files import change, read_text, toml_string

TYPE_CHECKING = False
if TYPE_CHECKING:
    from random import Random


class Share(Record):
    """How much of something was read: of `total` entries `read`."""

    name: str
    read: int
    total: int


class StrollPlace(Record):
    """An entry as a stroll sees it."""

    label: str
    kind: str
    package: str
    family: str


def mark_read(folder: str, label: str, day: str) -> None:
    """Note that an entry was read on that day (ISO 8601). That it cannot be noted is no reason to
    fail.
    """
    path = os.path.join(folder, READ)
    plain = label.isascii() and label.isprintable() and '"' not in label and "\\" not in label
    written = f'"{label}"' if plain else toml_string(label)
    key = f'{{"name": {written}, '
    try:
        text = read_text(path)
        if key in text:
            return
        os.makedirs(folder, mode=0o700, exist_ok=True)
        # a line that was torn off has no end: the new one is none of it
        joint = "" if not text or text.endswith("\n") else "\n"
        with open(
            path, "a", encoding="utf-8", opener=_appending
        ) as file:  # one short write, which others cannot fall into
            file.write(f'{joint}{key}"day": "{day}"}}\n')
    except (CannotKeep, OSError, UnicodeError):
        pass


def _appending(path: str, flags: int) -> int:
    """An opener for a plain file that may not be there yet."""
    return plain_only(path, flags) if os.path.lexists(path) else os.open(path, flags, 0o666)


def read_labels(folder: str) -> dict[str, str]:
    """The labels of the entries that were read with the days, "" where none is known. Lines that
    make no sense are passed over. Raises CannotKeep if the file cannot be read.
    """
    found: dict[str, str] = {}
    for line in read_text(os.path.join(folder, READ)).split("\n"):
        label, day = _label_in(line)
        if label is not None:
            found[label] = day
    return found


def _label_in(line: str) -> tuple[str | None, str]:
    """The label and the day of a line of the file; no label if it makes no sense."""
    import json

    try:
        row = json.loads(line)
        return str(row["name"]), str(row.get("day", ""))
    except (ValueError, KeyError, TypeError, AttributeError, RecursionError):
        return None, ""


def forget(folder: str, labels: set[str] | None) -> int:
    """Take these entries, or all, out of what was read; how many there were. Raises CannotKeep.

    Lines that make no sense to us stay in the file.
    """
    forgotten: set[str] = set()

    def edit(text: str) -> str:
        left = []
        for line in text.split("\n"):
            label, _ = _label_in(line)
            if label is not None and (labels is None or label in labels):
                forgotten.add(label)
            else:
                left.append(line)
        return "\n".join(left)

    change(os.path.join(folder, READ), edit)
    return len(forgotten)


def pick(
    places: list[StrollPlace], read: dict[str, str], chance: Random | None = None
) -> StrollPlace | None:
    """One that was not read yet, each as likely as the other; None if all were."""
    from random import Random  # takes its time to load, and most look-ups only note what was read

    left = [place for place in places if place.label not in read]
    return (chance or Random()).choice(left) if left else None


def shares(places: list[StrollPlace], read: dict[str, str], by: str) -> list[Share]:
    """How much was read of each package or family (`by`): those that were begun first, the most
    read first; then the largest.
    """
    totals: dict[str, list[int]] = {}
    for place in places:
        name = getattr(place, by)
        if name:
            counts = totals.setdefault(name, [0, 0])
            counts[0] += place.label in read
            counts[1] += 1
    found = [Share(name, done, total) for name, (done, total) in totals.items()]
    return sorted(
        found, key=lambda one: (not one.read, -one.read / one.total, -one.total, one.name)
    )
