"""Words that a command takes otherwise than they were meant: options behind the image, letters that
an option takes for its value, an archive in the place of what is packed.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import Grade, Manner, ProblemCode
from dowsing.commandline.languages.value_language import language_values
from dowsing.commandline.model.tree import OperandUse, OptionUse
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.model.tree import CommandNode

_ARCHIVE = r"(?i)\.(?:tar(?:\.\w+)?|t[gbx]z2?|tzst|zip|7z)\Z"
_SOURCE = r"\.(?:c|cc|cpp|cxx|h|hpp|rs|go|java|f90)\Z"
_LETTERS = r"[A-Za-z]{1,2}\Z"
#: Languages in which `$1` or `$name` means something, so that the shell must not put its own in.
_WITH_DOLLARS = ("awk", "perl", "jq")
_DOLLAR = r"(?<!\\)\$(?:\d|NF|NR|_\b|\w+)"


def options_of_another(node: CommandNode) -> Iterator[Problem]:
    """`find -printf` where busybox runs: an option that only the command of another maker has."""
    known = node.known
    if not known.maker or not known.tables:
        return
    for use in node.used:
        if not use.spelling.page:
            reason = told(ProblemCode.OF_ANOTHER, known.words, known.maker, use.flag)
            yield Problem(use.word.start, use.word.end, reason, grade=Grade.WARNING)


def options_behind_image(node: CommandNode) -> Iterator[Problem]:
    """`docker run image -p 8080:80`: what stands behind the image goes to the container."""
    if not node.is_of(CommandClass.RUNS_IMAGES):
        return
    behind = (use for use in node.uses if isinstance(use, OperandUse))
    for use in behind:
        flag = use.word.value.partition("=")[0]
        is_given_on = use.is_manner(Manner.SCRIPT_ARGUMENT) and flag[:1] == "-"
        if is_given_on and (node.known.spelling(flag) or flag in node.known.facts.adds):
            reason = told(ProblemCode.BEHIND_IMAGE, flag, node.known.words)
            yield Problem(use.word.start, use.word.end, reason, grade=Grade.WARNING)


def letters_for_value(node: CommandNode) -> Iterator[Problem]:
    """`sed -ie`: an option whose value may be left out takes the letters behind it."""
    for use in node.used:
        if (
            not use.spelling.option.argument_optional
            or not use.value
            or use.value_words
            or use.word.value[1:2] == "-"
        ):
            continue
        if use.value in use.spelling.choices:
            continue
        letters = re.fullmatch(_LETTERS, use.value) and use.word.value.endswith(use.value)
        if letters and all(node.known.spelling(f"-{letter}") for letter in use.value):
            reason = told(ProblemCode.LETTERS_FOR_VALUE, use.flag, use.value)
            yield Problem(use.word.start, use.word.end, reason, grade=Grade.WARNING)


def dollars_in_double_quotes(node: CommandNode) -> Iterator[Problem]:
    """`awk "{print $1}"`: the shell puts its own `$1` in first."""
    for value in language_values(node):
        text = value.word.text
        if not value.language.startswith(_WITH_DOLLARS) or text[:1] != '"':
            continue
        found = re.search(_DOLLAR, text)
        if found:
            reason = told(ProblemCode.DOLLAR_IN_QUOTES, found[0], node.root.name)
            quoted = "'" + text[1:-1] + "'"
            yield Problem(value.word.start, value.word.end, reason, [quoted], Grade.WARNING)


def swapped(node: CommandNode) -> Iterator[Problem]:
    """`tar -czf folder a.tgz`, `gcc -o a.c a.o`: the names stand in each other's place."""
    for use in node.used:
        if not use.value or not _is_written(use, node):
            continue
        operands = [one.word.value for one in node.operands]
        names_one = any(re.search(_ARCHIVE, one) for one in operands)
        packs = names_one and not re.search(_ARCHIVE, use.value)
        is_archive = packs and node.is_of(CommandClass.ARCHIVES)
        is_source = bool(re.search(_SOURCE, use.value)) and node.is_of(CommandClass.COMPILES)
        if is_archive or is_source:
            word = use.value_words[0] if use.value_words else use.word
            reason = told(ProblemCode.SWAPPED, use.value, use.flag)
            yield Problem(word.start, word.end, reason, grade=Grade.WARNING)


def _is_written(use: OptionUse, node: CommandNode) -> bool:
    """Whether the value of an option is a file that the command makes."""
    flags = {use.flag, *use.spelling.option.flags}
    effects = (act.effect for act in node.known.facts.acts if act.effect is not None)
    for effect in effects:
        if effect.value in flags:
            return not effect.when or node.use_of(*effect.when) is not None
    return False


def password_apart(node: CommandNode) -> Iterator[Problem]:
    """`mysql -p secret shop`: a password that may be left out stands in the word of its option."""
    for before, use in zip(node.uses, node.uses[1:], strict=False):
        if not isinstance(before, OptionUse) or not isinstance(use, OperandUse):
            continue
        spelling = before.spelling
        is_password = "pass" in (spelling.option.argument or spelling.placeholder).lower()
        is_bare = before.value is None and spelling.takes and not spelling.needs
        if is_password and is_bare and len(node.operands) > 1:
            reason = told(ProblemCode.PASSWORD_APART, use.word.value, before.flag)
            yield Problem(use.word.start, use.word.end, reason, grade=Grade.WARNING)


def number_for_file(node: CommandNode) -> Iterator[Problem]:
    """`scp -p 2222 a host:`: a number where a file is wanted, right behind an option."""
    if not node.is_of(CommandClass.COPIES_TO_HOSTS):
        return
    for before, use in zip(node.uses, node.uses[1:], strict=False):
        is_bare = isinstance(before, OptionUse) and before.value is None
        if is_bare and not isinstance(use, OptionUse) and use.word.value.isdigit():
            reason = told(ProblemCode.NUMBER_FOR_FILE, before.word.value, use.word.value)
            yield Problem(use.word.start, use.word.end, reason, grade=Grade.WARNING)
