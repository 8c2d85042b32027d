"""Patterns and programs that the shell would take apart before the command gets them."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import Grade, ProblemCode
from dowsing.commandline.languages.value_language import language_of_option
from dowsing.commandline.model.tree import OperandUse, OptionUse
from dowsing.model.told import told
from dowsing.model.value_kinds import ValueKind
from dowsing.model.values import OperandRole

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.tree import CommandNode

_STAR = re.compile(r"(?<!\\)[*?]|(?<!\\)\[[^\]]+\]")
_PATTERNS = frozenset((ValueKind.GLOB, ValueKind.PATTERN))
#: Languages in which signs of patterns are usual.
_PROGRAMS = ("awk", "jq", "sed", "regex", "sql", "sort-key")


def unquoted_patterns(node: CommandNode) -> Iterator[Problem]:
    """A pattern for the command that the shell may replace by names of files."""
    for word in _pattern_words(node):
        if not word.quoted and not word.dynamic and _STAR.search(word.text):
            quoted = "'" + word.text + "'"
            reason = told(ProblemCode.UNQUOTED_PATTERN, node.known.words)
            yield Problem(word.start, word.end, reason, [quoted], Grade.WARNING)


#: What a shell at a prompt takes for the beginning of a line that was run before.
_HISTORY = re.compile(r"(?<![\\$\[{!])![A-Za-z\d?-][^\s\"]*")


def history_in_quotes(node: CommandNode) -> Iterator[Problem]:
    """`"foo!bar"`: at a prompt double quotes do not keep the shell from looking for a line."""
    for word in _all_words(node):
        if "!" not in word.text:
            continue
        for quoted in re.finditer(r'"(?:[^"\\]|\\.)*"', word.text):
            found = _HISTORY.search(quoted[0])
            if found and _outside_quotes(word.text, quoted.start()):
                reason = told(ProblemCode.HISTORY, found[0])
                yield Problem(word.start, word.end, reason, grade=Grade.WARNING)


def _outside_quotes(text: str, place: int) -> bool:
    """Whether no single quote is open at a place."""
    return text[:place].count("'") % 2 == 0


def _all_words(node: CommandNode) -> Iterator[Word]:
    for use in node.uses:
        yield use.word
        if isinstance(use, OptionUse):
            yield from use.value_words


def _pattern_words(node: CommandNode) -> Iterator[Word]:
    """The words that our facts call patterns or programs."""
    for use in node.uses:
        if isinstance(use, OptionUse):
            fact = use.spelling.fact
            is_pattern = fact is not None and fact.kind in _PATTERNS
            if is_pattern or language_of_option(node, use).startswith(_PROGRAMS):
                yield from use.value_words
        elif isinstance(use, OperandUse) and use.slot is not None:
            slot = use.slot
            is_pattern = slot.role in (OperandRole.PATTERN, OperandRole.PROGRAM)
            if is_pattern and slot.name in node.known.facts.operands:
                yield use.word
