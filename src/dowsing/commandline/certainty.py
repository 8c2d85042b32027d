"""What keeps a judge from being sure."""

from __future__ import annotations

import os
import re

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.shell_words import Word
    from dowsing.commandline.tree import CommandNode

_SLOT_BEGINS = r"<[A-Za-z]"
#: Commands that add operands of their own to the command that they carry.
_FEEDERS = frozenset(("xargs", "parallel", "find", "fd", "watch", "entr"))
#: Options with which a command only tells something.
_TELLING = frozenset(("--help", "--version", "--usage", "-?", "--list", "-V", "--manual"))
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
    return node.carrier is not None and is_feeder(node.carrier)


def is_feeder(node: CommandNode) -> bool:
    """Whether a command adds operands to the one that it carries."""
    return os.path.basename(node.root.name) in _FEEDERS


def tells_only(node: CommandNode) -> bool:
    """Whether an option is there with which the command needs nothing else."""
    for use in node.used:
        if use.flag in _TELLING or "--help" in use.spelling.option.flags:
            return True
        text = use.spelling.option.text[:80].lower()
        if any(word in text for word in ("help", "usage", "version")) and re.match(_TELLS, text):
            return True
    return any(word in ("--help", "--version", "-h") for word in node.unknown)
