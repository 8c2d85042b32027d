"""What stands wrongly beside each other in a pipe: `uniq` of what is not sorted, sizes with units
sorted as numbers, names with blanks for `xargs`.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import Grade, ProblemCode
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.model.tree import CommandNode, Pipeline

#: Options that part names by null characters, so that any sign may stand in them.
_BY_NULL = ("-0", "--null", "-d", "--delimiter")
#: Names of files of data, which are no programs.
_DATA = r"[\w-]+\.(?:json|csv|tsv|txt|log|xml|ya?ml|md|html|conf|ini|toml|sql)"


def neighbours_unsorted(pipeline: Pipeline) -> Iterator[Problem]:
    """A command that sees only neighbours, after others of which none sorts."""
    for number, node in enumerate(pipeline.commands):
        before = pipeline.commands[:number]
        if not node.is_of(CommandClass.SEES_NEIGHBOURS) or not before:
            continue
        if not any(one.is_of(CommandClass.SORTS) for one in before):
            reason = told(ProblemCode.NOT_SORTED, node.root.name)
            yield Problem(node.name.start, node.name.end, reason, grade=Grade.WARNING)


def units_as_numbers(pipeline: Pipeline) -> Iterator[Problem]:
    """Sizes with units, sorted as bare numbers."""
    for before, node in _pairs(pipeline):
        human = before.use_of("-h", "--human-readable")
        use = node.use_of("-n", "--numeric-sort") or node.use_of("-g")
        if human is None or use is None or not before.is_of(CommandClass.PRINTS_SIZES):
            continue
        if node.is_of(CommandClass.SORTS) and node.use_of("-h", "--human-numeric-sort") is None:
            reason = told(ProblemCode.UNITS_AS_NUMBERS, use.flag)
            yield Problem(use.word.start, use.word.end, reason, ["-h"], Grade.WARNING)


def names_with_blanks(pipeline: Pipeline) -> Iterator[Problem]:
    """Names of files that are parted at blanks, and removed: `find … | xargs rm`."""
    for before, node in _pairs(pipeline):
        if not before.is_of(CommandClass.PRINTS_PATHS) or not node.is_of(CommandClass.FEEDS):
            continue
        if "-print0" in before.flags or "-printf" in before.flags:
            continue
        if not any(one.is_of(CommandClass.LOSES_FILES) for one in node.carried):
            continue
        if node.use_of(*_BY_NULL) is None and not any(word in _BY_NULL for word in node.unknown):
            reason = told(ProblemCode.NAMES_WITH_BLANKS, node.root.name)
            yield Problem(node.name.start, node.name.end, reason, grade=Grade.WARNING)


def file_as_command(pipeline: Pipeline) -> Iterator[Problem]:
    """A file of data behind a pipe, where a command must stand."""
    for _, node in _pairs(pipeline):
        known = node.root
        is_program = known.exists or known.documented or bool(known.page)
        if not is_program and not node.uses and re.fullmatch(_DATA, node.name.value):
            reason = told(ProblemCode.FILE_AS_COMMAND, node.name.value)
            yield Problem(node.name.start, node.name.end, reason, grade=Grade.WARNING)


def _pairs(pipeline: Pipeline) -> Iterator[tuple[CommandNode, CommandNode]]:
    return zip(pipeline.commands, pipeline.commands[1:], strict=False)
