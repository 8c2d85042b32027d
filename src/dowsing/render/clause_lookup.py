"""What a command of a line has that the texts of facts ask for."""

from __future__ import annotations

from dowsing.commandline.meaning.conditions import EITHER, holds, operators
from dowsing.commandline.model.tree import CommandNode

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.knowledge.command_facts import Act


class Given:
    """What a command is given from outside. `piped`: by the command before it in a pipe; `source`:
    what it reads in place of its input, "" for that itself; `inner`: the clause of the command that
    it carries, `line` that of the lines in its values, "" without one. What is told of it is noted:
    `has_source` if the source is, `takes_them` if what comes before is what it is done to.
    """

    def __init__(
        self, piped: bool = False, source: str = "", inner: str = "", line: str = ""
    ) -> None:
        self.piped, self.source, self.inner, self.line = piped, source, inner, line
        self.has_source = self.takes_them = False


def acts_now(node: CommandNode, given: Given) -> list[Act]:
    """The acts whose conditions hold, in order."""
    return [
        act
        for act in node.known.facts.clauses
        if holds(act.when, node, given.piped, bool(given.inner))
    ]


def acts_on_last(node: CommandNode) -> bool:
    """Whether the actions of an expression are for the last of its alternatives alone."""
    depth, found = 0, False
    for use in operators(node):
        depth += {"(": 1, ")": -1}.get(use.word.value, 0)
        found = found or (not depth and use.word.value in EITHER)
    return found
