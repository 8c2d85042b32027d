"""The words of acts with what stands in a line in their places."""

from __future__ import annotations

import re

from dowsing.commandline.languages.held import read_held
from dowsing.commandline.languages.value_language import (
    LanguageValue,
    language_of_operand,
    language_of_option,
)
from dowsing.commandline.meaning.binding import (
    AS_IT_STANDS,
    PROGRAMS,
    Carried,
    Expression,
    OneWord,
    Operands,
    Source,
    Text,
    Them,
    Values,
    joined_program,
    option_value,
    said_of,
)
from dowsing.render.clause_text import SHOWN, listed_words, pattern_words, shown

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.meaning.binding import Bound, Tested
    from dowsing.commandline.model.tree import CommandNode, OperandUse, OptionUse

_JOINTS = {"-o": "or", "-or": "or", "-a": "and", "-and": "and", ",": "or", "(": "(", ")": ")"}
#: What is counted in the texts of facts.
_COUNTED = re.compile(
    r" (level|line|time|folder|field|byte|block|character|job|thread|commit|second|picture|file)s\b"
)
_BEFORE_ONE = ("the first ", "the last ")
#: Values that are told by a name, which needs no quotes around it.
_NAMED = frozenset(one for one in SHOWN.values() if one.startswith("a "))


class BoundTeller:
    """Puts what is bound to the texts of a command into words. `inner`: what those do that it
    carries, `source`: what it reads in the place of its input, in words.
    """

    def __init__(self, node: CommandNode, inner: str = "", source: str = "") -> None:
        self.node, self.inner, self.source = node, inner, source

    def words(self, bound: list[Bound]) -> str:
        """All of it."""
        said = [self.one(one) for one in bound]
        is_text = [isinstance(one, Text) for one in bound]
        for n, one in enumerate(said):
            if is_text[n] and one != "1":
                continue
            before = said[n - 1] if n and is_text[n - 1] else ""
            behind = said[n + 1] if n + 1 < len(said) and is_text[n + 1] else ""
            if one == "1" and _COUNTED.match(behind):  # the text has room for any number
                said[n + 1] = _COUNTED.sub(r" \1", behind, count=1)
                said[n] = "" if before.endswith(_BEFORE_ONE) else one
                said[n + 1] = said[n + 1][1:] if not said[n] else said[n + 1]
            if one in _NAMED and before.endswith("“") and behind.startswith("”"):
                said[n - 1], said[n + 1] = before[:-1], behind[1:]
        return "".join(said)

    def one(self, bound: Bound) -> str:
        """One place, or the words between places."""
        if isinstance(bound, Text):
            return bound.text
        if isinstance(bound, Values):
            return self.values(bound)
        if isinstance(bound, Operands):
            told = [self.operand(use, bound.how) for use in bound.uses]
            return " ".join(told) if bound.how == "~" else listed_words(told)
        if isinstance(bound, OneWord):
            return shown(bound.word)
        if isinstance(bound, Expression):
            return self.expression(bound)
        if isinstance(bound, Carried):
            return self.inner
        if isinstance(bound, Source):
            return self.source
        return "them" if isinstance(bound, Them) else "what comes in"

    def values(self, bound: Values) -> str:
        """The values of an option."""
        uses = bound.uses
        language = language_of_option(self.node, uses[0])
        if len(uses) > 1 and language.startswith(PROGRAMS):  # several programs make one
            return said_of(joined_program(uses, language))
        joint = " or " if language.startswith("regex") else " and "
        return joint.join(dict.fromkeys(self.value(one, bound.how) for one in uses))

    def value(self, use: OptionUse, how: str = "") -> str:
        """The value of an option, in words where it is in a small language."""
        language = language_of_option(self.node, use) if how not in AS_IT_STANDS else ""
        if language and use.value:
            said = in_language(option_value(use, language), how)
            if said:
                return said
        plain = shown(use.value_words[0]) if len(use.values) == 1 else use.value or ""
        return SHOWN.get(plain, plain)

    def operand(self, use: OperandUse, how: str) -> str:
        """An operand, in words where it is in a small language."""
        language = language_of_operand(self.node, use) if how not in AS_IT_STANDS else ""
        if language:
            said = in_language(LanguageValue(language, use.word.value, use.word, use), how)
            if said:
                return said
        told = self.node.known.facts.languages.get(use.slot.name, "") if use.slot else ""
        is_in_words = not language and how not in AS_IT_STANDS
        if told.startswith("regex") and is_in_words:  # taken as it stands
            return pattern_words(shown(use.word), how == "!")
        return shown(use.word)

    def expression(self, bound: Expression) -> str:
        """What the tests of an expression ask for."""
        said: list[str] = []
        for one in bound.tests:
            joint = _JOINTS.get(one, "") if isinstance(one, str) else ""
            may_follow = not said or said[-1] in _JOINTS.values()
            if not may_follow and (joint == "(" or not isinstance(one, str)):
                said.append("and")
            if isinstance(one, str):
                said += [joint] if joint else []
            else:
                said.append(self.tested(one))
        return " ".join(said).replace("( ", "(").replace(" )", ")")

    def tested(self, test: Tested) -> str:
        """One test."""
        said = self.words(test.said) if test.said is not None else as_typed(test.use)
        return f"not {said}" if test.negated else said


def in_language(value: LanguageValue, how: str) -> str:
    """A value in the words of its language, "" if it has none."""
    if not value.language.startswith("regex"):
        return said_of(value)
    reading = read_held(value)
    if how == "!":
        return reading.contrary or f"not matching {shown(value.word)}"
    return reading.says or f"matching {shown(value.word)}"


def as_typed(use: OptionUse) -> str:
    """An option as it stands, with its value."""
    if use.value is None:
        return use.flag
    value = use.raw_value or use.value
    return f"{use.flag}={value}" if use.flag[:2] == "--" else f"{use.flag} {value}"
