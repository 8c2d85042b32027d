"""What a command of a line has that the texts of facts ask for."""

from __future__ import annotations

import re

from dowsing.commandline.command import Spelling
from dowsing.commandline.tree import CommandNode, OperandUse, OptionUse, WordUse
from dowsing.model.document import Option
from dowsing.model.roles import Role
from dowsing.model.values import OperandRole

_EITHER = frozenset(("-o", "-or", ","))
_READ = frozenset((OperandRole.SOURCE, OperandRole.SUBJECT))
_FEEDERS = frozenset(("xargs", "parallel"))


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
    does = node.known.facts.does
    return [
        (condition, text)
        for condition, text in does.items()
        if all(_holds(one, node, given) for one in condition.split())
    ]


def _holds(condition: str, node: CommandNode, given: Given) -> bool:
    if condition == "|":
        return given.piped and not inputs(node)
    if condition == "inner":
        return bool(given.inner)
    if condition == "either":
        return any(use.word.value in _EITHER for use in _operators(node))
    if condition == "--":
        return node.ended
    if condition[0] == "-":
        flags, _, value = condition.partition("=")
        use = use_of(node, flags)
        return use is not None and (not value or use.value == value)
    keyed = node.use_of(condition)  # `of=`, which has no dash
    if keyed is not None or operands(node, condition):
        return True
    return not node.operands and is_fed(node) and not condition[:1].isdecimal()


def use_of(node: CommandNode, flags: str) -> OptionUse | None:
    """The use of one of these options, `-a|--all`, also of a command that no page here tells of."""
    names = flags.split("|")
    use = node.use_of(*names)
    if use is not None:
        return use
    for one in node.uses:
        if isinstance(one, WordUse) and one.role == Role.OPTION and one.word.value in names:
            spelling = Spelling(one.word.value, Option([one.word.value]), "")
            value = one.value_word.value if one.value_word is not None else None
            loose = OptionUse(one.word.value, spelling, one.word, value)
            loose.value_words = [one.value_word] if one.value_word is not None else []
            return loose
    return None


def is_fed(node: CommandNode) -> bool:
    """Whether its operands come from the command that carries it, as those of xargs do."""
    return node.carrier is not None and node.carrier.root.name in _FEEDERS


def _operators(node: CommandNode) -> list[WordUse]:
    """The operators of a command's own expression, as find has them."""
    return [use for use in node.uses if isinstance(use, WordUse) and use.role == Role.OPERATOR]


def acts_on_last(node: CommandNode) -> bool:
    """Whether the actions of an expression are for the last of its alternatives alone."""
    depth, found = 0, False
    for use in _operators(node):
        depth += {"(": 1, ")": -1}.get(use.word.value, 0)
        found = found or (not depth and use.word.value in _EITHER)
    return found


def inputs(node: CommandNode) -> list[OperandUse]:
    """The operands that it reads."""
    return [use for use in node.operands if use.slot is not None and use.slot.role in _READ]


def operands(node: CommandNode, name: str) -> list[OperandUse]:
    """The operands that a name of a text stands for."""
    uses = node.operands
    if name == "*":
        return uses
    if name in ("names", "settings"):
        is_setting = name == "settings"
        return [use for use in uses if ("=" in use.word.value) == is_setting]
    if name == "-1":
        return uses[-1:]
    counted = re.fullmatch(r"(\d)(-?)", name)
    if counted:
        first = int(counted[1]) - 1
        return uses[first:] if counted[2] else uses[first : first + 1]
    return [use for use in uses if use.slot is not None and use.slot.name == name]
