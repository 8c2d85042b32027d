"""The pieces of a line: its tree in the order of the words, as the table and JSON have it."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Grade, Manner, Meaning
from dowsing.commandline.grammar.shell_words import SimpleCommand
from dowsing.commandline.languages import read_value
from dowsing.commandline.languages.held import read_held
from dowsing.commandline.languages.reading import Reading
from dowsing.commandline.languages.value_language import language_values
from dowsing.commandline.model.mark_meanings import mark_meaning, substitution_meaning
from dowsing.commandline.model.tree import CommandNode, OperandUse, OptionUse, WordUse
from dowsing.commandline.model.word_problems import mark_of
from dowsing.model.record import Record
from dowsing.model.roles import Role
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.problems import Problem
    from dowsing.commandline.grammar.shell_words import Mark, Word
    from dowsing.commandline.languages.reading import Part
    from dowsing.commandline.model.tree import Line, Use
    from dowsing.commandline.unpicked import Unpicked
    from dowsing.model.told import Told

_BY_MANNER = {
    Manner.CASE_PATTERN: "glob",
    Manner.ARITHMETIC: "arithmetic",
    Manner.FUNCTION_NAME: "",
}
_WITH_WORDS = frozenset((Role.OPERAND, Role.VALUE, Role.ASSIGNMENT, Role.REDIRECTION, Role.OPTION))
#: Operands that are lines of the shell, whether or not these are known before they run.
_LINES = frozenset((Manner.LATER_LINE, Manner.SHELL_LINE))
#: References to lines run before that nothing else is written like.
_HISTORY = r"!(?:[!$^*]|-?\d+)"
#: Of what the shell changes one has to be in the word.
_CHANGED = frozenset("$`*?[{~!")
_DIGIT = re.compile(r"-\d")


class Piece(Record):
    """A part of a line.

    `start` and `end` are the place of the word that it is cut from, in characters; `word` is that
    word where `text` is only a part of it (a letter of a cluster, `--name` of `--name=value`), else
    "". `span` is the exact place where it can be told. `role`: command, subcommand, option, value,
    operand, operator, redirection, assignment, substitution, keyword or comment. `flags` are all
    spellings of an option, `value` its value without the shell's quotes; `page` is the text that
    tells of it. `says` is what that text says, `meaning` what is known without it; `problem` is
    what is wrong, `nearest` what may be meant. `depth` counts the commands and substitutions around
    it; `of` is the option that a value belongs to; `what` is the name that a form has for an
    operand, or the variable in a redirection, `manner` how the word came to be what it is; `kind`
    is the kind of a value; `inside`: pieces within it follow; `plain` is a word without the shell's
    quotes; `parts` are the parts of a value that is a small language of its own, each with what it
    means. `turns_off`: it is the contrary of what `says` tells.
    """

    text: str
    start: int
    end: int
    role: Role
    flags: list[str] | None = None
    value: str | None = None
    page: str | None = None
    says: str | None = None
    meaning: Told | None = None
    problem: Told | None = None
    nearest: list[str] = []  # noqa: RUF012 - a record is immutable
    word: str = ""
    span: list[int] = []  # noqa: RUF012
    depth: int = 0
    of: str | None = None
    what: str = ""
    manner: Told | None = None
    kind: str = ""
    inside: bool = False
    builtin: bool = False
    plain: str | None = None
    parts: list[list[str]] = []  # noqa: RUF012
    turns_off: bool = False
    grade: Grade = Grade.ERROR


def pieces_of(found: Unpicked) -> list[Piece]:
    """The pieces of a line with what is wrong with each."""
    return judged_pieces(found)[0]


def judged_pieces(found: Unpicked) -> tuple[list[Piece], Problem | None]:
    """The pieces of a line with what is wrong with each, and what is wrong with the line as a
    whole: what the shell cannot read, else the first problem of a place that is no piece.
    """
    pieces = pieces_of_line(found.tree)
    of_line = found.problem
    for problem in found.judged:
        place = (problem.start, problem.end)
        there = [n for n, one in enumerate(pieces) if (one.start, one.end) == place]
        if not there:
            of_line = of_line or problem
        elif not any(pieces[n].problem for n in there):
            pieces[there[0]] = _with_problem(pieces[there[0]], problem)
    return pieces, of_line


def _with_problem(piece: Piece, problem: Problem) -> Piece:
    return piece.changed(problem=problem.reason, nearest=list(problem.nearest), grade=problem.grade)


def pieces_of_line(line: Line) -> list[Piece]:
    """The pieces of a line in order of appearance, with what was found wrong as they were read."""
    pieces = _Pieces()
    pieces.line(line, 0)
    return sorted(pieces.found, key=lambda one: one.start)


class _Pieces:
    """Goes through a line; `depth` counts the commands and substitutions around what is seen."""

    def __init__(self) -> None:
        self.found: list[Piece] = []
        self.within: dict[int, Line] = {}  # the lines of substitutions, by their `id`
        self.shown: set[int] = set()  # those of which there is a piece, and words put in
        self.parts: dict[tuple[int, int], list[Part]] = {}  # by use and word

    def line(self, line: Line, depth: int) -> None:
        """All of a line."""
        self.within |= {id(inner): within for inner, within in line.substitutions}
        first = len(self.found)
        for part in line.parts:
            if isinstance(part, CommandNode):
                self.command(part, depth)
            elif isinstance(part, SimpleCommand):
                self.unknown_command(part, depth)
            else:
                self.mark(part, depth)
        if line.problem is not None and len(self.found) > first:
            self.found[-1] = _with_problem(self.found[-1], line.problem)

    def command(self, node: CommandNode, depth: int) -> None:
        """A command with its words and what it carries."""
        first = len(self.found)
        self.note_languages(node)
        root = node.root
        head = node.head
        self.add(
            self.piece(head, depth).changed(
                builtin=root.builtin and head.meaning is None,
                nearest=list(head.nearest),
            )
        )
        for use in node.uses:
            if isinstance(use, OptionUse):
                self.option(use, depth)
            elif isinstance(use, OperandUse):
                self.operand(use, depth)
            else:
                self.word(use, depth)
        if node.closer is not None and node.name.value == "[":
            ends = WordUse(node.closer, Role.OPERATOR, meaning=told(Meaning.ENDS_TEST))
            self.add(self.piece(ends, depth))
        for inner in node.carried:
            self.command(inner, depth + 1)
        if node.carried_unknown is not None:
            self.unknown_command(node.carried_unknown, depth + 1)
        if node.alias:
            self.by_alias(node, depth, first)

    def by_alias(self, node: CommandNode, depth: int, first: int) -> None:
        """The word that stands for others, and those of the others that stand at its place."""
        written = node.written[0]
        place = (written.text, written.start, written.end)
        at = written.start
        self.found[first:] = [
            one.changed(manner=told(Manner.BY_ALIAS))
            if one.start == at and not (one.what or one.manner)
            else one
            for one in self.found[first:]
        ]
        meaning = told(Meaning.ALIAS, node.alias)
        manner = told(Manner.ALIAS)
        made = Piece(*place, Role.COMMAND, meaning=meaning, manner=manner, depth=depth)
        self.found.insert(first, made)

    def unknown_command(self, command: SimpleCommand, depth: int) -> None:
        """A command whose name is only known when it runs."""
        name, *rest = command.words
        head = WordUse(name, Role.COMMAND, meaning=told(Meaning.DYNAMIC_COMMAND))
        self.add(self.piece(head, depth))
        for word in rest:
            self.operand(OperandUse(word), depth)

    def mark(self, mark: Mark, depth: int) -> None:
        """An operator, a keyword, a redirection, an assignment, a comment, a name."""
        word = mark.word
        is_named = mark.role == Role.REDIRECTION and word is not None and word.variables
        self.add(
            Piece(
                mark.text,
                mark.start,
                mark.end,
                mark.role,
                meaning=mark_meaning(mark),
                what=f"${word.variables[0]}" if word is not None and is_named else "",
                manner=told(mark.code) if isinstance(mark.code, Manner) else None,
                depth=depth,
                inside=bool(word and word.inner),
            )
        )
        if word is not None:
            self.substitutions(word, depth + 1)

    def substitutions(self, word: Word, depth: int) -> None:
        """The substitutions in a word, with what stands in them."""
        for inner in word.inner:
            if id(inner) in self.shown:
                continue
            self.shown.add(id(inner))
            meaning = substitution_meaning(inner)
            place = (inner.text, inner.start, inner.end)
            self.add(Piece(*place, Role.SUBSTITUTION, meaning=meaning, depth=depth, inside=True))
            if id(inner) in self.within:
                self.line(self.within[id(inner)], depth + 1)

    def operand(self, use: OperandUse, depth: int) -> None:
        """An operand; one that is nothing but a substitution is told as that."""
        word = use.word
        if word.is_substitution:
            self.substitutions(word, depth)
            return
        if word.source is not None and not self.is_first_of(word.source):
            return
        is_line = use.manner is not None and use.manner.code in _LINES
        piece = self.piece(use, depth).changed(what=use.what, kind=use.kind)
        self.add(piece.changed(inside=True) if is_line else piece, self.parts_of(use, word))
        self.behind(use, depth)

    def is_first_of(self, source: Word) -> bool:
        """Whether no other word was shown that the shell makes of that one."""
        is_first = id(source) not in self.shown
        self.shown.add(id(source))
        return is_first

    def word(self, use: WordUse, depth: int) -> None:
        """A word that is neither an option of a table nor an operand."""
        piece = self.piece(use, depth).changed(flags=use.flags)
        if use.role == Role.OPTION and use.flag:
            value = use.value.word.value if use.value is not None else use.attached
            piece = piece.changed(
                **_cut(use.word, use.flag, use.place, use.problem),
                flags=None if use.problem else [use.flag],
                value=value,
                kind=use.kind,
            )
        self.add(piece)
        self.substitutions(use.word, depth + 1)
        if use.value is not None:
            self.value(use.value, use, depth)
        self.behind(use, depth)

    def option(self, use: OptionUse, depth: int) -> None:
        """An option with its values."""
        option = use.spelling.option
        flag = use.word.value[use.place or 0] if use.is_manner(Manner.NO_DASH) else use.flag
        flags = option.flags
        if _DIGIT.fullmatch(flag) and sum(bool(_DIGIT.fullmatch(one)) for one in flags) > 1:
            flags = [flag]
        value = "" if use.carries and not use.value else use.value
        self.add(
            self.piece(use, depth).changed(
                **_cut(use.word, flag, use.place, use.problem),
                flags=flags,
                value=value,
                kind=use.kind,
                turns_off=use.spelling.turned_off_by(use.flag),
            ),
            None if use.values else self.parts_of(use, use.word),
        )
        self.substitutions(use.word, depth + 1)
        if not use.carries:
            for one in use.values:
                self.value(one, use, depth)
        self.behind(use, depth)

    def value(self, value: WordUse, use: OptionUse | WordUse, depth: int) -> None:
        """The value of an option that stands apart."""
        piece = self.piece(value, depth).changed(of=use.flag, kind=value.kind)
        piece = piece.changed(inside=True) if use.lines else piece
        self.add(piece, self.parts_of(use, value.word))
        self.substitutions(value.word, depth + 1)

    def behind(self, use: Use, depth: int) -> None:
        """What stands within the word of a use, or ends what it carries."""
        if isinstance(use, OperandUse):
            self.substitutions(use.word, depth + 1)
        elif isinstance(use, (OptionUse, WordUse)) and use.closer is not None:
            self.add(self.piece(use.closer, depth).changed(of=use.flag))
        for line in use.lines:
            self.line(line, depth + 1)

    def piece(self, use: Use, depth: int) -> Piece:
        """The piece of a word, with what all of them have."""
        word = use.word.source or use.word
        made = Piece(
            word.text,
            word.start,
            word.end,
            use.role,
            page=use.page,
            says=use.says or None,
            meaning=use.meaning,
            depth=depth,
            manner=use.manner,
            inside=bool(word.inner),
            plain=word.value if word.quoted else None,
        )
        return _with_problem(made, use.problem) if use.problem is not None else made

    def add(self, piece: Piece, parts: list[Part] | None = None) -> None:
        """Take up a piece, with the parts of its value."""
        self.found.append(_with_parts(piece, parts))

    # --- values in small languages
    # -------------------------------------------------------------------

    def note_languages(self, node: CommandNode) -> None:
        """Read the values of a command that are written in a language."""
        for value in language_values(node):
            parts = read_held(value).parts
            if parts:
                self.parts.setdefault((id(value.use), id(value.word)), parts)

    def parts_of(self, use: Use, word: Word) -> list[Part] | None:
        """The parts of a value."""
        return self.parts.get((id(use), id(word)))


def _cut(word: Word, flag: str, place: int | None, problem: Problem | None) -> dict[str, object]:
    """What the piece of an option has of its own word: the spelling, and where it stands."""
    bare = flag[:1] != "-" and place is not None  # a letter of a bundle without a dash
    span = (word.start + (place or 0), word.start + (place or 0) + 1) if bare else None
    marked = problem.mark if problem is not None else None
    return {
        "text": flag,
        "word": word.text if word.text != flag else "",
        "span": list(marked or span or mark_of(word, flag, place)) if word.placed else [],
    }


def _with_parts(piece: Piece, parts: list[Part] | None) -> Piece:
    """A piece with the parts of its value, and of what the shell does to its word."""
    rows = Reading(parts).rows if parts else []
    language = _shell_language(piece, bool(parts))
    if language:
        text = piece.word if piece.role == Role.OPTION else piece.text
        rows = [*read_value(language, text).rows, *rows]
    return piece.changed(parts=[list(row) for row in rows]) if rows else piece


def _shell_language(piece: Piece, has_language: bool) -> str:
    """How the shell reads the word of a piece before the command gets it, "" if there is nothing
    to say of that.
    """
    if piece.role not in _WITH_WORDS or (piece.role == Role.OPTION and not piece.word):
        return ""
    if piece.manner is not None and piece.manner.code in _BY_MANNER:
        return _BY_MANNER[piece.manner.code]
    if piece.role == Role.REDIRECTION and "(" in piece.text:
        return ""  # a substitution, whose commands follow
    text = piece.word if piece.role == Role.OPTION else piece.text
    if not _CHANGED & set(text):
        return ""
    is_earlier = text[:1] == "!" and re.fullmatch(_HISTORY, text)
    if piece.role == Role.OPERAND and is_earlier:
        return "history"
    is_name = piece.role in (Role.OPERAND, Role.VALUE) and not has_language
    is_test = piece.meaning is not None and piece.meaning.code is Meaning.TEST
    return "shell-word" if is_name and not is_test else "shell-data"
