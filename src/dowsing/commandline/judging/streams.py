"""Files that a line reads and empties, or empties where it means to compare."""

from __future__ import annotations

import os

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import Grade, ProblemCode
from dowsing.commandline.model.tree import OperandUse
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.told import told
from dowsing.model.value_kinds import FILE_KINDS
from dowsing.model.values import OperandRole

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.grammar.shell_words import Mark
    from dowsing.commandline.model.tree import CommandNode, Pipeline

_NOT_READ = frozenset((OperandRole.TARGET, OperandRole.PATTERN, OperandRole.PROGRAM))


def output_is_input(pipeline: Pipeline) -> Iterator[Problem]:
    """A file whose output comes from the same commands that read it: the shell empties it before
    they start.
    """
    read = {name for node in pipeline.commands for name in _files_read(node)}
    read |= {
        os.path.normpath(mark.word.value)
        for mark in pipeline.redirections
        if mark.operator == "<" and mark.word is not None
    }
    for mark in pipeline.redirections:
        name = _emptied(mark)
        if name and os.path.normpath(name) in read:
            yield Problem(mark.start, mark.end, told(ProblemCode.OUTPUT_IS_INPUT, name))


def redirection_in_test(pipeline: Pipeline) -> Iterator[Problem]:
    """`[ a > b ]`, which writes the file b."""
    for mark in pipeline.redirections:
        if mark.in_test and mark.word is not None:
            reason = told(ProblemCode.REDIRECTS_IN_TEST, mark.operator, mark.word.text)
            nearest = [f"\\{mark.operator}"]
            yield Problem(mark.start, mark.end, reason, nearest, Grade.WARNING)


def _emptied(mark: Mark) -> str:
    """The file that a redirection empties, as far as its name is known; "" if none."""
    if mark.word is None or mark.word.dynamic or mark.emptied.startswith("/dev/"):
        return ""
    return mark.emptied


def _files_read(node: CommandNode) -> Iterator[str]:
    if node.is_of(CommandClass.READS_NO_FILES) or node.carried:
        return
    for use in node.uses:
        if not isinstance(use, OperandUse):
            continue
        slot = use.slot
        if slot is None or slot.role in _NOT_READ or slot.kind not in FILE_KINDS:
            continue
        if not use.word.dynamic and not use.word.glob:
            yield os.path.normpath(use.word.value)
