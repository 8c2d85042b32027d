"""The subcommands that the texts of a command list."""

from __future__ import annotations

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.commandline.reading.usual import subcommand_words

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Command
    from dowsing.session.session import Session


def finder_of(session: Session) -> CommandFinder:
    """What finds commands, kept for the run: each is read once. It suggests none."""
    found: CommandFinder | None = session.store.memory.get("finder")
    if found is None:
        found = CommandFinder(session.store, session.settings, suggest=False)
        session.store.memory["finder"] = found
    return found


def told_subcommands(session: Session, name: str) -> dict[str, str]:
    """The words that the texts and pages of a command, `pip` or `pip cache`, have as its
    subcommands, with what is said of each.
    """
    finder = finder_of(session)
    known: Command | None = finder.command(name.partition(" ")[0])
    for word in name.split(" ")[1:]:
        known = finder.subcommand(known, word) if known is not None else None
    return subcommand_words(known, finder)[1] if known is not None else {}


def listed_subcommands(session: Session, name: str) -> dict[str, str]:
    """The same of a command that has a text; of a word that only begins names of pages none."""
    return told_subcommands(session, name) if finder_of(session).command(name).tables else {}
