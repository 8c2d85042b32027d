"""A command line taken apart into pieces."""

from __future__ import annotations

from dowsing.commandline.piece_maker import PieceMaker
from dowsing.commandline.pieces import Piece, Problem, Unpicked
from dowsing.commandline.sayings import Manner, Meaning
from dowsing.commandline.shell_grammar import parse_shell
from dowsing.commandline.shell_words import Item, Mark, ShellLine, SimpleCommand, Word
from dowsing.commandline.tree import CommandNode, Pipeline, every_command
from dowsing.commandline.word_roles import WordReader, assignment_meaning
from dowsing.index.convention_rows import conventions_of
from dowsing.model.roles import Role
from dowsing.model.told import Told, told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.command_finder import CommandFinder

MOST_DEPTH = 8
_SUBSTITUTIONS = {"<": Meaning.FILE_OF_OUTPUT, ">": Meaning.FILE_FOR_INPUT}


def unpick(line: str, finder: CommandFinder, aliases: dict[str, str] | None = None) -> Unpicked:
    """The pieces of a line, each with what it means and the text that says so. Never raises.

    `aliases`: the words that the shell puts another line in the place of.
    """
    # only here, for those who ask what may come next need none of these
    from dowsing.commandline.annotate import annotate
    from dowsing.commandline.effects import effects
    from dowsing.index.word_reader import verb_words

    reader = LineReader(finder, aliases)
    found = reader.read(line)
    found = _with_problems(found, reader)
    pieces = annotate(found.pieces)
    return found.changed(
        pieces=pieces,
        changes=effects(
            reader.commands,
            reader.pipelines,
            conventions_of(finder.store).effects,
        ),
        verbs=verb_words(finder.store),
    )


def _with_problems(found: Unpicked, reader: LineReader) -> Unpicked:
    """The pieces with what a judge finds wrong. A problem of a place that is no piece, or of more
    than one, is the line's.
    """
    if found.problem is not None:  # what the shell cannot read is not judged any further
        return found
    from dowsing.commandline.judging import judge

    pieces = list(found.pieces)
    line_problem: Problem | None = None
    for problem in judge(reader.commands, reader.pipelines):
        place = (problem.start, problem.end)
        at = next((n for n, p in enumerate(pieces) if (p.start, p.end) == place), None)
        if at is None:
            line_problem = line_problem or problem
        elif not any(p.problem for p in pieces if (p.start, p.end) == place):
            pieces[at] = pieces[at].changed(
                problem=problem.reason, nearest=problem.nearest, grade=problem.grade
            )
    return found.changed(pieces=pieces, problem=line_problem)


