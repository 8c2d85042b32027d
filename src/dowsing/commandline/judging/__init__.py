"""What is wrong, or surely not meant, with a line that has been read: the rules, in their order.

A rule is a function from a Judged to problems. Of several problems at one place the first counts,
so what is certain stands before what is only likely.
"""

from __future__ import annotations

from dowsing.commandline.judging import expressions, modes, operands, patterns, programs, streams

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable, Iterator

    from dowsing.commandline.problems import Problem
    from dowsing.commandline.tree import CommandNode, Pipeline

#: Rules that look at one command.
COMMAND_RULES: tuple[Callable[[CommandNode], Iterator[Problem]], ...] = (
    modes.value_taken_in_cluster,
    modes.modes_apart,
    modes.one_of_needed,
    modes.depends_on_another,
    operands.unknown_keys,
    operands.wrong_operands,
    operands.missing_operands,
    operands.missing_command,
    operands.too_many_operands,
    expressions.action_before_test,
    programs.unfinished_programs,
    patterns.unquoted_patterns,
    patterns.history_in_quotes,
)
#: Rules that look at commands with pipes between them.
PIPELINE_RULES: tuple[Callable[[Pipeline], Iterator[Problem]], ...] = (
    streams.output_is_input,
    streams.redirection_in_test,
)


def judge(commands: list[CommandNode], pipelines: list[Pipeline]) -> list[Problem]:
    """All problems of these commands, each place once."""
    found: dict[tuple[int, int], Problem] = {}
    for command in commands:
        for rule in COMMAND_RULES:
            for problem in rule(command):
                found.setdefault((problem.start, problem.end), problem)
    for pipeline in pipelines:
        for pipeline_rule in PIPELINE_RULES:
            for problem in pipeline_rule(pipeline):
                found.setdefault((problem.start, problem.end), problem)
    return list(found.values())
