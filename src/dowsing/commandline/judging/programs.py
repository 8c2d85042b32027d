"""Programs in the inner languages of a line that are not whole."""

from __future__ import annotations

from dowsing.commandline.certainty import has_slot
from dowsing.commandline.problems import Problem
from dowsing.commandline.sayings import ProblemCode
from dowsing.commandline.tree import OperandUse, OptionUse
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.shell_words import Word
    from dowsing.commandline.tree import CommandNode


def unfinished_programs(node: CommandNode) -> Iterator[Problem]:
    """Programs of sed, awk and jq, and patterns, that their readers would refuse."""
    for word, language in _programs(node):
        if word.dynamic or not word.value or has_slot(word.value):
            continue
        from dowsing.commandline.languages import checking

        fault = checking.fault_in(_dialect(node, language), word.value)
        if fault is not None:
            is_key = fault.code is checking.ProgramFault.NO_SORT_KEY
            code = ProblemCode.WRONG_VALUE if is_key else ProblemCode.PROGRAM_FAULT
            yield Problem(word.start, word.end, told(code, fault))


def _programs(node: CommandNode) -> Iterator[tuple[Word, str]]:
    """The words that are written in a language, with its name."""
    for use in node.uses:
        if isinstance(use, OptionUse):
            fact = use.spelling.fact
            if fact is not None and fact.language:
                for word in use.value_words:
                    yield word, fact.language
        elif isinstance(use, OperandUse) and use.slot is not None and use.slot.language:
            yield use.word, use.slot.language


def _dialect(node: CommandNode, language: str) -> str:
    """The dialect of a regular expression that the options choose."""
    if language != "regex":
        return language
    if node.use_of("-F", "--fixed-strings"):
        return ""
    if node.use_of("-P", "--perl-regexp"):
        return "regex-perl"
    extended = node.use_of("-E", "-r", "--extended-regexp", "--regexp-extended")
    return "regex-extended" if extended is not None else "regex-basic"
