"""What is wrong, or surely not meant, with a line that has been read: the rules, in their order.

A rule is a function from a Judged to problems. Of several problems at one place the first counts,
so what is certain stands before what is only likely.
"""

from __future__ import annotations

from dowsing.commandline.judging import (
    expressions,
    misplaced,
    modes,
    operands,
    patterns,
    pipes,
    programs,
    quoting,
    slips,
    streams,
)

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable, Iterator

    from dowsing.commandline.grammar.problems import Problem
    from dowsing.commandline.model.tree import CommandNode, Line, Pipeline

#: Rules that look at one command.
COMMAND_RULES: tuple[Callable[[CommandNode], Iterator[Problem]], ...] = (
    modes.value_taken_in_cluster,
    modes.modes_apart,
    modes.one_of_needed,
    modes.depends_on_another,
    operands.unknown_keys,
    operands.wrong_operands,
    operands.missing_operands,
    misplaced.options_of_another,
    operands.missing_command,
    operands.too_many_operands,
    expressions.action_before_test,
    expressions.action_of_last_only,
    misplaced.options_behind_image,
    misplaced.letters_for_value,
    misplaced.dollars_in_double_quotes,
    misplaced.swapped,
    misplaced.number_for_file,
    misplaced.password_apart,
    programs.unfinished_programs,
    patterns.unquoted_patterns,
    patterns.history_in_quotes,
)
#: Rules that look at commands with pipes between them.
PIPELINE_RULES: tuple[Callable[[Pipeline], Iterator[Problem]], ...] = (
    streams.output_is_input,
    streams.redirection_in_test,
    pipes.neighbours_unsorted,
    pipes.units_as_numbers,
    pipes.names_with_blanks,
    pipes.file_as_command,
)
#: Rules that look at all that stands in a line.
LINE_RULES: tuple[Callable[[Line], Iterator[Problem]], ...] = (
    slips.redirected_as_user,
    slips.errors_before_output,
    slips.address_cut,
    slips.version_redirected,
    slips.blanks_around_equals,
    slips.goes_on_elsewhere,
    slips.names_from_listing,
    slips.input_taken,
)


def judge(commands: list[CommandNode], lines: list[Line], is_typed: bool = True) -> list[Problem]:
    """All problems of these commands, each place once. `lines`: those that they stand in;
    `is_typed`: they are no script, which is judged by what kind of file it is.
    """
    found: dict[tuple[int, int], Problem] = {}
    for problem in _problems(commands, lines, is_typed):
        found.setdefault((problem.start, problem.end), problem)
    return list(found.values())


def _problems(commands: list[CommandNode], lines: list[Line], is_typed: bool) -> Iterator[Problem]:
    command_rules = (*COMMAND_RULES, quoting.unsafe_when_typed) if is_typed else COMMAND_RULES
    for command in commands:
        for rule in command_rules:
            yield from rule(command)
    for pipeline in (pipeline for line in lines for pipeline in line.pipelines):
        for pipeline_rule in PIPELINE_RULES:
            yield from pipeline_rule(pipeline)
    for line in lines:
        for line_rule in LINE_RULES:
            yield from line_rule(line)
