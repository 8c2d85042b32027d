"""Makes the files that look-ups read of those of commands and messages (knowledge/commands,
knowledge/messages), which a checkout has and a wheel has not. The wheel's build does it (setup.py);
in a checkout it is done, too, when the index is built and before the tests.

    python -m dowsing.knowledge.compiling
"""

from __future__ import annotations

import os
import sys

from dowsing.knowledge.asks import packed_additions
from dowsing.knowledge.command_files import CommandFiles, read_command_files
from dowsing.knowledge.compiled import FILE, Part
from dowsing.knowledge.message_files import SOURCES as MESSAGES
from dowsing.knowledge.message_files import write_messages
from dowsing.knowledge.messages import FILE as MESSAGES_FILE
from dowsing.knowledge.packs import write_pack
from dowsing.knowledge.recipe_terms import spellings_of

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

SOURCES = os.path.join(os.path.dirname(FILE), "commands")


def bring_up_to_date() -> None:
    """Make each file anew if one of those that it is made of is newer. Raises ValueError as `write`
    does.
    """
    if os.path.isdir(SOURCES) and _is_older(FILE, SOURCES):
        write_commands()
    if os.path.isdir(MESSAGES) and _is_older(MESSAGES_FILE, MESSAGES):
        write_messages()


def write() -> None:
    """Make the files. Raises ValueError if one that they are made of is not of the format."""
    write_commands()
    write_messages()


def write_commands() -> None:
    """Make the file of commands. Raises ValueError if a file of a command is not of the format."""
    found = read_command_files(SOURCES)
    if found.faults:
        raise ValueError("\n".join(found.faults))
    parts = {
        Part.NAMES: found.names(),
        Part.CONVENTIONS: found.conventions(),
        Part.FACTS: found.facts(),
        Part.RECIPES: found.recipes,
        Part.WORDINGS: found.wordings,
        Part.ASKS: packed_additions(found.asks),
        Part.SPELLINGS: spellings_of(_texts_of(found)),
    }
    write_pack(FILE, [parts[one] for one in Part])


def _texts_of(found: CommandFiles) -> Iterator[str]:
    """How people ask for recipes, and for what is added to them."""
    for recipe in found.recipes:
        yield from (recipe.get("task", ""), *recipe.get("also", []))
    for texts in found.wordings.values():
        yield from texts
    yield from found.asked_phrases()


def _is_older(file: str, sources: str) -> bool:
    """Whether a file is not there, or older than one of a folder, or than the folder itself."""
    if not os.path.exists(file):
        return True
    made = os.stat(file).st_mtime_ns
    with os.scandir(sources) as entries:
        times = [entry.stat().st_mtime_ns for entry in entries]
    return max([os.stat(sources).st_mtime_ns, *times]) > made


def main() -> int:
    """Make the files, or print what is wrong."""
    try:
        write()
    except ValueError as error:
        print(error, file=sys.stderr)
        return 1
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
