"""Reads a line: its words by the grammar of the shell, and each command by what is known of it."""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Manner, Meaning
from dowsing.commandline.grammar.shell_grammar import parse_shell
from dowsing.commandline.grammar.shell_words import (
    Item,
    Mark,
    Place,
    ShellLine,
    SimpleCommand,
    Word,
)
from dowsing.commandline.model.pieces import Piece, Unpicked
from dowsing.commandline.model.tree import CommandNode, Line, Pipeline, every_command
from dowsing.commandline.reading.piece_maker import PieceMaker
from dowsing.commandline.reading.word_roles import WordReader, assignment_meaning
from dowsing.knowledge.command_classes import CommandClass
from dowsing.model.roles import Role
from dowsing.model.told import Told, told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.reading.command_finder import CommandFinder

MOST_DEPTH = 8
_SUBSTITUTIONS = {"<": Meaning.FILE_OF_OUTPUT, ">": Meaning.FILE_FOR_INPUT}


class LineReader:
    """Reads a line. `line` is its tree, `lines` that and all that stand within words of it;
    `states` are those that commands were left in, in order.
    """

    def __init__(self, finder: CommandFinder, aliases: dict[str, str] | None = None) -> None:
        self.aliases = aliases or {}
        self.functions: frozenset[str] = frozenset()  # that are defined outside the text
        self.pieces: list[Piece] = []
        self.states: list[tuple[SimpleCommand, CommandNode | None]] = []
        self.line = Line()
        self.lines: list[Line] = []
        self.open: list[Line] = []  # that are being read, the outer before the inner
        self.words = WordReader(PieceMaker(finder, self.pieces, self._line_within))

    def read(self, line: str) -> Unpicked:
        """The line taken apart."""
        shell = parse_shell(line)
        self.words.functions = self.functions | set(_functions(shell.items))
        self.line = self._items(shell.items, 0)
        self.pieces.sort(key=lambda piece: piece.start)
        return Unpicked(line, self.pieces, problem=shell.problem)

    @property
    def commands(self) -> list[CommandNode]:
        """The commands of the line with those that they carry, the outer before the inner."""
        return every_command([node for _, node in self.states if node is not None])

    @property
    def pipelines(self) -> list[Pipeline]:
        """The commands between pipes, of all lines."""
        return [pipeline for line in self.lines for pipeline in line.pipelines]

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
        for item in items:
            if isinstance(item, SimpleCommand):
                line.parts.append(self._command(item, depth) or item)
            else:
                self._mark(item, depth)
                line.parts.append(item)
        self.open.pop()
        _note_inputs(line)
        return line

    def _command(self, command: SimpleCommand, depth: int) -> CommandNode | None:
        words = command.words
        alias = self.aliases.get(words[0].text)
        if alias and depth < MOST_DEPTH:
            stands_for = parse_shell(alias).items
            if len(stands_for) == 1 and isinstance(stands_for[0], SimpleCommand):
                first = words[0]
                own = [_implied(word, first) for word in stands_for[0].words]
                self.pieces.append(
                    Piece(
                        first.text,
                        first.start,
                        first.end,
                        Role.COMMAND,
                        meaning=told(Meaning.ALIAS, alias),
                        manner=told(Manner.ALIAS),
                        depth=depth,
                    )
                )
                at = len(self.pieces)
                state = self.words.command([*own, *words[1:]], depth)
                self._note(command, state)
                kept = [
                    _by_alias(piece) if piece.start == first.start else piece
                    for piece in self.pieces[at:]
                ]
                self.pieces[at:] = kept
                return state
        state = self.words.command(words, depth)
        self._note(command, state)
        return state

    def _note(self, command: SimpleCommand, state: CommandNode | None) -> None:
        if state is not None:
            state.written = command.words
        self.states.append((command, state))

    def _mark(self, mark: Mark, depth: int) -> None:
        inside = bool(mark.word and mark.word.inner)
        variables = mark.word.variables if mark.word else []
        what = f"${variables[0]}" if mark.role == Role.REDIRECTION and variables else ""
        manner = told(mark.code) if isinstance(mark.code, Manner) else None
        piece = Piece(
            mark.text,
            mark.start,
            mark.end,
            mark.role,
            meaning=meaning_of(mark),
            what=what,
            manner=manner,
            depth=depth,
            inside=inside,
        )
        self.pieces.append(piece)
        if mark.word is not None and inside:
            self._substitutions(mark.word, depth + 1)

    def _line_within(self, word: Word, depth: int) -> list[Line]:
        """What stands within a word: its substitutions, or a line of its own."""
        if word.inner:
            last = self.pieces[-1]
            if (
                last.text == word.text
                and word.text in (inner.text for inner in word.inner)
                and last.role == Role.OPERAND
            ):
                self.pieces.pop()  # the word is nothing but the substitution
                return self._substitutions(word, depth)
            return self._substitutions(word, depth + 1)
        if depth > MOST_DEPTH:
            return []
        at = word.text.find(word.value) if word.placed else -1
        place = Place(word.start, word.end, word.start + at if at >= 0 else None)
        shell: ShellLine = parse_shell(word.value)
        place.put(shell.items)
        start = len(self.pieces)
        line = self._items(shell.items, depth)
        if shell.problem is not None and start < len(self.pieces):
            self.pieces[-1] = self.pieces[-1].changed(problem=shell.problem.reason)
        return [line]

    def _substitutions(self, word: Word, depth: int) -> list[Line]:
        lines: list[Line] = []
        for inner in word.inner:
            meaning = told(_SUBSTITUTIONS.get(inner.text[:1], Meaning.OUTPUT_OF))
            self.pieces.append(
                Piece(
                    inner.text,
                    inner.start,
                    inner.end,
                    Role.SUBSTITUTION,
                    meaning=meaning,
                    depth=depth,
                    inside=True,
                )
            )
            if depth < MOST_DEPTH:
                around = self.open[-1] if self.open else self.line
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


def _by_alias(piece: Piece) -> Piece:
    """A piece of the line that an alias stands for."""
    return piece if piece.what or piece.manner else piece.changed(manner=told(Manner.BY_ALIAS))


def meaning_of(mark: Mark) -> Told | None:
    """What a mark of the shell means."""
    if mark.role == Role.OPERATOR:
        if isinstance(mark.code, Meaning) and mark.code is not Meaning.TEST:
            return told(mark.code)
        return told(Meaning.TEST if mark.code is Meaning.TEST else Meaning.OPERATOR, mark.text)
    if mark.role == Role.KEYWORD:
        return told(Meaning.KEYWORD, mark.text)
    if mark.role == Role.ASSIGNMENT:
        return assignment_meaning(mark.text)
    if mark.role == Role.COMMENT:
        return told(Meaning.COMMENT)
    if mark.role == Role.REDIRECTION:
        if isinstance(mark.code, Meaning):
            return told(mark.code)
        return told(Meaning.REDIRECTION, mark.operator, mark.word.value if mark.word else "")
    return None
