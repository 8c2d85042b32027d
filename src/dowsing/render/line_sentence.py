"""One sentence for a whole line, made from its tree: what it does, to what, and where the output
goes.
"""

from __future__ import annotations

import os
import re

from dowsing.commandline.line import meaning_of
from dowsing.commandline.sayings import Manner
from dowsing.commandline.shell_words import Mark, SimpleCommand
from dowsing.commandline.tree import CommandNode, Line, OperandUse, OptionUse, WordUse
from dowsing.model.roles import Role
from dowsing.model.value_kinds import FILE_KINDS, ValueKind
from dowsing.render.phrases import words

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.pieces import Unpicked

MOST_OBJECTS = 3
_NAMED_KINDS = FILE_KINDS | {ValueKind.URL, ValueKind.HOST, ValueKind.PATTERN, ValueKind.GLOB}
#: Titles of sections whose options say what is done, of which one is given.
_OPERATION = re.compile(
    r"\boperations?\b|\bmodes?\b|\bactions?\b|\bfunctions?\b|\bcommands?\b", re.IGNORECASE
)
#: First words of option texts that tell about the option itself, not about what is done.
_ABOUT = frozenset(
    "use specify set same like if do give be show enable disable turn make select allow".split()
)
_TESTS = frozenset(("[", "test"))


def sentence(found: Unpicked) -> str:
    """The line in words; "" if there is no command in it."""
    text = _Teller(found.verbs).line(found.tree).lstrip(",; ") if found.tree else ""
    return text[:1].upper() + text[1:] + "." if text else ""


class _Teller:
    """Puts a tree into words. `verbs`: the words that summaries of commands here begin with."""

    def __init__(self, verbs: frozenset[str]) -> None:
        self.verbs = verbs

    def line(self, line: Line) -> str:
        """What a line does."""
        told: list[str] = []
        joint = ""
        parts = iter(enumerate(line.parts))
        for n, part in parts:
            if not isinstance(part, Mark):
                told.append(joint + self.clause(part))
                joint = ", then "
            elif part.text == "[[":
                test = _test_from(line.parts, n)
                told += [_test(test, joint)] if test else []
                for _ in range(len(test) + 1):
                    next(parts, None)
                joint = ", then "
            elif part.role in (Role.OPERATOR, Role.KEYWORD):
                joint = _joint(line.parts, n, joint)
                if part.text == "&" and told:
                    told[-1] += ", in the background"
                    joint = ", and at once "
            else:
                told += _beside(part, bool(told))
        return "".join(told)

    def clause(self, command: CommandNode | SimpleCommand) -> str:
        """What one command does, to what."""
        if isinstance(command, SimpleCommand):
            operands = [word.text for word in command.words[1:]]
            return f"run {command.words[0].text}{_objects_told(operands)}"
        does = self.does(command) + _objects(command)
        inner = [self.clause(one) for one in command.carried[:1]]
        inner = inner or [self.line(line) for use in command.uses for line in use.lines]
        inner = [text.lstrip(",; ") for text in inner if text]
        return " – ".join([does, *inner])

    def does(self, command: CommandNode) -> str:
        """The verb phrase: of a subcommand, of the command's summary, or of the first option that
        says what is done.
        """
        subcommands = [
            use for use in command.uses if isinstance(use, WordUse) and use.role == Role.SUBCOMMAND
        ]
        typed = os.path.basename(command.name.text)
        name = " ".join([typed, *(use.word.text for use in subcommands)])
        said = [use.says for use in subcommands if use.says]
        summary = _phrase(said[-1] if said else command.root.summary)
        if summary and self.is_verb(summary):
            return f"{summary} ({name})"
        for use in command.used:
            option = use.spelling.option
            if option.text and _OPERATION.search(option.section):
                phrase = _phrase(option.text)
                if self.is_verb(phrase) and phrase.split()[0] not in _ABOUT:
                    return f"{phrase} ({name})"
        if not summary or not (command.root.page or said):
            return f"run {name}"
        return f"run {name} ({summary})"

    def is_verb(self, phrase: str) -> bool:
        first = re.split(r"[^a-z]", phrase, maxsplit=1)[0]
        return bool(first) and first in self.verbs and not re.match(r"\w+ (?:of|is)\b", phrase)


_JOINTS = {
    "|": "; its output goes to: ",
    "|&": "; its output and errors go to: ",
    "&&": "; if that succeeds, ",
    "||": "; if that fails, ",
    ";": "; then ",
    "if": "if this succeeds: ",
    "elif": "; else if this succeeds: ",
    "then": " – ",
    "else": "; else ",
    "while": "as long as this succeeds: ",
    "until": "until this succeeds: ",
    "!": "the contrary of: ",
}


