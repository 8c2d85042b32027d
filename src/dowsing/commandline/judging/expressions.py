"""Expressions of find: what stands where it does something else than it seems to."""

from __future__ import annotations

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import Grade, ProblemCode
from dowsing.commandline.model.tree import OperandUse, OptionUse, WordUse
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.roles import Role
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.model.tree import CommandNode

_REMOVING = "-delete"
#: What tests nothing: it may stand before or behind the action as well.
_ACTIONS = frozenset("-delete -print -print0 -ls -exec -execdir -ok -okdir -printf -fprint".split())
_NO_TESTS = frozenset(
    (
        "-delete", "-print", "-print0", "-ls", "-exec", "-execdir", "-ok", "-okdir", "-depth",
        "-quit", "-prune", "-printf", "-fprint", "-maxdepth", "-mindepth", "-mount", "-xdev",
        "-o", "-or", "-a", "-and", "-not",
    )
)  # fmt: skip


def action_of_last_only(node: CommandNode) -> Iterator[Problem]:
    """`-name a -o -name b -print`: the action binds to what stands behind the last `-o`."""
    if not node.is_of(CommandClass.PRINTS_PATHS):
        return
    depth = 0
    alternatives: list[list[OptionUse]] = [[]]
    for use in node.uses:
        sign = use.word.value
        if isinstance(use, OptionUse):
            alternatives[-1].append(use)
        elif sign in ("(", ")"):
            depth += 1 if sign == "(" else -1
        elif sign in ("-o", "-or") and not depth:
            alternatives.append([])
    *before, last = ([use for use in one if use.flag in _ACTIONS] for one in alternatives)
    if before and last and not any(before):
        action = last[0]
        reason = told(ProblemCode.ONLY_THE_LAST, action.flag)
        yield Problem(action.word.start, action.word.end, reason, grade=Grade.WARNING)


def action_before_test(node: CommandNode) -> Iterator[Problem]:
    """A removal before the tests that should have told what to remove; a test before a path."""
    if not node.is_of(CommandClass.PRINTS_PATHS):
        return
    removal: OptionUse | None = None
    test: OptionUse | None = None
    for use in node.uses:
        if isinstance(use, OptionUse):
            if use.flag == _REMOVING:
                removal = use
            elif use.flag[:1] == "-" and use.flag not in _NO_TESTS | node.leading:
                test = use
                if removal is not None:
                    reason = told(ProblemCode.ACTION_BEFORE_TEST, removal.flag, use.flag)
                    yield Problem(removal.word.start, removal.word.end, reason, grade=Grade.WARNING)
                    return
        elif isinstance(use, WordUse) and use.role == Role.OPTION:
            return  # an expression that is not known wholly: the next word may belong to it
        elif isinstance(use, OperandUse) and test is not None and use.word.value not in "(),!":
            reason = told(ProblemCode.PATH_AFTER_TEST, use.word.value, test.flag)
            yield Problem(use.word.start, use.word.end, reason)
            return
