"""What a command of a line has that the texts of facts ask for."""

from __future__ import annotations

from dowsing.commandline.meaning.conditions import EITHER, holds, operators
from dowsing.commandline.model.tree import CommandNode


class Given:
    """What a command is given from outside. `piped`: by the command before it in a pipe; `source`:
    what it reads in place of its input, "" for that itself; `inner`: the clause of the command that
    it carries, `line` that of the lines in its values, "" without one.
    """

    def __init__(
        self, piped: bool = False, source: str = "", inner: str = "", line: str = ""
    ) -> None:
        self.piped, self.source, self.inner, self.line = piped, source, inner, line


def texts(node: CommandNode, given: Given) -> list[tuple[str, str]]:
    """The texts whose conditions hold, with these, in order."""
    return [
        (act.when, act.says)
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
