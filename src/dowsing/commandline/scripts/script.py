"""A whole script: its commands with what they do, what is wrong, and what somebody must know who
was told to run it.
"""

from __future__ import annotations

import re
from bisect import bisect_right

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import EffectCode, Grade, ProblemCode
from dowsing.commandline.judging.judge import judge
from dowsing.commandline.judging.quoting import unsafe_words
from dowsing.commandline.meaning.effects import effects_of_command, effects_of_line
from dowsing.commandline.meaning.meaning import Meaning, meaning_of
from dowsing.commandline.model.effect import Effect
from dowsing.commandline.model.tree import CommandNode, Line, OperandUse
from dowsing.commandline.reading.line_reader import LineReader
from dowsing.commandline.scripts.fragments import Fragment, ScriptKind, fragments_of, kind_of
from dowsing.commandline.scripts.statements import readable
from dowsing.index.convention_rows import conventions_of
from dowsing.index.word_reader import verb_words
from dowsing.knowledge.command_classes import CommandClass, members_of
from dowsing.knowledge.effects import LOSES, EffectKind
from dowsing.model.nearness import distance
from dowsing.model.record import Record
from dowsing.model.told import told
from dowsing.model.value_kinds import FILE_KINDS
from dowsing.model.values import OperandRole

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.reading.command_finder import CommandFinder

_UNSAFE = frozenset((ProblemCode.UNQUOTED_EXPANSION, ProblemCode.EMPTY_IS_ROOT))
_NO_FILES = ("/dev/null", "/dev/stdin", "/dev/stdout", "/dev/stderr", "/dev/tty")


class PlacedEffect(Record):
    """Something that a command does and that cannot be undone, with the line of the file."""

    line: int
    effect: Effect


class PlacedProblem(Record):
    """Something that is wrong: the line of the file, the words it is about, and what it is."""

    line: int
    text: str
    problem: Problem


class ScriptPart(Record):
    """A text for the shell that was read. `meaning`: that of all of it; `starts` are the places of
    its lines, in characters.
    """

    fragment: Fragment
    meaning: Meaning
    commands: list[CommandNode]
    starts: list[int]

    def line_of(self, place: int) -> int:
        """The line of the file that a place of the text is in, from 1."""
        return self.fragment.line + bisect_right(self.starts, place) - 1


class Named(Record):
    """A name with the lines of the file that it stands in."""

    name: str
    lines: list[int]


class Script(Record):
    """A file that was read. `reads` and `writes` are the files that it names; `missing` the
    commands that nothing here knows; `unknown` the options that no page here has, each with its
    command; `verbs`: the words that summaries of commands begin with; `not_read`: the numbers of
    lines that cannot be read here; `steps`: what is done in it that no shell runs.
    """

    name: str
    kind: ScriptKind
    lines: int
    parts: list[ScriptPart]
    effects: list[PlacedEffect]
    problems: list[PlacedProblem]
    reads: list[Named]
    writes: list[Named]
    missing: list[Named]
    unknown: list[Named]
    verbs: frozenset[str]
    not_read: list[int] = []  # noqa: RUF012 - a record is immutable
    steps: list[Fragment] = []  # noqa: RUF012

    @property
    def mistaken(self) -> bool:
        """Whether there surely is a mistake in it."""
        return any(one.problem.grade is Grade.ERROR for one in self.problems)

    @property
    def unsafe(self) -> list[PlacedProblem]:
        """What is quoted so that it may go wrong."""
        return [one for one in self.problems if one.problem.reason.code in _UNSAFE]

    @property
    def commands(self) -> int:
        """How many commands there are, the carried ones too."""
        return sum(len(part.commands) for part in self.parts)


def read_script(name: str, text: str, finder: CommandFinder) -> Script:
    """Read a file. Never raises."""
    kind = kind_of(name, text)
    text = _of_shell(text)
    # what make puts into a recipe stands there before a shell reads it, blanks and all
    reader = _ScriptReader(finder, judges_quoting=kind is not ScriptKind.MAKEFILE)
    not_read: list[int] = []
    for fragment in fragments_of(kind, text):
        if fragment.step is not None:
            reader.steps.append(fragment)
            continue
        statements, left_out = readable(fragment)
        reader.functions |= functions_in(fragment.text)
        not_read += left_out
        for statement in statements:
            reader.read(statement)
    return Script(
        name,
        kind,
        text.count("\n") + (not text.endswith("\n")),
        reader.parts,
        reader.effects,
        sorted(reader.problems, key=lambda one: one.line),
        reader.reads.named,
        reader.writes.named,
        reader.missing.named,
        reader.unknown.named,
        verb_words(finder.store),
        not_read,
        reader.steps,
    )


def _of_shell(text: str) -> str:
    """A script up to where another interpreter takes over: a second `#!` line of its own."""
    second = re.search(r"^#!\s*(?:/\S*/)?(?:perl|python|ruby|tclsh|awk)\b", text[2:], re.MULTILINE)
    return text[: second.start() + 2] if second else text


class _Names:
    """Names with the lines they stand in."""

    def __init__(self) -> None:
        self.lines: dict[str, list[int]] = {}

    def add(self, name: str, line: int) -> None:
        """Note that a name stands in a line."""
        found = self.lines.setdefault(name, [])
        if line not in found:
            found.append(line)

    @property
    def named(self) -> list[Named]:
        """All of them, by the first of their lines."""
        found = [Named(name, lines) for name, lines in self.lines.items()]
        return sorted(found, key=lambda one: one.lines[0])


