"""Fills the texts of facts with what stands in a line."""

from __future__ import annotations

import re

from dowsing.commandline.judging.certainty import is_for_looking
from dowsing.commandline.languages.held import read_held
from dowsing.commandline.languages.value_language import (
    LanguageValue,
    language_of_operand,
    language_of_option,
)
from dowsing.commandline.meaning.conditions import inputs, is_fed, operands, use_of
from dowsing.commandline.model.tree import CommandNode, OperandUse, OptionUse, WordUse
from dowsing.knowledge.command_facts import PLACE
from dowsing.model.roles import Role
from dowsing.model.values import OperandRole
from dowsing.render.clause_lookup import Given, acts_on_last
from dowsing.render.clause_text import LONGEST, SHOWN, denied, listed_words, pattern_words, shown

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Command

_JOINTS = {"-o": "or", "-or": "or", "-a": "and", "-and": "and", ",": "or", "(": "(", ")": ")"}
_NOT = frozenset(("!", "-not"))
_OPTIONAL = re.compile(r"\[([^\[\]]*)\]")
_PLACE = re.compile(PLACE)
_PROGRAMS = ("sed", "awk", "jq")
ONLY_LOOKS = "only to see what it would do"


class Missing(Exception):
    """Something that a text needs is not there."""


class Filler:
    """Fills the texts of one command. `told`: the options and operands that were told."""

    def __init__(self, node: CommandNode, given: Given) -> None:
        self.node = node
        self.given = given
        self.told: set[int] = set()
        self.condition: set[str] = set()  # what the text is for

    def tell_values(self, condition: str) -> None:
        """A text for an option or operand with a certain value, `-x=l`, tells that value itself."""
        self.condition = {flag for one in condition.split() for flag in one.split("|")}
        for one in condition.split():
            name, equals, _ = one.partition("=")
            if not equals:
                continue
            if name[:1] != "-":
                self.told |= {id(use) for use in operands(self.node, name)}
                continue
            use = use_of(self.node, name)
            self.told |= {id(use), id(use.word)} if use is not None else set()

    def fill(self, text: str) -> str:
        """A text with all its places filled. Raises Missing if one cannot be."""
        for _, name, instead in _PLACE.findall(text):  # `{adds}` is what these leave
            for one in (name, instead):
                use = use_of(self.node, one) if one[:1] == "-" else None
                self.told |= {id(use), id(use.word)} if use is not None else set()

        def optional(match: re.Match[str]) -> str:
            try:
                return self.places(match[1])
            except Missing:
                return ""

        return self.places(_OPTIONAL.sub(optional, text))

    def places(self, text: str) -> str:
        """The places that stand in no brackets."""
        return _PLACE.sub(self.place, text)

    def place(self, match: re.Match[str]) -> str:
        how, name, instead = match.groups()
        found = self.named(name, how)
        if found is None and instead is not None:
            found = self.otherwise(instead.split("|"), how)
            if instead == "its input" and self.given.piped:
                found = "what comes in"
        if found is None:
            raise Missing
        return found

    def otherwise(self, instead: list[str], how: str) -> str | None:
        """The first of several options that is there, or the text behind them."""
        for name in instead:
            found = self.named(name, how) if name[:1] == "-" else name
            if found is not None:
                return found
        return None

    def named(self, name: str, how: str) -> str | None:
        """What a name stands for, None if there is nothing."""
        if name in ("inner", "line"):
            found = self.given.inner if name == "inner" else self.given.line
            return found or None
        if name == "in":
            return self.input()
        if name == "adds":
            return self.expression()
        if (name[0] == "-" and name != "-1") or self.node.use_of(name) is not None:
            return self.option(name, how)
        uses = operands(self.node, name)
        if not uses:
            return self.fed() if is_fed(self.node) and not self.node.operands else None
        self.told |= {id(use) for use in uses}
        return listed_words([self.operand(use, how) for use in uses])

    def expression(self) -> str | None:
        """What the tests of an expression ask for, in order."""
        said: list[str] = []
        negated = False
        for use in self.node.uses:
            if isinstance(use, WordUse) and use.role == Role.OPERATOR:
                negated = negated or use.word.value in _NOT
                joint = _JOINTS.get(use.word.value, "")
                if joint == "(" and said and said[-1] not in _JOINTS.values():
                    said.append("and")
                said += [joint] if joint else []
                continue
            text = adds(self.node.known, use) if isinstance(use, OptionUse) else None
            if not isinstance(use, OptionUse) or id(use) in self.told or text is None:
                continue
            if text.startswith("and ") or not text:
                continue  # an action
            test = _option_said(use, text, self)
            if said and said[-1] not in _JOINTS.values():
                said.append("and")
            said.append(f"not {test}" if negated else test)
            negated = False
            self.told.add(id(use))
        return " ".join(said).replace("( ", "(").replace(" )", ")") if any(said) else None

    def input(self) -> str | None:
        """What it reads, None where that is its input."""
        uses = inputs(self.node)
        if not uses and not any(use.slot is not None for use in self.node.operands):
            uses = self.node.operands
        self.told |= {id(use) for use in uses}
        if uses:
            return listed_words([self.operand(use, "=") for use in uses])
        if is_fed(self.node):
            return self.fed()
        self.given.has_source = self.given.has_source or bool(self.given.source)
        return self.given.source or None

    def fed(self) -> str:
        """What the command that carries it puts in: from its source, or what came before."""
        self.given.has_source = self.given.has_source or bool(self.given.source)
        self.given.takes_them = self.given.takes_them or not self.given.source
        return self.given.source or "them"

    def option(self, name: str, how: str) -> str | None:
        use = use_of(self.node, name)
        if use is None or use.value is None:
            return None
        option = use.spelling.option
        same = [one for one in self.node.used if one.spelling.option is option] or [use]
        language = language_of_option(self.node, use)
        self.told |= {id(one) for one in same} | {id(use.word)}
        if len(same) > 1 and language.startswith(_PROGRAMS):  # several programs make one
            return self.joined_program(same, language, how)
        joint = " or " if language.startswith("regex") else " and "
        return joint.join(dict.fromkeys(self.value(one, how) for one in same if one.value))

    def joined_program(self, uses: list[OptionUse], language: str, how: str) -> str:
        """A program whose lines stand in several values."""
        text = "\n".join(one.value or "" for one in uses)
        word = next((one.word for one in uses if one.word.dynamic), uses[0].word)
        said = self.in_language(LanguageValue(language, text, word, uses[0]), how)
        if not said:
            raise Missing
        return said

    def value(self, use: OptionUse, how: str = "") -> str:
        """The value of an option, in words where it is in a small language."""
        language = language_of_option(self.node, use) if how != "=" else ""
        word = use.value_words[0] if len(use.value_words) == 1 else use.word
        plain = shown(word) if use.value_words and len(use.value_words) == 1 else use.value or ""
        if language and use.value:
            said = self.in_language(LanguageValue(language, use.value, word, use), how)
            if said:
                return said
            if language.startswith(_PROGRAMS):
                raise Missing  # it is not put into words
        return SHOWN.get(plain, plain)

    def operand(self, use: OperandUse, how: str) -> str:
        language = language_of_operand(self.node, use) if how != "=" else ""
        if language:
            value = LanguageValue(language, use.word.value, use.word, use)
            said = self.in_language(value, how)
            if said:
                return said
        if use.slot is not None and use.slot.role is OperandRole.PROGRAM and how != "=":
            raise Missing  # a program that is not put into words
        told = self.node.known.facts.languages.get(use.slot.name, "") if use.slot else ""
        if told.startswith("regex") and not language and how != "=":  # taken as it stands
            return pattern_words(shown(use.word), how == "!")
        return shown(use.word)

    def in_language(self, value: LanguageValue, how: str) -> str:
        """A value in the words of its language, "" if it has none."""
        reading = read_held(value)
        base = value.language.partition("-")[0]
        if base == "regex":
            says = reading.says or f"matching {shown(value.word)}"
            return denied(says) if how == "!" else says
        longest = LONGEST * (4 if base in _PROGRAMS else 2)
        return reading.says if len(reading.says) <= longest else ""

    def option_text(self, use: OptionUse, text: str) -> str:
        """What an option adds, its value put in."""

        def place(match: re.Match[str]) -> str:
            how, name, _ = match.groups()
            if name.isdecimal():  # the first or second of two values
                words = use.value_words[int(name) - 1 : int(name)]
                if not words:
                    raise Missing
                return shown(words[0])
            if name:
                return self.place(match)
            if use.value is None:
                raise Missing
            return self.value(use, how)

        said = _PLACE.sub(place, text)
        return re.sub(r"“(a (?:space|tab|new line|null character))”", r"\1", said)

    def untold(self) -> str:
        """The operands that the text leaves out, in a row."""
        left = [
            use
            for use in self.node.operands
            if id(use) not in self.told and not use.lines
            if use.slot is None or use.slot.role is not OperandRole.PROGRAM
        ]
        return listed_words([shown(use.word) for use in left])


