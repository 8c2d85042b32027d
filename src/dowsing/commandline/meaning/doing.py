"""What a command of a line does: the act of its facts that covers best what stands there."""

from __future__ import annotations

import re

from dowsing.commandline.judging.certainty import ABOUT_ITSELF, is_for_looking, looks_only
from dowsing.commandline.meaning.binding import Binder, MissingError, Text, adds
from dowsing.commandline.meaning.conditions import EITHER, LETTERS, holds, operators
from dowsing.commandline.meaning.nodes import Added, Doing
from dowsing.commandline.model.tree import CommandNode, OptionUse, WordUse
from dowsing.knowledge.command_facts import is_action, is_close, without_joint
from dowsing.model.roles import Role
from dowsing.model.values import OperandRole

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.meaning.binding import Bound, Given
    from dowsing.commandline.meaning.nodes import Sequence
    from dowsing.knowledge.command_facts import Act


def doing_of(node: CommandNode, given: Given, carried: list[Doing], lines: list[Sequence]) -> Doing:
    """What a command does. `carried`, `lines`: what it runs does."""
    takes_them = any(one.takes_them for one in carried)
    bare = Doing(
        node,
        given,
        looks=looks_only(node),
        carried=carried,
        lines=lines,
        takes_them=takes_them,
        on_last=_acts_on_last(node),
    )
    if node.is_lost:  # its subcommand is a mistake
        return bare
    for flag, tells in ABOUT_ITSELF.items():
        if node.use_of(flag) is not None or flag in node.unknown:
            return bare.changed(tells=tells)
    second_best: Doing | None = None
    for act in node.known.facts.clauses:
        found = _bound(act, bare) if holds(act.when, node, given.piped, given.carries) else None
        if found is None:
            continue
        if second_best is not None and _loses(second_best) and not _loses(found):
            return second_best  # a word left over weighs less than what is lost
        if found.covers_all:
            return found
        second_best = second_best or found
    return second_best or bare


def _loses(doing: Doing) -> bool:
    """Whether the act has an effect."""
    return doing.act is not None and doing.act.effect is not None


def _bound(act: Act, bare: Doing) -> Doing | None:
    """The command with that act, None where something that its words need is not there."""
    binder = Binder(bare.node, bare.given)
    binder.take_condition(act.when)
    try:
        said = binder.bind(act.says)
    except MissingError:
        return None
    untold = [
        use
        for use in bare.node.operands
        if id(use) not in binder.told and not use.lines
        if use.slot is None or use.slot.role is not OperandRole.PROGRAM
    ]
    return bare.changed(
        act=act,
        said=said,
        untold=untold,
        added=_added(bare, binder),
        names_source=binder.names_source,
        takes_them=bare.takes_them or binder.takes_them,
    )


def _acts_on_last(node: CommandNode) -> bool:
    """Whether the actions of an expression are for the last of its alternatives alone."""
    depth, found = 0, False
    for use in operators(node):
        depth += {"(": 1, ")": -1}.get(use.word.value, 0)
        found = found or (not depth and use.word.value in EITHER)
    return found


def _added(bare: Doing, binder: Binder) -> list[Added]:
    """What the options add that were not told yet."""
    found: list[Added] = []
    for use in bare.node.uses:
        if isinstance(use, OptionUse):
            found += _added_by(use, bare, binder)
        elif isinstance(use, WordUse) and use.role == Role.OPTION and use.word.value != "--":
            is_told = id(use.word) in binder.told or _flag_of(use) in binder.condition
            found += [] if is_told else _loose(bare, use)
    return found


def _added_by(use: OptionUse, bare: Doing, binder: Binder) -> list[Added]:
    """What one option adds, [] if it was told already or need not be."""
    node = bare.node
    text = adds(node.known, use)
    is_condition = bool(binder.condition & {use.flag, *use.spelling.option.flags})
    if not text and is_for_looking(use, node) and not is_condition:
        return [] if id(use) in binder.told else [Added(use, looks=True)]
    if id(use) in binder.told:
        return []
    if text is None:  # an act that is for it has told it
        return [] if is_condition else [Added(use)]
    said = binder.option_said(use, without_joint(text))
    if said is None:
        return [Added(use)]
    return [_joined(use, text, said, bare)] if said else []


def _joined(use: OptionUse | WordUse, text: str, said: list[Bound], bare: Doing) -> Added:
    """What an option adds, with how its text joins it to the act."""
    is_beside = is_action(text)
    on_last = is_beside and bare.on_last
    return Added(use, said, is_beside=is_beside, on_last=on_last, is_close=is_close(text))


def _flag_of(use: WordUse) -> str:
    """The spelling of an option that no page here tells of."""
    return use.word.value.partition("=")[0]


def _loose(bare: Doing, use: WordUse) -> list[Added]:
    """What an option adds that no page here tells of, but our facts: alone or as letters."""
    node = bare.node
    text = use.word.value
    letters = [f"-{letter}" for letter in text[1:]] if re.fullmatch(LETTERS, text) else []
    for flags in ([text], letters):
        said = [node.known.facts.adds.get(flag) for flag in flags]
        if flags and all(one is not None and "{" not in one for one in said):
            told = [_joined(use, one, [Text(without_joint(one))], bare) for one in said if one]
            return told or ([Added(use, looks=True)] if is_for_looking(use, node) else [])
    return [Added(use, looks=is_for_looking(use, node))]