class _ScriptReader:
    """Reads the texts of a file, one after the other."""

    def __init__(self, finder: CommandFinder, judges_quoting: bool) -> None:
        self.finder = finder
        self.judges_quoting = judges_quoting
        self.functions: set[str] = set()
        self.conventions = conventions_of(finder.store)
        self.parts: list[ScriptPart] = []
        self.steps: list[Fragment] = []
        self.effects: list[PlacedEffect] = []
        self.problems: list[PlacedProblem] = []
        self.reads, self.writes, self.missing, self.unknown = (_Names() for _ in range(4))

    def effects_of_lines(self, lines: list[Line], part: ScriptPart) -> None:
        """Note what the lines of a part do beside what each command does."""
        for line in lines:
            for place, effect in effects_of_line(line):
                self.effects.append(PlacedEffect(part.line_of(place), effect))

    def read(self, fragment: Fragment) -> None:
        """Read a text for the shell."""
        reader = LineReader(self.finder)
        reader.functions = frozenset(self.functions)
        reader.read(fragment.text)
        starts = [0]
        for line in fragment.text.split("\n"):
            starts.append(starts[-1] + len(line) + 1)
        commands = reader.commands
        meaning = meaning_of(reader.line, reader.lines, commands, fragment.text)
        part = ScriptPart(fragment, meaning, commands, starts)
        self.parts.append(part)
        for node in commands:
            self.command(node, part)
        self.effects_of_lines(reader.lines, part)
        self.runs_named([command.words[0] for command in reader.unnamed], part)
        for pipeline in reader.pipelines:
            for mark in pipeline.redirections:
                self.redirection(
                    mark.operator, mark.word.value if mark.word else "", part, mark.start
                )
        if reader.problem is not None:
            self.problem(reader.problem, part)
        for problem in judge(commands, reader.lines, is_typed=False):
            self.problem(problem, part)
        for problem in reader.problems:
            self.problem(problem, part)
        self.effects.sort(key=lambda one: one.line)

    def runs_named(self, words: list[Word], part: ScriptPart) -> None:
        """Note what is run that only a variable names."""
        for word in words:
            if word.text[:1] in ('"', "$"):
                text = word.text.strip('"')
                does = told(EffectCode.RUNS_NAMED, text)
                effect = Effect(text, does, kind=EffectKind.RUNS)
                self.effects.append(PlacedEffect(part.line_of(word.start), effect))

    def problem(self, problem: Problem, part: ScriptPart) -> None:
        """Note what is wrong, each place once."""
        if problem.reason.code is ProblemCode.UNKNOWN_COMMAND and not _is_slip(problem, part):
            return
        line = part.line_of(problem.start)
        text = part.fragment.text[problem.start : problem.end]
        placed = PlacedProblem(line, text, problem)
        same = (one for one in self.problems if (one.line, one.text) == (line, text))
        if next(same, None) is None:
            self.problems.append(placed)

    def command(self, node: CommandNode, part: ScriptPart) -> None:
        """What a command does, reads and lacks."""
        line = part.line_of(node.name.start)
        effects = effects_of_command(part.meaning.of(node), self.conventions)
        self.effects += [PlacedEffect(line, effect) for effect in effects]
        if node.is_of(CommandClass.RUNS_FILE):
            self.runs_named([use.word for use in node.operands[:1] if use.word.dynamic], part)
        harmful = any(effect.kind in LOSES for effect in effects)
        for problem in unsafe_words(node, harmful) if self.judges_quoting else ():
            self.problem(problem, part)
        known = node.root
        is_builtin = node.name.value in members_of(CommandClass.OF_EVERY_SHELL)
        if not known.exists and not known.documented and not known.page and not is_builtin:
            self.missing.add(node.name.value, line)
        elif known.documented:
            ours = node.known.facts.adds
            for option in (one for one in node.unknown if one not in ours):
                self.unknown.add(f"{node.known.words} {option}", line)
        for use in node.uses:
            if isinstance(use, OperandUse) and use.slot is not None:
                self.operand(use, part)

    def operand(self, use: OperandUse, part: ScriptPart) -> None:
        """A file that a command reads or writes."""
        slot = use.slot
        if slot is None or slot.kind not in FILE_KINDS or use.lines or use.word.value == "-":
            return
        by_role = {OperandRole.SOURCE: self.reads, OperandRole.TARGET: self.writes}
        names = by_role.get(slot.role) if slot.role is not None else None
        if names is not None:
            names.add(_shown(use.word.text), part.line_of(use.word.start))

    def redirection(self, operator: str, target: str, part: ScriptPart, place: int) -> None:
        """A file that a redirection reads or writes."""
        sign = operator.lstrip("0123456789&")
        if not target or target in _NO_FILES or target[:1] == "&" or target.isdecimal():
            return
        if sign in ("<", "<>"):
            self.reads.add(_shown(target), part.line_of(place))
        if sign in (">", ">>", ">|", "<>"):
            self.writes.add(_shown(target), part.line_of(place))


def _is_slip(problem: Problem, part: ScriptPart) -> bool:
    """Whether a name is one letter off, and no tool that is only not here, as scripts try many."""
    name = part.fragment.text[problem.start : problem.end]
    return any(distance(name, near) <= 1 for near in problem.nearest)


def functions_in(text: str) -> set[str]:
    """The names of functions that a text defines, by its lines."""
    found = re.findall(r"^\s*(?:function\s+([\w:.-]+)|([\w:.-]+)\s*\(\s*\))", text, re.MULTILINE)
    return {first or second for first, second in found}


def _shown(text: str) -> str:
    """A name without the quotes around it."""
    return text[1:-1] if len(text) > 1 and text[0] == text[-1] and text[0] in "\"'" else text
