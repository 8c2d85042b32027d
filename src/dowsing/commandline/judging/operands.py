"""Operands: those that lack, those that are too many, and those that cannot be right."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import Lack, ProblemCode
from dowsing.commandline.judging.certainty import adds_operands, is_unsure, tells_only
from dowsing.commandline.judging.value_checks import is_misspelled
from dowsing.model.nearness import nearest_words
from dowsing.model.told import told
from dowsing.model.value_kinds import SIGNALS, ValueKind, WrongValue, wrong_kind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.model.command import Command
    from dowsing.commandline.model.tree import CommandNode, OperandUse

#: Kinds whose values are told from others by their shape alone.
_SHAPED = frozenset(
    (ValueKind.MODE, ValueKind.DURATION, ValueKind.SIGNAL, ValueKind.SIZE, ValueKind.NUMBER)
)
_KEY = re.compile(r"[A-Za-z_][\w-]*(?==)")


def missing_operands(node: CommandNode) -> Iterator[Problem]:
    """Operands that the form which fits best demands, where it is sure that they do not come."""
    # a form of a page may leave out that something may be left out: only facts are sure
    if not node.lacking or not node.known.facts.forms or tells_only(node):
        return
    if node.wanting is not None or adds_operands(node) or node.is_lost or node.ends_early:
        return
    if node.carried or any(is_unsure(use.word) for use in node.operands):
        return
    if any(flag not in node.known.facts.adds for flag in node.unknown):
        return  # it may be the one that makes another form of it
    names = [slot.name for slot in node.lacking]
    reason = told(ProblemCode.MISSING_OPERAND, node.known.words, " ".join(names))
    yield Problem(node.name.start, _end_of(node), reason)


def _end_of(node: CommandNode) -> int:
    """Where the last word of a command ends."""
    words = [node.name, *(use.word for use in node.uses)]
    words += [word for use in node.used for word in use.value_words]
    return max(word.end for word in words)


def missing_command(node: CommandNode) -> Iterator[Problem]:
    """A command that only runs another, without one."""
    if not node.is_carrier_alone or tells_only(node) or node.wanting is not None or node.is_lost:
        return
    if adds_operands(node) or any(is_unsure(use.word) for use in node.operands):
        return
    reason = told(ProblemCode.MISSING_OPERAND, node.known.words, told(Lack.COMMAND_TO_RUN))
    yield Problem(node.name.start, _end_of(node), reason)


def too_many_operands(node: CommandNode) -> Iterator[Problem]:
    """Operands for which no form has a place; only where our facts tell the forms."""
    if not node.known.facts.forms or node.is_lost or node.ends_early or node.carried:
        return
    if node.unknown or any(is_unsure(use.word) for use in node.operands):
        return  # an option that nothing tells of may have it for its value
    for use in node.surplus[:1]:
        reason = told(ProblemCode.EXTRA_OPERAND, node.known.words)
        yield Problem(use.word.start, use.word.end, reason)


def wrong_operands(node: CommandNode) -> Iterator[Problem]:
    """Operands that cannot be what their place in the form asks for."""
    if node.known.facts.keyed:
        return
    for use in node.operands:
        if is_unsure(use.word):  # it may become several words: what follows has other places
            return
        problem = _wrong_operand(node.known, use)
        if problem is not None:
            yield problem


def _wrong_operand(known: Command, use: OperandUse) -> Problem | None:
    slot, word = use.slot, use.word
    if slot is None or is_unsure(word) or slot.kind not in (*_SHAPED, ValueKind.CHOICE):
        return None
    certain = slot.name in known.facts.operands
    if slot.kind == ValueKind.CHOICE:
        if not certain or word.value in slot.choices:
            return None
        nearest = nearest_words(word.value, slot.choices)
        if not slot.closed and not is_misspelled(word.value, slot.choices):
            return None
        some = ", ".join(slot.choices[:6])
        more = ", …" if len(slot.choices) > 6 else ""
        reason = told(ProblemCode.NOT_ALLOWED, some + more)
        return Problem(word.start, word.end, reason, nearest)
    if not certain and not _is_told_by_its_name(known, slot.kind):
        return None
    units = rf"[-+]?\d[\d.]*[A-Za-z]*(?<![{slot.units}\d.])"
    if slot.units and re.fullmatch(units, word.value):
        return Problem(
            word.start, word.end, told(ProblemCode.WRONG_VALUE, told(WrongValue.NO_UNIT))
        )
    wrong = wrong_kind(slot.kind, word.value)
    if wrong is None:
        return None
    nearest = nearest_words(word.value, SIGNALS) if slot.kind == ValueKind.SIGNAL else []
    return Problem(word.start, word.end, told(ProblemCode.WRONG_VALUE, told(wrong)), nearest)


def _is_told_by_its_name(known: Command, kind: ValueKind) -> bool:
    """Whether the placeholder of a page is plain enough: MODE, DURATION, SIGNAL of a program
    without subcommands.
    """
    return known.parent is None and kind not in (ValueKind.SIZE, ValueKind.NUMBER)


def unknown_keys(node: CommandNode) -> Iterator[Problem]:
    """`KEY=VALUE` operands whose key the command does not have."""
    if not node.known.facts.keyed:
        return
    keys = [flag for flag in node.known.spellings if flag[:1].isalpha()]
    for use in node.operands:
        if is_unsure(use.word):
            continue
        key = _KEY.match(use.word.value)
        word = key[0] if key else use.word.value
        reason = told(ProblemCode.UNKNOWN_KEY, node.known.words, word)
        yield Problem(use.word.start, use.word.end, reason, nearest_words(word, keys, least=0.5))
