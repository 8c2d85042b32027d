"""Programs and other values in the inner languages of a line that their readers would refuse."""

from __future__ import annotations

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import ProblemCode
from dowsing.commandline.judging.certainty import has_slot
from dowsing.commandline.languages.value_language import language_values
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.languages.value_language import LanguageValue
    from dowsing.commandline.model.tree import CommandNode


def unfinished_programs(node: CommandNode) -> Iterator[Problem]:
    """Values that are not whole: a program, a pattern, a key."""
    for value in language_values(node):
        if value.word.dynamic or not value.value or has_slot(value.value):
            continue
        from dowsing.commandline.languages import read_value
        from dowsing.commandline.languages.reading import LanguageFault

        fault = read_value(value.language, value.value).fault
        if fault is None:
            continue
        is_key = fault.reason.code is LanguageFault.NO_SORT_KEY
        code = ProblemCode.WRONG_VALUE if is_key else ProblemCode.PROGRAM_FAULT
        start, end = _place(value, fault.start, fault.end)
        yield Problem(start, end, told(code, fault.reason))


def _place(value: LanguageValue, start: int, end: int) -> tuple[int, int]:
    """The place of a fault in the line; all of the word where it cannot be told more closely."""
    word = value.word
    at = word.text.find(value.value) if word.placed else -1
    if at < 0:
        return word.start, word.end
    return word.start + at + start, word.start + at + end
