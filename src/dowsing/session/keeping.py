"""Keeping a line of the user's."""

from __future__ import annotations

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.knowledge.recipes import make_recipe, quoted_slots
from dowsing.model.errors import CannotKeep, Failure
from dowsing.model.paths import REPLACED, as_text
from dowsing.render.line_sentence import sentence
from dowsing.userdata.saved_lines import Kept, save

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.session.session import Session

MOST = 4000  # characters of a line


def keep_line(session: Session, line: str, task: str) -> Kept:
    """Keep a line. Raises Failure."""
    from datetime import date

    if "\n" in line.strip() or len(line) > MOST:
        raise Failure(
            f"one line of at most {MOST} characters is kept at a time; longer things belong in a "
            "script",
            status=2,
        )
    line = line.strip()
    if REPLACED in as_text(line):
        raise Failure(
            "the line holds bytes that are no UTF-8 text; write them as $'\\xff' and keep that",
            status=2,
        )
    found = unpick(line, CommandFinder(session.store, session.settings))
    says = " ".join(task.split()) or sentence(found) or line
    try:
        # what stands in quotes can take no quotes of its own
        slots = {name: {"kind": "word"} for name in quoted_slots(line)}
        recipe = make_recipe({"task": says, "line": line, "slots": slots}, "", "saved")
    except ValueError as error:
        raise Failure(f"that cannot be kept: {error}", status=2) from None
    try:
        return save(session.settings.kept, recipe, date.today().isoformat())
    except CannotKeep as error:
        raise Failure(str(error), status=3) from None
