"""The command at a place of a line."""

from __future__ import annotations

from dowsing.commandline.grammar.shell_words import SimpleCommand
from dowsing.commandline.model.tree import CommandNode, Line, OptionUse, WordUse

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.tree import OperandUse


def command_at(line: Line, at: int) -> CommandNode | SimpleCommand | None:
    """The innermost command that a place in characters belongs to, the last that has begun there.
    What a substitution, quotes or an option hold is left where they have ended. One whose name is
    only known when it runs is given as its words.
    """
    found: CommandNode | SimpleCommand | None = None
    for part in line.parts:
        if isinstance(part, CommandNode):
            found = _in_command(part, at) or found
        elif isinstance(part, SimpleCommand) and _has_begun(part.words[0], at):
            found = part
    for inner, within in line.substitutions:
        is_closed = inner.text.endswith((")", "`")) and inner.end <= at
        if inner.start <= at and not is_closed:
            found = command_at(within, at)
    return found


def _in_command(node: CommandNode, at: int) -> CommandNode | SimpleCommand | None:
    if not _has_begun(node.name, at):
        return None
    found: CommandNode | SimpleCommand | None = node
    for inner in node.carried:
        if inner.closer is None or inner.closer.end > at:
            found = _in_command(inner, at) or found
    for use in node.uses:
        if use.word.start <= at <= end_of(use):
            for line in use.lines:
                found = command_at(line, at) or found
    return found


def _has_begun(name: Word, at: int) -> bool:
    return name.placed and name.start <= at


def words_of(node: CommandNode) -> Iterator[Word]:
    """All words of a command but those of the commands that it carries, the name first."""
    yield node.name
    for use in node.uses:
        yield use.word
        yield from _value_words(use)
    for inner in node.carried:
        if inner.closer is not None:
            yield inner.closer


def end_of(use: OptionUse | OperandUse | WordUse) -> int:
    """Where a word with its value ends, in characters."""
    return max(word.end for word in (use.word, *_value_words(use)))


def _value_words(use: OptionUse | OperandUse | WordUse) -> list[Word]:
    if isinstance(use, OptionUse):
        return [] if use.carries else use.value_words
    return [use.value.word] if isinstance(use, WordUse) and use.value is not None else []
