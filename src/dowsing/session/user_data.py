"""What the user keeps, for commands that show it: trouble with it is told in one line and does not
stop them.
"""

from __future__ import annotations

from dowsing.userdata import NOTES, SAVED
from dowsing.userdata.matches import KeptMatches

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.knowledge.recipes import Recipe
    from dowsing.session.session import Session
    from dowsing.userdata.kept_lines import KeptLines
    from dowsing.userdata.remarks import Remark


MOST_SHARING = 400  # kept lines that are compared with a sentence


def own_matching(session: Session, words: list[str]) -> KeptMatches:
    """The lines and remarks that have all the telling words."""
    lines, notes = own_lines(session), notes_on(session, None)
    if lines is None and not notes:
        return KeptMatches([], [])
    from dowsing.knowledge.stems import stems, telling_stems

    wanted = set(telling_stems(" ".join(words)))
    return KeptMatches(
        lines.having(wanted) if lines is not None else [],
        [one for one in notes if wanted <= set(stems(f"{one.name} {one.text}"))],
    )


def own_for(session: Session, sentence: str) -> list[Recipe]:
    """The lines that a task said in these words may mean."""
    lines = own_lines(session)
    if lines is None:
        return []
    from dowsing.knowledge.stems import telling_stems

    return lines.sharing(set(telling_stems(sentence)), MOST_SHARING)


def own_about(session: Session, names: list[str]) -> list[Recipe]:
    """The lines of a command."""
    lines = own_lines(session)
    return [] if lines is None else lines.about(names)


def own_lines(session: Session) -> KeptLines | None:
    """The user's own lines, None if there are none; what is wrong in their file is said."""
    import os

    from dowsing.terminal.screen import message

    folder = session.settings.kept
    if not os.path.exists(os.path.join(folder, SAVED)):
        return None  # without the time that reading takes
    from dowsing.model.errors import CannotKeep
    from dowsing.userdata.kept_lines import KeptLines

    try:
        kept = KeptLines(folder, session.settings.cache)
    except CannotKeep as error:
        message(str(error))
        return None
    for fault in kept.faults[:3]:
        message(f"{fault.path}, line {fault.line}: {fault.says}; the other lines are used")
    return kept


def notes_on(session: Session, names: list[str] | None) -> list[Remark]:
    """The user's remarks on any of these labels; all of them for None."""
    import os

    from dowsing.terminal.screen import message

    if not os.path.exists(os.path.join(session.settings.kept, NOTES)):
        return []
    from dowsing.model.errors import CannotKeep
    from dowsing.userdata import remarks

    try:
        found, faults = remarks.read_notes(session.settings.kept)
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

    from dowsing.userdata.reading_progress import mark_read

    mark_read(session.settings.kept, label, strftime("%Y-%m-%d"))
