"""The subcommands that the texts of a command list."""

from __future__ import annotations

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.commandline.reading.usual import subcommand_words

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.session.session import Session


def finder_of(session: Session) -> CommandFinder:
    """What finds commands, kept for the run: each is read once. It suggests none."""
    found: CommandFinder | None = session.store.memory.get("finder")
    if found is None:
        found = CommandFinder(session.store, session.settings, suggest=False)
        session.store.memory["finder"] = found
    return found


def told_subcommands(session: Session, name: str) -> dict[str, str]:
    """The words that a command's texts and pages have as its subcommands, with what is said of
    each.
    """
    finder = finder_of(session)
    return subcommand_words(finder.command(name), finder)[1]


def listed_subcommands(session: Session, name: str) -> dict[str, str]:
    """The same of a command that has a text; of a word that only begins names of pages none."""
    return told_subcommands(session, name) if finder_of(session).command(name).tables else {}
