"""What the user keeps, for commands that show it: trouble with it is told in one line and does not stop them."""

from __future__ import annotations

from dowsing.cli.session import Session
from dowsing.core.keeping import NOTES, SAVED
from dowsing.core.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.core.keeping.lines import KeptLines
    from dowsing.core.keeping.notes import Note
    from dowsing.core.tasks.recipe import Recipe


MOST_SHARING = 400  # kept lines that are compared with a sentence


class Own(Record):
    """What the user keeps that answers a search: lines and remarks."""

    lines: list[Recipe]
    notes: list[Note]

    @property
    def any(self) -> bool:
        """Whether there is anything."""
        return bool(self.lines or self.notes)


def own_matching(session: Session, words: list[str]) -> Own:
    """The lines and remarks that have all the telling words."""
    lines, notes = own_lines(session), notes_on(session, None)
    if lines is None and not notes:
        return Own([], [])
    from dowsing.core.language.stems import stems, telling_stems

    wanted = set(telling_stems(" ".join(words)))
    return Own(
        lines.having(wanted) if lines is not None else [],
        [one for one in notes if wanted <= set(stems(f"{one.name} {one.text}"))],
    )


def own_for(session: Session, sentence: str) -> list[Recipe]:
    """The lines that a task said in these words may mean."""
    lines = own_lines(session)
    if lines is None:
        return []
    from dowsing.core.language.stems import telling_stems

    return lines.sharing(set(telling_stems(sentence)), MOST_SHARING)


def own_about(session: Session, names: list[str]) -> list[Recipe]:
    """The lines of a command."""
    lines = own_lines(session)
    return [] if lines is None else lines.about(names)


def own_lines(session: Session) -> KeptLines | None:
    """The user's own lines, None if there are none; what is wrong in their file is said."""
    import os

    from dowsing.cli.output.terminal import message

    folder = session.settings.kept
    if not os.path.exists(os.path.join(folder, SAVED)):
        return None  # without the time that reading takes
    from dowsing.core.keeping.files import CannotKeep
    from dowsing.core.keeping.lines import KeptLines

    try:
        kept = KeptLines(folder, session.settings.cache)
    except CannotKeep as error:
        message(str(error))
        return None
    for fault in kept.faults[:3]:
        message(f"{fault.path}, line {fault.line}: {fault.says}; the other lines are used")
    return kept


def notes_on(session: Session, names: list[str] | None) -> list[Note]:
    """The user's remarks on any of these labels; all of them for None."""
    import os

    from dowsing.cli.output.terminal import message

    if not os.path.exists(os.path.join(session.settings.kept, NOTES)):
        return []
    from dowsing.core.keeping import notes
    from dowsing.core.keeping.files import CannotKeep

    try:
        found, faults = notes.read_notes(session.settings.kept)
    except CannotKeep as error:
        message(str(error))
        return []
    for fault in faults[:3]:
        message(f"{fault.path}, line {fault.line}: {fault.says}; the other remarks are used")
    return [note for note in found if names is None or note.name in names]


def note_read(session: Session, label: str) -> None:
    """Note that the card, the page or the examples of an entry were shown."""
    if session.format != "text":
        return  # that was a program
    from time import strftime

    from dowsing.core.keeping.progress import mark_read

    mark_read(session.settings.kept, label, strftime("%Y-%m-%d"))
