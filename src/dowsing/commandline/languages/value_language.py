"""Which small language a value of a line is written in: as our facts of the command say, else as
its kind or the text of its page tells.
"""

from __future__ import annotations

import re

from dowsing.commandline.model.tree import CommandNode, OperandUse, OptionUse
from dowsing.model.value_kinds import ValueKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.grammar.shell_words import Word

#: Languages of which a command's options choose the dialect.
_WITH_DIALECTS = frozenset(("regex", "sed"))
_OF_KINDS = {
    ValueKind.MODE: "mode",
    ValueKind.SIGNAL: "signal",
    ValueKind.GLOB: "glob",
    ValueKind.URL: "url",
    ValueKind.ADDRESS: "address",
}
_REGEX = r"\bregular expressions?\b|\bregex(?:es|p|ps)?\b"


class LanguageValue:
    """A value and the language it is written in. `use` is what has it; `word` the word that it
    stands in, whole or in part.
    """

    __slots__ = ("language", "use", "value", "word")

    def __init__(self, language: str, value: str, word: Word, use: OptionUse | OperandUse) -> None:
        self.language, self.value, self.word, self.use = language, value, word, use


def language_values(node: CommandNode) -> Iterator[LanguageValue]:
    """The values of a command that are written in a language, in order."""
    for use in node.uses:
        if isinstance(use, OptionUse) and use.value:
            language = language_of_option(node, use)
            if not language:
                continue
            if use.value_words:
                for word in use.value_words:
                    yield LanguageValue(language, word.value, word, use)
            else:
                yield LanguageValue(language, use.value, use.word, use)
        elif isinstance(use, OperandUse) and not use.lines:
            language = language_of_operand(node, use)
            if language:
                yield LanguageValue(language, use.word.value, use.word, use)


def language_of_option(node: CommandNode, use: OptionUse) -> str:
    """The language of an option's value, "" if it is in none."""
    option = use.spelling.option
    told = _told(node, [use.flag, *option.flags])
    if told:
        return _with_dialect(node, told)
    kind = use.spelling.kind
    if kind in _OF_KINDS:
        return _OF_KINDS[kind]
    names = " ".join(option.flags)
    if "strftime" in option.text or ("date" in names and "format" in names):
        return "dates"
    if "schedule" in names.lower() or "cron" in names.lower():
        return "schedule"
    if kind == ValueKind.PATTERN and re.search(_REGEX, option.text, re.IGNORECASE):
        is_extended = re.search(r"\bextended\b", option.text)
        return "regex-extended" if is_extended else _with_dialect(node, "regex")
    return ""


def language_of_operand(node: CommandNode, use: OperandUse) -> str:
    """The language of an operand, "" if it is in none."""
    slot = use.slot
    if slot is None:
        return _with_dialect(node, _told(node, ["*"]))
    return _with_dialect(node, _told(node, [slot.name, "*"])) or _OF_KINDS.get(slot.kind, "")


def _told(node: CommandNode, names: list[str]) -> str:
    """The language that facts give the first of the names that they know, of the command itself or
    of what it belongs to.
    """
    known = node.known
    while known is not None:
        for name in names:
            if name in known.facts.languages:
                return known.facts.languages[name]
        if known.parent is None:
            break
        known = known.parent
    return ""


def _with_dialect(node: CommandNode, language: str) -> str:
    """The language in the dialect that the options choose."""
    if language not in _WITH_DIALECTS:
        return language
    dialects = node.known.facts.dialects
    chosen = [dialect for flag, dialect in dialects.items() if node.use_of(flag) is not None]
    dialect = chosen[-1] if chosen else dialects.get("", "basic")
    return "" if dialect == "none" else f"{language}-{dialect}"
