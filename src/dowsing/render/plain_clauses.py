"""A command as a clause where our facts have no words for it: by the summary of its page, or as it
stands.
"""

from __future__ import annotations

import os
import re

from dowsing.commandline.grammar.sayings import Manner
from dowsing.commandline.model.tree import CommandNode, OperandUse, OptionUse, WordUse
from dowsing.model.roles import Role
from dowsing.model.source_name import OWN_HELP
from dowsing.model.value_kinds import FILE_KINDS, ValueKind
from dowsing.render.clause_text import listed_words, shown
from dowsing.render.verb_forms import third_person

_NAMED_KINDS = FILE_KINDS | {ValueKind.URL, ValueKind.HOST, ValueKind.PATTERN, ValueKind.GLOB}
#: Titles of sections whose options say what is done, of which one is given.
_OPERATION = r"(?i:\boperations?\b|\bmodes?\b|\bactions?\b|\bfunctions?\b|\bcommands?\b)"
#: First words of option texts that tell about the option itself, not about what is done.
_ABOUT = frozenset(
    "use specify set same like if do give be show enable disable turn make select allow".split()
)
#: Words that a verb may be known by: they do not follow a noun.
_OBJECTS = "a|an|the|it|them|its|their|what|this|that|all|each|every|into|from|on"
MOST_GIVEN = 4  # options that are named
_LONGEST = 90  # characters of a summary


def plain_clause(command: CommandNode, verbs: frozenset[str]) -> str:
    """What a command does, by its page, with its operands. `verbs`: the words that summaries of
    commands here begin with.
    """
    return _does(command, verbs) + _objects(command)


def _does(command: CommandNode, verbs: frozenset[str]) -> str:
    """The verb phrase: of a subcommand, of the command's summary, or of the first option that says
    what is done.
    """
    subcommands = [
        use for use in command.uses if isinstance(use, WordUse) and use.role == Role.SUBCOMMAND
    ]
    typed = os.path.basename(command.name.text)
    name = " ".join([typed, *(use.word.text for use in subcommands)])
    said = [use.says for use in subcommands if use.says]
    summary = _phrase(said[-1] if said else command.root.summary, verbs)
    if summary and _is_third(summary, verbs):
        return f"{summary} ({name})"
    if summary and _is_verb(summary, verbs):
        return f"{_third(summary, verbs)} ({name})"
    for use in command.used:
        option = use.spelling.option
        if option.text and re.search(_OPERATION, option.section):
            phrase = _phrase(option.text)
            if _is_verb(phrase, verbs) and phrase.split()[0] not in _ABOUT:
                return f"{_third(phrase, verbs)} ({name})"
    if not summary or not (command.root.page or said):
        return f"runs {name}"
    return f"runs {name} ({summary})"


def _third(phrase: str, verbs: frozenset[str]) -> str:
    """A phrase that begins with a verb, said of what does it: `lists and changes files`."""
    first, blank, rest = phrase.partition(" ")

    def joined(match: re.Match[str]) -> str:
        is_verb = match[2] in verbs or match[3] in (" it", " them")
        return f"{match[1]}{third_person(match[2]) if is_verb else match[2]}{match[3]}"

    rest = re.sub(r"(\A(?:and|or|,) )([a-z]+)(\b)", joined, rest)
    rest = re.sub(rf"(\b(?:and|or) )([a-z]+)( (?:{_OBJECTS})\b)", joined, rest)
    return third_person(first) + blank + rest


def _is_third(phrase: str, verbs: frozenset[str]) -> bool:
    """Whether a phrase begins with a verb that is said of somebody already: `shows units`."""
    first = phrase.partition(" ")[0]
    candidates = {first[:-1], first[:-2], f"{first[:-3]}y"} & verbs
    return any(third_person(verb) == first for verb in candidates)


def _is_verb(phrase: str, verbs: frozenset[str]) -> bool:
    first = re.split(r"[^a-z]", phrase, maxsplit=1)[0]
    is_plain = phrase.startswith(f"{first} ") or phrase == first
    return is_plain and first in verbs and not re.match(r"\w+ (?:of|is)\b", phrase)


def _phrase(text: str, verbs: frozenset[str] = frozenset()) -> str:
    """The first clause of a text, its first letter small; of a row of `verbs` the first."""
    text = re.sub(r"\s*\([^()]*\)", "", " ".join(text.split()))
    text = re.split(
        r"(?<=[\w)])[.;:](?:\s|\Z)|, (?:which|so that|but|instead|unless)\b| – ", text, maxsplit=1
    )[0].strip()
    text = re.split(r", (?:and|or) ", text, maxsplit=1)[0]
    if len(text) > _LONGEST:
        text = text[:_LONGEST].rpartition(" ")[0] + " …"
    head, comma, rest = text.partition(", ")
    if comma and re.split(r"[ ,]", rest, maxsplit=1)[0] in verbs:
        text = head
    first = text.split(" ")[0]
    return text[:1].lower() + text[1:] if first[1:] == first[1:].lower() else text


def _objects(command: CommandNode) -> str:
    """What it is done to: the operands, and what options name."""
    operands = [
        shown(use.word)
        for use in command.uses
        if isinstance(use, OperandUse) and not use.lines
        if not use.is_manner(Manner.SCRIPT_ARGUMENT)
    ]
    if _may_be_values(command):
        operands = []
    named = [_named(use) for use in command.used if _names_something(use)]
    told = f": {listed_words(operands)}" if any(operands) else ""
    told += f", {', '.join(named[:3])}" if named else ""
    if not command.known.page.endswith(OWN_HELP):
        return told
    given = [_given(use) for use in command.used if not _names_something(use) and not use.carries]
    return told + (f", with {listed_words(given[:MOST_GIVEN])}" if given else "")


def _given(use: OptionUse) -> str:
    """An option as it was given, by its long spelling, for its text may be long."""
    flags = [use.flag, *use.spelling.option.flags]
    flag = next((one for one in flags if one.startswith("--")), use.flag)
    if not use.value or use.lines:
        return flag
    return f"{flag}={use.value}" if flag.startswith("--") else f"{flag} {use.value}"


def _may_be_values(command: CommandNode) -> bool:
    """Whether its words may as well be values of options, of which nothing here tells."""
    return not command.known.documented and any(
        isinstance(use, WordUse) and use.role == Role.OPTION and "=" not in use.word.text
        for use in command.uses
    )


def _names_something(use: OptionUse) -> bool:
    is_named = use.spelling.kind in _NAMED_KINDS and not use.lines and not use.carries
    return bool(use.value) and use.value != "-" and is_named


def _named(use: OptionUse) -> str:
    """The value of an option behind what the option is called."""
    flags = use.spelling.option.flags
    label = next((flag for flag in flags if flag.startswith("--")), use.flag).lstrip("-")
    return f"{label.replace('-', ' ')} {use.value}"
