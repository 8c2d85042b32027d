"""What options and operands mean with what stands in the line put in."""

from __future__ import annotations

import re

from dowsing.commandline.languages.value_language import (
    LanguageValue,
    language_of_operand,
    language_of_option,
)
from dowsing.commandline.meaning.binding import Binder, Given, adds, option_value
from dowsing.commandline.model.tree import CommandNode, OperandUse, OptionUse
from dowsing.knowledge.command_facts import without_joint
from dowsing.render.bound_words import BoundTeller, in_language
from dowsing.render.clause_text import LONGEST
from dowsing.render.wrap import first_sentence

#: Words behind which the placeholder stands for a thing and not for its name.
_DETERMINERS = r"(?<!\ba )(?<!\ban )(?<!\bthe )(?<!\bone )(?<!\bthis )(?<!\beach )"


def meanings_here(commands: list[CommandNode]) -> dict[tuple[int, int, str], str]:
    """What options mean with their values put in, and operands that are in a small language: by our
    facts, else by their page where its text has a placeholder. By the place of the word, and the
    option or the operand as it is typed.
    """
    found: dict[tuple[int, int, str], str] = {}
    for node in commands:
        for use in node.used:
            if use.carries or use.lines:
                continue
            if not use.value:
                said = "" if use.spelling.page else adds(node.known, use) or ""
                if said:  # no page here tells of it
                    found[use.word.start, use.word.end, use.flag] = without_joint(said)
                continue
            said = _value_in_words(node, use) or filled_in(use)
            if said:
                found[use.word.start, use.word.end, use.flag] = said
        for operand in node.operands:
            said = _operand_in_words(node, operand)
            if said:
                word = operand.word
                found[word.start, word.end, word.text] = said
    return found


def _operand_in_words(node: CommandNode, use: OperandUse) -> str:
    """An operand in the words of its small language, "" if it is in none or that says no more."""
    language = language_of_operand(node, use)
    if not language or use.lines:
        return ""
    value = LanguageValue(language, use.word.value, use.word, use)
    said = in_language(value, "")
    return said if said != use.word.value else ""


def _value_in_words(node: CommandNode, use: OptionUse) -> str:
    """What an option adds with its value put in, by our facts; "" if they do not tell."""
    text = adds(node.known, use)
    if text and "{" in text:
        said = Binder(node, Given()).option_said(use, text)
        return BoundTeller(node).words(said) if said else ""
    return in_language(option_value(use, language_of_option(node, use)), "")


def filled_in(use: OptionUse) -> str:
    """The first sentence of the page's text with the value in the place of its placeholder; "" if
    the placeholder is none that nothing else is written like.
    """
    placeholder = (use.spelling.option.argument or "").strip("<>[]=")
    text = first_sentence(" ".join(use.spelling.option.text.split()))
    is_plain = re.fullmatch(r"[A-Z][A-Z0-9_-]+", placeholder) and not use.spelling.choices
    if not is_plain or use.value is None:
        return ""
    first, sign, rest = text.partition(";")
    place = re.compile(rf"{_DETERMINERS}(?<![\w-]){re.escape(placeholder)}(?![\w-])")
    if not place.search(first):
        return ""
    rest = "" if place.search(rest) else sign + rest
    value = use.value if len(use.value) <= LONGEST else use.value[: LONGEST - 1] + "…"
    return place.sub(lambda _: value, first) + rest
