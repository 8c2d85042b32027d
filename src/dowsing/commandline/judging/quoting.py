"""What is quoted so that it may go wrong: expansions that the shell takes apart into words."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import Grade, ProblemCode
from dowsing.commandline.model.tree import CommandNode, OperandUse
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.grammar.shell_words import Word

#: Expansions that are numbers, and cannot be taken apart.
_NUMBERS = re.compile(r"\$(?:[#?$!]|\{#\w+(?:\[[@*]\])?\}|\(\(.*\)\))")
_ROOT = re.compile(r"\"?\$\{?(\w+)\}?\"?/(?:\*|\Z)")


def unsafe_words(node: CommandNode, harmful: bool) -> Iterator[Problem]:
    """Words of a command that the shell may make several of, or none. `harmful`: the command
    removes, overwrites or moves what it is given.
    """
    is_test = node.is_of(CommandClass.TEST)
    if not harmful and not is_test:
        return
    for use in node.uses:
        word = use.word
        if not isinstance(use, OperandUse) and not is_test:
            continue
        if harmful and (root := _ROOT.fullmatch(word.text)) and "r" in _letters(node):
            code = ProblemCode.EMPTY_IS_ROOT
            yield Problem(word.start, word.end, told(code, root[1]), grade=Grade.WARNING)
        elif _is_bare(word):
            reason = told(ProblemCode.UNQUOTED_EXPANSION, word.text)
            yield Problem(word.start, word.end, reason, [f'"{word.text}"'], Grade.WARNING)


def unsafe_when_typed(node: CommandNode) -> Iterator[Problem]:
    """The same of a line that is not in a script, where its command removes or moves files."""
    if node.is_of(CommandClass.LOSES_FILES):
        yield from unsafe_words(node, True)


def _letters(node: CommandNode) -> str:
    return "".join(use.flag.lstrip("-") for use in node.used).lower()


def _is_bare(word: Word) -> bool:
    """Whether an expansion stands in it that no quotes keep together."""
    if not word.dynamic or word.quoted or not word.placed:
        return False
    return _NUMBERS.sub("", word.text).count("$") + word.text.count("`") > 0
