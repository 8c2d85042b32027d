"""Options that rule each other out, groups of which one must be there, and letters whose order
matters.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import Grade, ProblemCode
from dowsing.commandline.judging.certainty import is_unsure, tells_only
from dowsing.model.told import told
from dowsing.model.value_kinds import FILE_KINDS

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.model.tree import CommandNode, OptionUse

_LETTERS = re.compile(r"[A-Za-z]{1,3}\Z")


def modes_apart(node: CommandNode) -> Iterator[Problem]:
    """Two options of a group of which only one may be there."""
    for group in node.known.facts.apart:
        found: dict[int, OptionUse] = {}
        for use in node.used:
            if any(flag in group for flag in (use.flag, *use.spelling.option.flags)):
                found.setdefault(id(use.spelling.option), use)
        if len(found) < 2:
            continue
        first, second = list(found.values())[:2]
        reason = told(ProblemCode.EXCLUDES, second.flag, first.flag)
        yield Problem(second.word.start, second.word.end, reason)


def one_of_needed(node: CommandNode) -> Iterator[Problem]:
    """A group of options one of which must be there, and none is."""
    if not node.known.tables:  # what its options are is not known here
        return
    if tells_only(node) or node.is_lost or node.unknown:
        return
    if any(is_unsure(use.word) for use in node.operands if use.word.value[:1] in ("$", "-")):
        return
    for group in node.known.facts.needs:
        if node.use_of(*group) is None:
            reason = told(ProblemCode.NEEDS_ONE_OF, node.known.words, ", ".join(group))
            yield Problem(node.name.start, node.name.end, reason)


def depends_on_another(node: CommandNode) -> Iterator[Problem]:
    """An option that does nothing, or is refused, without another that is not there."""
    if tells_only(node) or node.unknown or any(one_of_needed(node)):
        return
    for one in node.known.facts.only_with:
        use = node.use_of(*one.flags)
        if use is not None and node.use_of(*one.others) is None:
            reason = told(ProblemCode.ONLY_WITH, use.flag, " or ".join(one.others))
            yield Problem(use.word.start, use.word.end, reason, grade=Grade.WARNING)


def value_taken_in_cluster(node: CommandNode) -> Iterator[Problem]:
    """`-xzfv a.tgz`: an option that wants a file in the middle of letters takes the letters after
    it for the file.
    """
    for use in node.used:
        if use.value is None or use.value_words or not _LETTERS.match(use.value):
            continue
        if use.word.value[:1] != "-" or use.word.value[1:2] in (use.flag[1:], "-"):
            continue
        if len(use.flag) != 2 or not use.word.value.endswith(use.value):
            continue
        letters = all(node.known.spelling("-" + letter) for letter in use.value)
        if letters and use.spelling.kind in FILE_KINDS:
            reason = told(ProblemCode.LETTERS_AS_VALUE, use.flag, use.value)
            yield Problem(use.word.start, use.word.end, reason, grade=Grade.WARNING)
