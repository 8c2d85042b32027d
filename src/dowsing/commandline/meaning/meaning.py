"""The meaning of a line: its statements, each command with what it does. Worked out once a line,
and read by all who tell or judge it.
"""

from __future__ import annotations

from dowsing.commandline.meaning.binding import Given
from dowsing.commandline.meaning.doing import doing_of
from dowsing.commandline.meaning.nodes import Sequence
from dowsing.commandline.meaning.statements import StatementReader
from dowsing.commandline.model.tree import CommandNode
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.meaning.nodes import Doing
    from dowsing.commandline.model.tree import Line


class Meaning(Record):
    """`statements`: those of the line itself; `within`: those of the substitutions in its words, by
    the text of each, in order; `doings`: what each command does, also those that are carried or
    stand in substitutions and values, by the `id` of its node.
    """

    statements: Sequence
    within: list[tuple[str, Sequence]]
    doings: dict[int, Doing]

    def of(self, node: CommandNode) -> Doing:
        """What a command of the line does."""
        return self.doings[id(node)]


def meaning_of(tree: Line, lines: list[Line], commands: list[CommandNode], text: str) -> Meaning:
    """The meaning of a line. `lines`: it and those that stand within its words; `commands`: all of
    them; `text` is what it was read from, in whose places its parts stand.
    """
    maker = _MeaningMaker(text)
    statements = maker.sequence(tree)
    for line in lines:
        maker.sequence(line)
    for node in commands:  # of a line that the shell cannot read some are in no statement
        if id(node) not in maker.doings:
            maker.doing(node)
    inner = sorted(tree.substitutions, key=lambda one: one[0].start)
    within = [(one.text, maker.sequence(line)) for one, line in inner]
    return Meaning(statements, within, maker.doings)


class _MeaningMaker:
    """Makes the meaning of a line and of those within it, each once."""

    def __init__(self, text: str) -> None:
        self.text = text
        self.doings: dict[int, Doing] = {}
        self.sequences: dict[int, Sequence] = {}

    def sequence(self, line: Line) -> Sequence:
        """The statements of a line."""
        if id(line) not in self.sequences:
            made = StatementReader(line.parts, self.text, self.doing).sequence()
            self.sequences[id(line)] = made
        return self.sequences[id(line)]

    def doing(self, node: CommandNode, piped: bool = False, has_source: bool = False) -> Doing:
        """What a command does."""
        carried = [self.doing(one) for one in node.carried if one is not node]
        lines = [self.sequence(line) for use in node.uses for line in use.lines]
        carries = bool(carried) or any(one.steps for one in lines)
        made = doing_of(node, Given(piped, has_source, carries), carried, lines)
        self.doings[id(node)] = made
        return made
