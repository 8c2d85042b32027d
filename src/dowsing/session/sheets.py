"""The sheet that a command line of ours asks for, what is told of its fields, and handing its line
out.
"""

from __future__ import annotations

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.composing.command_sheet import CommandSheet
from dowsing.composing.line_kinds import line_kinds, read_kind
from dowsing.composing.line_sheet import LineSheet
from dowsing.model.errors import BadDescription, Failure, NotComposable
from dowsing.model.markup import clean_line
from dowsing.model.source_name import OWN_HELP
from dowsing.render.typed import typed
from dowsing.tasks.recipe_examples import as_shown, recipes_for

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.composing.sheet import Sheet
    from dowsing.model.document import Document
    from dowsing.session.session import Session


def command_sheet(session: Session, line: str, at: int | None = None) -> CommandSheet:
    """The sheet of the command at a place of a line. Raises Failure."""
    finder = CommandFinder(session.store, session.settings, ask=True)
    words = line[:at].replace("|", " ").split()

    def uses(name: str) -> list[str]:
        return [as_shown(recipe) for recipe in recipes_for(session.store, [name])]

    try:
        return CommandSheet(line, finder, at, uses)
    except NotComposable as error:
        hint = ""
        if words and not session.store.named(words[0]):
            from dowsing.index.nearest_names import nearest_names

            near = nearest_names(session.store, words[0])
            if near:
                raise Failure(f"{error}; nearest names", nearest=near) from None
            hint = f"; search with: {session.program} find {typed(words[0][:40])}"
        raise Failure(f"{error}{hint}") from None


def line_sheet(session: Session, name: str, text: str) -> LineSheet:
    """The sheet of a structured line of that kind. Raises Failure."""
    kinds = line_kinds(session.settings)
    if name not in kinds:
        raise Failure(
            f"there is no kind of line named {clean_line(name)[:40]}; there are: "
            f"{', '.join(kinds)}",
            status=2,
        )
    try:
        return LineSheet(read_kind(kinds[name]), text)
    except BadDescription as error:
        raise Failure(str(error), status=3) from None


def documents_of(session: Session, sheet: Sheet) -> Document | None:
    """The document that tells of the fields, None if it cannot be read."""
    from dowsing.session.naming import named, open_found

    if not sheet.page:
        return None
    page = sheet.page.removesuffix("(builtin)").removesuffix(OWN_HELP)
    found = named(session, [page])
    if found.entry is None:
        return None
    try:
        return open_found(session, found)
    except Failure:
        return None
