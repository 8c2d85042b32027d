"""Expressions of find: what stands where it does something else than it seems to."""

from __future__ import annotations

from dowsing.commandline.problems import Problem
from dowsing.commandline.sayings import Grade, ProblemCode
from dowsing.commandline.tree import OperandUse, OptionUse
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.tree import CommandNode

_REMOVING = "-delete"
#: What tests nothing: it may stand before or behind the action as well.
_NO_TESTS = frozenset(
    (
        "-delete", "-print", "-print0", "-ls", "-exec", "-execdir", "-ok", "-okdir", "-depth",
        "-quit", "-prune", "-printf", "-fprint", "-maxdepth", "-mindepth", "-mount", "-xdev",
        "-o", "-or", "-a", "-and", "-not",
    )
)  # fmt: skip


def action_before_test(node: CommandNode) -> Iterator[Problem]:
    """A removal before the tests that should have told what to remove; a test before a path."""
    if node.root.name != "find":
        return
    removal: OptionUse | None = None
    test: OptionUse | None = None
    for use in node.uses:
        if isinstance(use, OptionUse):
            if use.flag == _REMOVING:
                removal = use
            elif use.flag[:1] == "-" and use.flag not in _NO_TESTS:
                test = use
                if removal is not None:
                    reason = told(ProblemCode.ACTION_BEFORE_TEST, removal.flag, use.flag)
                    yield Problem(removal.word.start, removal.word.end, reason, grade=Grade.WARNING)
                    return
        elif isinstance(use, OperandUse) and test is not None and use.word.value not in "(),!":
            reason = told(ProblemCode.PATH_AFTER_TEST, use.word.value, test.flag)
            yield Problem(use.word.start, use.word.end, reason)
            return
