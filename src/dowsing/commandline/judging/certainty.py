"""What keeps a judge from being sure."""

from __future__ import annotations

import re
from enum import Enum

from dowsing.commandline.model.tree import OperandUse, WordUse
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.roles import Role

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.tree import CommandNode, OptionUse

_SLOT_BEGINS = r"<[A-Za-z]"


class AboutItself(Enum):
    """What a command tells of itself in the place of doing anything."""

    USAGE = "usage"
    VERSION = "version"


#: Options with which any command that has them only tells of itself.
ABOUT_ITSELF = {
    "--version": AboutItself.VERSION,
    "--help": AboutItself.USAGE,
    "--usage": AboutItself.USAGE,
    "-?": AboutItself.USAGE,
}
#: Options with which a command only tells something.
_TELLING = frozenset((*ABOUT_ITSELF, "--list", "-V", "--manual"))
#: Options with which any command only shows what it would do.
_LOOKING = frozenset(
    ("--dry-run", "--dryrun", "--simulate", "--just-print", "--no-act", "--what-if")
)
#: Texts of options with which nothing is done.
_SHOWS = r"\b(?:print|show|display|list|output|see)(?:s|ing)?\b[^.]{0,60}?"
_WOULD = r"\bwould (?:be|have been|do|happen|have happened)\b"
_NOT_DONE = (
    r"(?:\b(?:do|does|but) not|n['’]t|\b(?:just|simply|only) (?:print|show|display|list|output)"
    r"|\binstead of \w+ing|\bwithout \w+ing|\bthen exit|\bno action)\b"
)
_LOOKS = (
    r"\A(?:no action\b|dry[- ]run\b|simulate (?!a\b))"
    r"|\b(?:do|perform|run|enables?|be|in)(?: a| the| in)? dry[- ]run\b"
    r"|\bperform a simulation\b|\btrial run\b|\bmake no changes\b"
    r"|\bno changes (?:are|will be) made\b|\bnot actually\b.*\b(?:display|show|print|would)"
    rf"|{_NOT_DONE}.{{0,80}}{_SHOWS}{_WOULD}|{_SHOWS}{_WOULD}.{{0,80}}{_NOT_DONE}"
    rf"|\b(?:just|simply|only) {_SHOWS[2:]}{_WOULD}|\Acommands?\b.{{0,20}}{_WOULD}"
)
_LOOKED_AT = 200  # characters of such a text
#: One of these stands in every text that the pattern finds.
_OF_LOOKING = ("would ", "dry", "simul", "no action", "trial run", "no changes", "not actually")
#: Texts of such options.
_TELLS = (
    r"(?:print|display|show|give|output)s?\s(?:\w+\s){0,4}?(?:help|usage|version)\b"
    r"|help\b|version\b"
)


def is_unsure(word: Word) -> bool:
    """Whether the shell, or who fills in a place, puts something else or several words there."""
    value = word.value
    if word.dynamic or word.glob or "{}" in value:
        return True
    return value[:1] == "<" or not any(char.isalnum() for char in value)


def has_slot(text: str) -> bool:
    """Whether a value is to be filled in within a text: `<name>`."""
    return "<" in text and re.search(_SLOT_BEGINS, text) is not None


def adds_operands(node: CommandNode) -> bool:
    """Whether operands come from the command that carries this one."""
    return node.carrier is not None and node.carrier.is_of(CommandClass.FILLS_IN)


def tells_only(node: CommandNode) -> bool:
    """Whether an option is there with which the command needs nothing else."""
    for use in node.used:
        if use.flag in _TELLING or "--help" in use.spelling.option.flags:
            return True
        text = use.spelling.option.text[:80].lower()
        if any(word in text for word in ("help", "usage", "version")) and re.match(_TELLS, text):
            return True
    return any(word in ("--help", "--version", "-h") for word in node.unknown)


def looks_only(node: CommandNode) -> bool:
    """Whether an option is there with which the command only shows what it would do: by our facts,
    by its name, or by what its page says of it.
    """
    return any(is_for_looking(use, node) for use in node.uses)


def is_for_looking(use: OptionUse | OperandUse | WordUse, node: CommandNode) -> bool:
    """Whether with this option the command only shows what it would do."""
    known = node.known
    looks = {flag for one in (known, known.parent) if one for flag in one.facts.looks} | _LOOKING
    if isinstance(use, WordUse):
        return use.role == Role.OPTION and use.word.value.partition("=")[0] in looks
    if isinstance(use, OperandUse) or use.spelling.turned_off_by(use.flag):
        return False
    if looks & {use.flag, *use.spelling.option.flags}:
        return True
    text = use.spelling.option.text[:_LOOKED_AT].lower()
    # most have none of its words, and need no pattern
    if use.value is not None or not any(word in text for word in _OF_LOOKING):
        return False
    return re.search(_LOOKS, text) is not None
