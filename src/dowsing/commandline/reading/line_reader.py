"""Reads a line: its words by the grammar of the shell, and each command by what is known of it."""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Manner
from dowsing.commandline.grammar.shell_grammar import parse_shell
from dowsing.commandline.grammar.shell_words import Item, Mark, Place, SimpleCommand, Word
from dowsing.commandline.model.tree import (
    CommandNode,
    Line,
    Pipeline,
    every_command,
    problems_of,
)
from dowsing.commandline.reading.word_roles import WordReader
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.roles import Role

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.problems import Problem
    from dowsing.commandline.reading.command_finder import CommandFinder
    from dowsing.commandline.reading.putting_in import Variables

MOST_DEPTH = 8


class LineReader:
    """Reads a line. `line` is its tree, `lines` that and all that stand within words of it;
    `problem` is what the shell cannot read; `puts_in`: what the shell is known to put into words
    is put in; `states` are those that commands were left in, in
    order.
    """

    def __init__(
        self,
        finder: CommandFinder,
        aliases: dict[str, str] | None = None,
        *,
        puts_in: bool = False,
    ) -> None:
        self.aliases = aliases or {}
        self.puts_in = puts_in
        self.functions: frozenset[str] = frozenset()  # that are defined outside the text
        self.states: list[tuple[SimpleCommand, CommandNode | None]] = []
        self.line = Line()
        self.lines: list[Line] = []
        self.problem: Problem | None = None
        self.variables: Variables | None = None  # whose values are known
        self.open: list[Line] = []  # that are being read, the outer before the inner
        self.words = WordReader(finder, self._lines_within)

    def read(self, line: str) -> Line:
        """The line as a tree."""
        shell = parse_shell(line)
        self.problem = shell.problem
        self.words.functions = self.functions | set(_functions(shell.items))
        if self.puts_in and ("{" in line or "$" in line):
            from dowsing.commandline.reading.putting_in import Variables

            self.variables = Variables(shell.items, line)
        self.line = self._items(shell.items, 0)
        return self.line

    @property
    def commands(self) -> list[CommandNode]:
        """The commands of the line with those that they carry, the outer before the inner."""
        return every_command([node for _, node in self.states if node is not None])

    @property
    def pipelines(self) -> list[Pipeline]:
        """The commands between pipes, of all lines."""
        return [pipeline for line in self.lines for pipeline in line.pipelines]

    @property
    def problems(self) -> list[Problem]:
        """What is wrong with words, in the order of the line."""
        return problems_of(self.commands, self.lines)

    @property
    def unnamed(self) -> list[SimpleCommand]:
        """The commands whose name is only known when the line runs."""
        found = [command for command, node in self.states if node is None]
        found += [node.carried_unknown for node in self.commands if node.carried_unknown]
        return found

    def last_state(self) -> CommandNode | None:
        """What the last command was left in: the innermost, of those that carry another; None if
        there is none.
        """
        state = self.states[-1][1] if self.states else None
        while state is not None and state.inner is not None:
            state = state.inner
        return state

    def _items(self, items: list[Item], depth: int) -> Line:
        line = Line()
        self.lines.append(line)
        self.open.append(line)
        for n, item in enumerate(items):
            if self.variables is not None and not depth:
                self.variables.note(item, items[n + 1] if n + 1 < len(items) else None)
            if isinstance(item, SimpleCommand):
                line.parts.append(self._command(item, depth) or item)
            else:
                if item.word is not None and item.word.inner:
                    self._substitutions(item.word, depth + 1)
                line.parts.append(item)
        self.open.pop()
        _note_inputs(line)
        return line

    def _command(self, command: SimpleCommand, depth: int) -> CommandNode | None:
        words = command.words
        alias = self.aliases.get(words[0].text, "") if depth < MOST_DEPTH else ""
        stands_for = parse_shell(alias).items if alias else []
        if len(stands_for) == 1 and isinstance(stands_for[0], SimpleCommand):
            own = [_implied(word, words[0]) for word in stands_for[0].words]
            words = [*own, *words[1:]]
        else:
            alias = ""
        if self.variables is not None:
            words = [words[0], *self.variables.put_in(words[1:])]
        node = self.words.command(words, depth)
        if node is not None:
            node.alias = alias
            node.written = command.words
        self.states.append((command, node))
        return node

    def _lines_within(self, word: Word, depth: int, *, is_alone: bool = False) -> list[Line]:
        """What stands within a word: its substitutions, or a line of its own."""
        if word.inner:
            return self._substitutions(word, depth if is_alone else depth + 1)
        if depth > MOST_DEPTH:
            return []
        at = word.text.find(word.value) if word.placed else -1
        place = Place(word.start, word.end, word.start + at if at >= 0 else None)
        shell = parse_shell(word.value)
        place.put(shell.items)
        line = self._items(shell.items, depth)
        if shell.problem is not None:
            start, end = place.of(shell.problem.start, shell.problem.end)
            line.problem = shell.problem.changed(start=start, end=end)
        return [line]

    def _substitutions(self, word: Word, depth: int) -> list[Line]:
        """The lines of the substitutions in a word, each read once."""
        around = self.open[-1] if self.open else self.line
        known = {id(inner): line for inner, line in around.substitutions}
        lines: list[Line] = []
        for inner in word.inner:
            if id(inner) in known:
                lines.append(known[id(inner)])
            elif depth < MOST_DEPTH:
                line = self._items(inner.items, depth + 1)
                around.substitutions.append((inner, line))
                lines.append(line)
        return lines


def _note_inputs(line: Line) -> None:
    """Note which commands are fed by the one before them, or from a file."""
    is_fed = False
    last: CommandNode | None = None
    for part in line.parts:
        if isinstance(part, Mark):
            if part.role == Role.REDIRECTION and part.operator[:1] == "<" and last is not None:
                _feed(last)
            if part.role in (Role.OPERATOR, Role.KEYWORD):
                is_fed, last = part.text in ("|", "|&"), None
        else:
            last = part if isinstance(part, CommandNode) else None
            if is_fed and last is not None:
                _feed(last)
            is_fed = False


def _feed(node: CommandNode) -> None:
    node.is_fed = True
    if not node.is_of(CommandClass.FILLS_IN):
        for one in node.carried:
            _feed(one)


def _functions(items: list[Item]) -> list[str]:
    """The names of the functions that are defined."""
    return [
        item.text for item in items if isinstance(item, Mark) and item.code is Manner.FUNCTION_NAME
    ]


def _implied(word: Word, alias: Word) -> Word:
    """A word of what an alias stands for, at the place of the alias."""
    made = Word(alias.text, word.value, alias.start, alias.end)
    made.placed = False
    return made
