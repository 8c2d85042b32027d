"""What the acts of a command ask for in their `when`, and the options and operands that their words
name: `-s LINK_NAME` is a link with a name.

A condition is an option (`-c|-x` for one of them), with `=VALUE` behind it one with that value; the
name of an operand, `1` or `*`, which must be there, with `=a|b*` one of these or what begins so;
`inner` for a command that it carries; `|` where it reads what comes in by a pipe, `<` where its
input comes from one or from a file; `either` where an expression has alternatives; `--` where its
options were ended. All that stand there must hold.
"""

from __future__ import annotations

import re

from dowsing.commandline.model.command import Spelling
from dowsing.commandline.model.tree import CommandNode, OperandUse, OptionUse, WordUse
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.document import Option
from dowsing.model.roles import Role
from dowsing.model.values import OperandRole

#: Options of one letter each, put together.
LETTERS = r"-[A-Za-z]{2,4}"
#: An operand that sets something, and is no comparison.
_SETTING = re.compile(r"[A-Za-z_][\w.-]*[+:?!]?=(?!=)")
EITHER = frozenset(("-o", "-or", ","))
_READ = frozenset((OperandRole.SOURCE, OperandRole.SUBJECT))


def holds(
    conditions: str, node: CommandNode, is_piped: bool = False, carries: bool = False
) -> bool:
    """Whether all of these conditions hold. `is_piped`: the command before it in a pipe feeds it;
    `carries`: what it runs is known.
    """
    return all(_holds(one, node, is_piped, carries) for one in conditions.split())


def _holds(condition: str, node: CommandNode, is_piped: bool, carries: bool) -> bool:
    if condition == "|":
        return is_piped and not inputs(node)
    if condition == "<":
        return node.is_fed
    if condition == "inner":
        return carries
    if condition == "either":
        return any(use.word.value in EITHER for use in operators(node))
    if condition == "--":
        return node.ended
    if condition[0] == "-":
        flags, _, value = condition.partition("=")
        use = use_of(node, flags)
        return use is not None and (not value or use.value == value)
    name, equals, value = condition.partition("=")
    if equals:
        return any(_is_one_of(use.word.value, value.split("|")) for use in operands(node, name))
    keyed = node.use_of(condition)  # `of=`, which has no dash
    if keyed is not None or operands(node, condition):
        return True
    return not node.operands and is_fed(node) and not condition[:1].isdecimal()


def _is_one_of(text: str, wanted: list[str]) -> bool:
    """Whether a word is one of these, or begins with one that ends in a star."""
    return any(
        text == one or (one[-1:] == "*" and text.startswith(one[:-1]) and text != one[:-1])
        for one in wanted
    )


def use_of(node: CommandNode, flags: str) -> OptionUse | None:
    """The use of one of these options, `-a|--all`, also of a command that no page here tells of."""
    names = flags.split("|")
    use = node.use_of(*names)
    if use is not None:
        return use
    for one in node.uses:
        if not isinstance(one, WordUse) or one.role != Role.OPTION:
            continue
        flag = next((flag for flag in _flags_of(one, node) if flag in names), "")
        if flag:
            value = one.value.word.value if one.value is not None else None
            loose = OptionUse(flag, Spelling(flag, Option([flag]), ""), one.word, value)
            loose.values = [one.value] if one.value is not None else []
            return loose
    return None


def _flags_of(use: WordUse, node: CommandNode) -> list[str]:
    """The options in a word that no page here tells of: itself, or letters that our facts know."""
    word = use.word.value
    letters = [f"-{letter}" for letter in word[1:]] if re.fullmatch(LETTERS, word) else []
    known = node.known.facts.adds
    return [word, *(letters if all(one in known for one in letters) else [])]


def is_fed(node: CommandNode) -> bool:
    """Whether its operands come from the command that carries it, as those of xargs do."""
    return node.carrier is not None and node.carrier.is_of(CommandClass.FEEDS)


def operators(node: CommandNode) -> list[WordUse]:
    """The operators of a command's own expression, as find has them."""
    return [use for use in node.uses if isinstance(use, WordUse) and use.role == Role.OPERATOR]


def inputs(node: CommandNode) -> list[OperandUse]:
    """The operands that it reads."""
    read = [use for use in node.operands if use.slot is not None and use.slot.role in _READ]
    if not node.is_of(CommandClass.TAKES_SETTINGS):
        return read
    return [use for use in read if not _SETTING.match(use.word.value)]


def operands(node: CommandNode, name: str) -> list[OperandUse]:
    """The operands that a name of a text stands for."""
    uses = node.operands
    if name == "*":
        return uses
    if name in ("names", "settings"):
        is_setting = name == "settings"
        return [use for use in uses if bool(_SETTING.match(use.word.value)) == is_setting]
    if name == "-1":
        return uses[-1:]
    counted = re.fullmatch(r"(\d)(-?)", name)
    if counted:
        first = int(counted[1]) - 1
        return uses[first:] if counted[2] else uses[first : first + 1]
    return [use for use in uses if use.slot is not None and use.slot.name == name]