class LineReader:
    """Reads a line; `states` are those that its commands were left in, in order, `pipelines` the
    commands between pipes.
    """

    def __init__(self, finder: CommandFinder, aliases: dict[str, str] | None = None) -> None:
        self.aliases = aliases or {}
        self.pieces: list[Piece] = []
        self.states: list[tuple[SimpleCommand, CommandNode | None]] = []
        self.pipelines: list[Pipeline] = []
        self.words = WordReader(PieceMaker(finder, self.pieces, self._line_within))

    def read(self, line: str) -> Unpicked:
        """The line taken apart."""
        shell = parse_shell(line)
        self._items(shell.items, 0)
        self.pieces.sort(key=lambda piece: piece.start)
        return Unpicked(line, self.pieces, problem=shell.problem)

    @property
    def commands(self) -> list[CommandNode]:
        """The commands of the line with those that they carry, the outer before the inner."""
        return every_command([node for _, node in self.states if node is not None])

    def last_state(self) -> CommandNode | None:
        """What the last command was left in: the innermost, of those that carry another; None if
        there is none.
        """
        state = self.states[-1][1] if self.states else None
        while state is not None and state.inner is not None:
            state = state.inner
        return state

    def _items(self, items: list[Item], depth: int) -> None:
        pipeline = Pipeline()
        self.pipelines.append(pipeline)
        for item in items:
            if isinstance(item, SimpleCommand):
                node = self._command(item, depth)
                if node is not None:
                    pipeline.commands.append(node)
                continue
            self._mark(item, depth)
            if item.role == Role.REDIRECTION:
                pipeline.redirections.append(item)
            elif item.role == Role.OPERATOR and item.text not in ("|", "|&"):
                pipeline = Pipeline()
                self.pipelines.append(pipeline)

    def _command(self, command: SimpleCommand, depth: int) -> CommandNode | None:
        words = command.words
        alias = self.aliases.get(words[0].text)
        if alias and depth < MOST_DEPTH:
            stands_for = parse_shell(alias).items
            if len(stands_for) == 1 and isinstance(stands_for[0], SimpleCommand):
                first = words[0]
                own = [
                    Word(first.text, word.value, first.start, first.end)
                    for word in stands_for[0].words
                ]
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
                self.words.command([*own, *words[1:]], depth)
                kept = [
                    _by_alias(piece) if piece.start == first.start else piece
                    for piece in self.pieces[at:]
                ]
                self.pieces[at:] = kept
                return None
        at = len(self.pieces)
        state = self.words.command(words, depth)
        self.states.append((command, state))
        if words[0].value in ("[", "test"):
            self._test(words, at, depth)
        return state

    def _test(self, words: list[Word], at: int, depth: int) -> None:
        """The operators of a test between their operands."""
        for n in range(at, len(self.pieces)):
            piece = self.pieces[n]
            if piece.depth != depth:
                continue
            if (
                piece.text in ("=", "!=", "==", "!", "(", ")", "\\(", "\\)", "<", ">")
                and piece.role == Role.OPERAND
            ):
                self.pieces[n] = piece.changed(
                    role=Role.OPERATOR, meaning=told(Meaning.BRACKET_TEST, piece.text)
                )
            elif piece.text == "]" and words[0].text == "[" and piece.role == Role.OPERAND:
                self.pieces[n] = piece.changed(role=Role.OPERATOR, meaning=told(Meaning.ENDS_TEST))

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

    def _line_within(self, word: Word, depth: int) -> None:
        """What stands within a word: its substitutions, or a line of its own."""
        if word.inner:
            last = self.pieces[-1]
            if (
                last.text == word.text
                and word.text in (inner.text for inner in word.inner)
                and last.role == Role.OPERAND
            ):
                self.pieces.pop()  # the word is nothing but the substitution
                self._substitutions(word, depth)
            else:
                self._substitutions(word, depth + 1)
            return
        if depth > MOST_DEPTH:
            return
        offset = word.start + max(word.text.find(word.value[:20]), 0) if word.value else word.start
        exact = word.text[offset - word.start : offset - word.start + len(word.value)] == word.value
        shell: ShellLine = parse_shell(word.value)
        start = len(self.pieces)
        self._items(shell.items, depth)
        for n in range(start, len(self.pieces)):
            piece = self.pieces[n]
            if exact:
                span = [offset + place for place in piece.span]
                self.pieces[n] = piece.changed(
                    start=piece.start + offset, end=piece.end + offset, span=span
                )
            else:
                self.pieces[n] = piece.changed(start=word.start, end=word.end, span=[])
        if shell.problem is not None and start < len(self.pieces):
            self.pieces[-1] = self.pieces[-1].changed(problem=shell.problem.reason)

    def _substitutions(self, word: Word, depth: int) -> None:
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
                self._items(inner.items, depth + 1)


def _by_alias(piece: Piece) -> Piece:
    """A piece of the line that an alias stands for."""
    return piece if piece.what or piece.manner else piece.changed(manner=told(Manner.BY_ALIAS))


def meaning_of(mark: Mark) -> Told | None:
    """What a mark of the shell means."""
    if mark.role == Role.OPERATOR:
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
