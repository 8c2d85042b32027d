"""What the shell does otherwise than was meant, as what stands beside each other tells."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import Grade, Manner, ProblemCode
from dowsing.commandline.grammar.shell_words import Mark, SimpleCommand, Word
from dowsing.commandline.model.tree import CommandNode, start_of
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.roles import Role
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.model.tree import Line

#: Where only root may write.
_OF_ROOT = r"/(?:etc|boot|proc|sys|usr|lib|opt|root|var/(?!tmp))(?:/|\Z)"
_ERRORS_TO_OUTPUT = r"2>\s*&\s*1"
_TO_FILE = r"1?>{1,2}\|?"
_ADDRESS = r"\w+://\S+\?\S*="
_LISTS = r"[$`]\(?\s*ls\b"
_NAME = r"[A-Za-z_]\w*"
_ANYTHING_HERE = ("*", "./*", ".", "./")


def redirected_as_user(line: Line) -> Iterator[Problem]:
    """`sudo echo … > /etc/f`: the file is opened by the shell that the line is typed into."""
    last: CommandNode | None = None
    for part in line.parts:
        if isinstance(part, CommandNode):
            last = part
        elif isinstance(part, Mark) and part.role == Role.REDIRECTION:
            writes = part.word is not None and re.fullmatch(_TO_FILE, part.operator)
            if last is None or not writes or not last.is_of(CommandClass.ELEVATES):
                continue
            if part.word is not None and re.match(_OF_ROOT, part.word.value):
                reason = told(ProblemCode.REDIRECTED_AS_USER, last.root.name, part.word.value)
                yield Problem(part.start, part.end, reason, grade=Grade.WARNING)
        else:
            last = None


def errors_before_output(line: Line) -> Iterator[Problem]:
    """`2>&1 > file`: the errors go where the output went before."""
    for n, part in enumerate(line.parts[:-1]):
        after = line.parts[n + 1]
        if not _is_redirection(part) or not _is_redirection(after):
            continue
        goes_on = n + 2 < len(line.parts) and _text(line.parts[n + 2]) in ("|", "|&")
        is_both = re.fullmatch(_ERRORS_TO_OUTPUT, _text(part)) and not goes_on
        if is_both and isinstance(after, Mark) and re.fullmatch(_TO_FILE, after.operator):
            reason = told(ProblemCode.ERRORS_BEFORE_OUTPUT, _text(after))
            yield Problem(start_of(part), _end(part), reason, grade=Grade.WARNING)


def address_cut(line: Line) -> Iterator[Problem]:
    """An address with `&` in it and no quotes around: the shell ends the command there."""
    for before, part in zip(line.parts, line.parts[1:], strict=False):
        if not isinstance(part, Mark) or part.text != "&" or isinstance(before, Mark):
            continue
        words = _words(before)
        is_glued = bool(words) and words[-1].end == part.start
        if is_glued and not words[-1].quoted and re.match(_ADDRESS, words[-1].text):
            reason = told(ProblemCode.ADDRESS_CUT)
            yield Problem(part.start, part.end, reason, [f"'{words[-1].text}&…'"], Grade.WARNING)


def version_redirected(line: Line) -> Iterator[Problem]:
    """`name>=2.0` without quotes, which writes a file `=2.0`."""
    for before, part in zip(line.parts, line.parts[1:], strict=False):
        if not isinstance(part, Mark) or part.role != Role.REDIRECTION or part.word is None:
            continue
        words = _words(before)
        is_glued = bool(words) and words[-1].end == part.start and part.text[1:2] == "="
        if is_glued:
            whole = f"{words[-1].text}{part.text}"
            reason = told(ProblemCode.VERSION_REDIRECTED, part.word.value)
            yield Problem(part.start, part.end, reason, [f"'{whole}'"], Grade.WARNING)


def blanks_around_equals(line: Line) -> Iterator[Problem]:
    """`NAME = value`: the shell takes NAME for a command; `-l app = api`: three words."""
    for part in line.parts:
        words = [] if isinstance(part, Mark) else _words(part)
        for before, word, after in zip(words, words[1:], words[2:], strict=False):
            if word.text != "=" or not re.fullmatch(_NAME, before.text):
                continue
            if isinstance(part, CommandNode) and not _may_have_equals(part, before):
                reason = told(ProblemCode.BLANKS_AROUND_EQUALS, before.text, after.text)
                glued = f"{before.text}={after.text}"
                yield Problem(word.start, word.end, reason, [glued], Grade.WARNING)


def _may_have_equals(node: CommandNode, before: Word) -> bool:
    """Whether a lone equals sign means something to a command."""
    if node.is_of(CommandClass.COMPARES):
        return True
    known = node.root
    is_name = before.start == node.name.start
    return is_name and (known.exists or known.documented or bool(known.page))


def goes_on_elsewhere(line: Line) -> Iterator[Problem]:
    """`cd "$dir"; rm -rf *`: where the folder is not there, it happens here."""
    commands = [part for part in line.parts if not _is_redirection(part)]
    for first, sign, second in zip(commands, commands[1:], commands[2:], strict=False):
        if not isinstance(first, CommandNode) or not isinstance(second, CommandNode):
            continue
        is_apart = isinstance(sign, Mark) and sign.text.strip() == ";"
        moves = first.is_of(CommandClass.CHANGES_FOLDER) and bool(first.operands)
        aimed = {use.word.text for use in second.operands} & set(_ANYTHING_HERE)
        if is_apart and moves and aimed and second.is_of(CommandClass.LOSES_FILES):
            reason = told(ProblemCode.GOES_ON_ELSEWHERE, first.root.name, second.root.name)
            yield Problem(start_of(sign), _end(sign), reason, ["&&"], Grade.WARNING)


def names_from_listing(line: Line) -> Iterator[Problem]:
    """`for f in $(ls)`: names are parted at blanks."""
    for part in line.parts:
        if not isinstance(part, Mark) or part.code is not Manner.LOOP_VALUE:
            continue
        if re.match(_LISTS, part.text):
            reason = told(ProblemCode.NAMES_FROM_LISTING)
            yield Problem(part.start, part.end, reason, grade=Grade.WARNING)


def input_taken(line: Line) -> Iterator[Problem]:
    """`while read …; do ssh …; done < file`: the first ssh reads the rest of the file."""
    reading = False
    for n, part in enumerate(line.parts):
        if isinstance(part, Mark):
            reading = reading and part.text != "done"
        elif isinstance(part, CommandNode):
            reading = reading or part.is_of(CommandClass.READS_LINE)
            last = part
            while last.carried:
                last = last.carried[0]
            takes = part if part.is_of(CommandClass.TAKES_INPUT) else last
            if reading and takes.is_of(CommandClass.TAKES_INPUT) and not _has_input(takes, line, n):
                reason = told(ProblemCode.INPUT_TAKEN, takes.root.name)
                yield Problem(takes.name.start, takes.name.end, reason, grade=Grade.WARNING)


def _has_input(node: CommandNode, line: Line, place: int) -> bool:
    """Whether it is told to leave its input alone, or has one of its own."""
    if node.is_fed or node.use_of("-n", "-nostdin") is not None:
        return True
    after = line.parts[place + 1] if place + 1 < len(line.parts) else None
    return isinstance(after, Mark) and after.operator[:1] == "<"


def _is_redirection(part: CommandNode | SimpleCommand | Mark) -> bool:
    return isinstance(part, Mark) and part.role == Role.REDIRECTION


def _words(part: CommandNode | SimpleCommand | Mark) -> list[Word]:
    """The words of a command as they stand."""
    if isinstance(part, Mark):
        return []
    return part.words if isinstance(part, SimpleCommand) else part.written


def _text(part: CommandNode | SimpleCommand | Mark) -> str:
    return part.text.strip() if isinstance(part, Mark) else ""


def _end(part: CommandNode | SimpleCommand | Mark) -> int:
    return part.end if isinstance(part, Mark) else _words(part)[-1].end
