"""The help of a subcommand: what its program prints for `TOOL SUB --help`, or for `TOOL help SUB`
where its own help says so.

Only words that the help above lists as subcommands are asked with, so that nothing that is typed is
handed to a program as an order.
"""

from __future__ import annotations

import os
import re

from dowsing.facts.subcommands import read_subcommands
from dowsing.knowledge.effects import part_asked_with
from dowsing.model.document import Subcommand
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.readers.usage.usage_text import read_usage
from dowsing.sources.asking import ask_program
from dowsing.sources.usage_cache import Usage

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.settings import Settings

USUAL = "--help"
MOST_DEEP = 4  # words behind the program
#: `Use "tool help <command>" for more`: the way to ask for the help of a subcommand.
_HELP_FIRST = r"[\"'`‘“ ]{name} help [<\[]?(?:sub)?(?:command|topic|cmd)s?\b"
_FLAG_BEHIND = r"(?:command|cmd|subcommand|\.\.\.)[>\]]* (?:--help|-h)\b"


def ask_subcommand(
    path: str, words: list[str], settings: Settings, ask: bool, has_page: bool = False
) -> Usage | None:
    """What the program prints when it is asked for the help of the subcommand; None if that is not
    known and may not be asked. What is the same as the help above is none of its own. `has_page`: a
    page tells that there is such a subcommand, so that the help above need not list it.
    """
    name = os.path.basename(path)
    above = ask_program(path, name, settings, ask)
    spoken: list[str] = []  # as the help above has the words
    for word in words[:MOST_DEEP]:
        if above is None or above.kind != UsageKind.USAGE:
            return above
        so_far = " ".join([name, *spoken])
        listed = named_in(above, so_far, word) or (Subcommand(word) if has_page else None)
        if listed is None:
            return Usage(UsageKind.NOTHING, f"the help of {so_far} lists no {word}", "")
        spoken.append(listed.name)
        asked = _asked_with(path, above.text, spoken)
        own = ask_program(path, f"{so_far} {listed.name}", settings, ask, asked)
        if own is not None and own.text and own.text.strip() == above.text.strip():
            said = f"{so_far} {listed.name} prints the help of {so_far}"
            return Usage(UsageKind.NOTHING, said, "")
        above = own
    return above


def named_in(usage: Usage, spoken: str, word: str) -> Subcommand | None:
    """The subcommand that a usage text lists under that word, or under another word for it.
    `spoken`: the words that the text was asked with.
    """
    document = read_usage(usage.text, spoken, "usage")
    listed = read_subcommands(document)
    return next((one for one in listed if word == one.name or word in one.aliases), None)


def _asked_with(path: str, text: str, words: list[str]) -> list[str]:
    """The words behind the program that ask for the help of a subcommand."""
    name = os.path.basename(path)
    behind = part_asked_with(name)
    is_first = re.search(_HELP_FIRST.replace("{name}", re.escape(name)), text)
    is_usual = behind == USUAL and not re.search(_FLAG_BEHIND, text)
    return ["help", *words] if is_first and is_usual and len(words) == 1 else [*words, behind]