def _joint(parts: list[CommandNode | SimpleCommand | Mark], n: int, joint: str) -> str:
    """What leads from the clause before to the one after the mark at `n`."""
    part, after = parts[n], parts[n + 1] if n + 1 < len(parts) else None
    assert isinstance(part, Mark)
    if part.text in ("for", "select"):
        values = [
            one.text
            for one in parts[n + 1 :]
            if isinstance(one, Mark) and one.code is Manner.LOOP_VALUE
        ]
        begin = joint if joint.endswith("then ") else ""
        return f"{begin}for each of {_listed(values)}: " if values else "again and again: "
    if part.text in ("do", "in", "done", "fi", "esac", "{", "}", "(", ")", "[[", "]]"):
        return joint
    if part.text == ";" and isinstance(after, Mark) and after.text in ("do", "then", "done", "fi"):
        return joint
    return _JOINTS.get(part.text, ", then ")


def _phrase(text: str) -> str:
    """The first clause of a text, its first letter small."""
    text = re.sub(r"\s*\([^()]*\)", "", " ".join(text.split()))
    text = re.split(
        r"(?<=[\w)])[.;:](?:\s|\Z)|, (?:which|so that|but|instead|unless)\b| – ", text, maxsplit=1
    )[0].strip()
    if len(text) > 90:
        text = text[:90].rpartition(" ")[0] + " …"
    first = text.split(" ")[0]
    return text[:1].lower() + text[1:] if first[1:] == first[1:].lower() else text


def _objects(command: CommandNode) -> str:
    """What it is done to: the operands, and what options name."""
    if command.root.name in _TESTS:
        return _objects_told([" ".join(_words_of(command))])
    operands = [
        use.word.text
        for use in command.uses
        if isinstance(use, OperandUse) and not use.lines
        if use.manner is not Manner.SCRIPT_ARGUMENT
    ]
    if _may_be_values(command):
        operands = []
    named = [_named(use) for use in command.used if _names_something(use)]
    return _objects_told(operands) + (f", {', '.join(named[:3])}" if named else "")


def _may_be_values(command: CommandNode) -> bool:
    """Whether its words may as well be values of options, of which nothing here tells."""
    return not command.known.documented and any(
        isinstance(use, WordUse) and use.role == Role.OPTION and "=" not in use.word.text
        for use in command.uses
    )


def _objects_told(operands: list[str]) -> str:
    return f": {_listed(operands)}" if any(operands) else ""


def _words_of(command: CommandNode) -> list[str]:
    """The words of a test behind its name."""
    found: list[str] = []
    for use in command.uses:
        found.append(use.word.text)
        if isinstance(use, OptionUse):
            found += [word.text for word in use.value_words]
    return found


def _names_something(use: OptionUse) -> bool:
    is_named = use.spelling.kind in _NAMED_KINDS and not use.lines and not use.carries
    return bool(use.value) and use.value != "-" and is_named


def _named(use: OptionUse) -> str:
    """The value of an option behind what the option is called."""
    flags = use.spelling.option.flags
    label = next((flag for flag in flags if flag.startswith("--")), use.flag).lstrip("-")
    return f"{label.replace('-', ' ')} {use.value}"


def _listed(words: list[str]) -> str:
    if len(words) > MOST_OBJECTS:
        return f"{', '.join(words[:MOST_OBJECTS])} and {len(words) - MOST_OBJECTS} more"
    return " and ".join([", ".join(words[:-1]), words[-1]] if len(words) > 2 else words)


def _test_from(parts: list[CommandNode | SimpleCommand | Mark], start: int) -> list[str]:
    """The words of a test of the shell's own that begins at `start`."""
    found: list[str] = []
    for part in parts[start + 1 :]:
        if not isinstance(part, Mark) or part.text == "]]":
            break
        found.append(part.text)
    return found


def _test(told: list[str], joint: str) -> str:
    """A test of the shell's, as it is written."""
    joint = joint.replace("if this succeeds: ", "if ")
    return f"{joint}the test {' '.join(told)} holds"


def _beside(mark: Mark, begun: bool) -> list[str]:
    """A redirection or an assignment; `begun` where something stands before it."""
    meaning = words(meaning_of(mark))
    if mark.role == Role.REDIRECTION and begun and meaning:
        return [f"; {meaning}"]
    if mark.role == Role.ASSIGNMENT:
        return [(", and " if begun else "") + meaning]
    return []