def adds(known: Command, use: OptionUse) -> str | None:
    """What an option adds by our facts, None if these do not tell."""
    is_off = use.spelling.turned_off_by(use.flag)
    flags = [f"{use.flag}={use.value}", use.flag, *([] if is_off else use.spelling.option.flags)]
    owner: Command | None = known
    while owner is not None:
        for flag in flags:
            if flag in owner.facts.adds:
                return owner.facts.adds[flag]
        owner = owner.parent
    return None


def added(node: CommandNode, filler: Filler) -> list[str]:
    """What the options say that were not told yet; those that nothing is known of as they stand."""
    found: list[str] = []
    unknown: list[str] = []
    for use in node.uses:
        if isinstance(use, OptionUse):
            said = _added_by(use, node, filler)
            if said is None:
                unknown.append(_as_typed(use))
            elif said and said not in found:
                found.append(said)
        elif is_for_looking(use, node):
            found.append(ONLY_LOOKS)
        elif isinstance(use, WordUse) and use.role == Role.OPTION and use.word.value != "--":
            found += [] if id(use.word) in filler.told else _undocumented(node.known, use)
    if unknown:
        found.append(f"with {listed_words(list(dict.fromkeys(unknown)))}")
    return found


def _added_by(use: OptionUse, node: CommandNode, filler: Filler) -> str | None:
    """What one option says, "" if it was told already or need not be, None if nothing is known."""
    text = adds(node.known, use)
    if not text and is_for_looking(use, node) and not _is_condition(use, filler):
        text = ONLY_LOOKS
    if id(use) in filler.told:
        return ""
    if text is None:
        return None
    said = _option_said(use, text, filler)
    if said.startswith("and ") and acts_on_last(node):
        return f"and, of the latter only, {said[4:]}"
    return said


def _is_condition(use: OptionUse, filler: Filler) -> bool:
    """Whether the text was chosen for that option."""
    return bool(filler.condition & {use.flag, *use.spelling.option.flags})


def _undocumented(known: Command, use: WordUse) -> list[str]:
    """What an option adds that no page here tells of, but our facts: alone or as letters."""
    text = use.word.value
    letters = [f"-{letter}" for letter in text[1:]] if re.fullmatch(r"-[A-Za-z]{2,4}", text) else []
    for flags in ([text], letters):
        said = [known.facts.adds.get(flag) for flag in flags]
        if flags and all(one is not None and "{" not in one for one in said):
            return [one for one in said if one]
    value = f" {use.value.word.text}" if use.value is not None else ""
    return [f"with {use.word.text}{value}"]


def _option_said(use: OptionUse, text: str, filler: Filler) -> str:
    if "{" in text and use.value is None:
        return ""
    try:
        return filler.option_text(use, text)
    except Missing:
        return _as_typed(use)


def _as_typed(use: OptionUse) -> str:
    if use.value is None:
        return use.flag
    value = use.raw_value or use.value
    return f"{use.flag}={value}" if use.flag[:2] == "--" else f"{use.flag} {value}"
