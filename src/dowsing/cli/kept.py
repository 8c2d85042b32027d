"""What the user keeps, for commands that show it: trouble with it is told in one line and does not stop them."""

from __future__ import annotations

from dowsing.cli.session import Session
from dowsing.core.keeping import NOTES, SAVED
from dowsing.core.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.core.keeping.notes import Note
    from dowsing.core.tasks.recipe import Recipe


class Own(Record):
    """What the user keeps that answers a search: lines and remarks."""

    lines: list[Recipe]
    notes: list[Note]

    @property
    def any(self) -> bool:
        """Whether there is anything."""
        return bool(self.lines or self.notes)


def own_matching(words: list[str], lines: list[Recipe], notes: list[Note]) -> Own:
    """The lines and remarks that have all the telling words."""
    if not lines and not notes:
        return Own([], [])
    from dowsing.core.keeping.saved import having
    from dowsing.core.language.stems import stems, telling_stems

    wanted = set(telling_stems(" ".join(words)))
    return Own(
        having(lines, wanted),
        [one for one in notes if wanted <= set(stems(f"{one.name} {one.text}"))],
    )


def own_lines(session: Session) -> list[Recipe]:
    """The user's own lines; what is wrong in their file is said."""
    import os

    from dowsing.cli.output.terminal import message

    folder = session.settings.kept
    if not os.path.exists(os.path.join(folder, SAVED)):
        return []  # without the time that reading takes
    from dowsing.core.keeping.files import CannotKeep
    from dowsing.core.keeping.saved import saved_recipes

    try:
        recipes, faults = saved_recipes(folder)
    except CannotKeep as error:
        message(str(error))
        return []
    for fault in faults[:3]:
        message(f"{fault.path}, line {fault.line}: {fault.says}; the other lines are used")
    return recipes


def notes_on(session: Session, names: list[str] | None) -> list[Note]:
    """The user's remarks on any of these labels; all of them for None."""
    import os

    from dowsing.cli.output.terminal import message

    if not os.path.exists(os.path.join(session.settings.kept, NOTES)):
        return []
    from dowsing.core.keeping import notes
    from dowsing.core.keeping.files import CannotKeep

    try:
        folder = session.settings.kept
        return notes.read_notes(folder) if names is None else notes.notes_on(folder, names)
    except CannotKeep as error:
        message(str(error))
        return []


def note_read(session: Session, label: str) -> None:
    """Note that the card, the page or the examples of an entry were shown."""
    if session.format != "text":
        return  # that was a program
    from time import strftime

    from dowsing.core.keeping.progress import mark_read

    mark_read(session.settings.kept, label, strftime("%Y-%m-%d"))
