"""A command line taken apart into pieces."""

from __future__ import annotations

import re

from dowsing.commandline.annotate import annotate
from dowsing.commandline.effects import effects
from dowsing.commandline.option_words import PieceMaker, State
from dowsing.commandline.pieces import Piece, Unpicked
from dowsing.commandline.shell_grammar import Command, Item, Mark, Shell, Word, parse_shell
from dowsing.commandline.summary_sentence import sentence
from dowsing.commandline.tables import Tables
from dowsing.commandline.word_roles import WordReader
from dowsing.index.conventions import conventions_of
from dowsing.index.word_reader import verb_words

MOST_DEPTH = 8


def unpick(line: str, tables: Tables, aliases: dict[str, str] | None = None) -> Unpicked:
    """The pieces of a line, each with what it means and the text that says so. Never raises.

    `aliases`: the words that the shell puts another line in the place of.
    """
    found = LineReader(tables, aliases).read(line)
    pieces = annotate(found.pieces)
    return found.changed(
        pieces=pieces,
        says=sentence(pieces, verb_words(tables.store)),
        changes=effects(pieces, conventions_of(tables.store).effects),
    )


class LineReader:
    """Reads a line; `states` are those that its commands were left in, in order."""

    def __init__(self, tables: Tables, aliases: dict[str, str] | None = None) -> None:
        self.aliases = aliases or {}
        self.pieces: list[Piece] = []
        self.states: list[tuple[Command, State | None]] = []
        self.words = WordReader(PieceMaker(tables, self.pieces.append, self._line_within))

    def read(self, line: str) -> Unpicked:
        """The line taken apart."""
        shell = parse_shell(line)
        self._items(shell.items, 0)
        self.pieces.sort(key=lambda piece: piece.start)
        problem = None
        if shell.problem is not None:
            start, end, says = shell.problem
            problem = {"start": start, "end": end, "says": says, "nearest": []}
        return Unpicked(line, self.pieces, problem=problem)

    def last_state(self) -> State | None:
        """What the last command was left in: the innermost, of those that carry another; None if there is none."""
        state = self.states[-1][1] if self.states else None
        while state is not None and state.inner is not None:
            state = state.inner
        return state

    def _items(self, items: list[Item], depth: int) -> None:
        for item in items:
            if isinstance(item, Command):
                self._command(item, depth)
            else:
                self._mark(item, depth)

    def _command(self, command: Command, depth: int) -> None:
        words = command.words
        alias = self.aliases.get(words[0].text)
        if alias and depth < MOST_DEPTH:
            stands_for = parse_shell(alias).items
            if len(stands_for) == 1 and isinstance(stands_for[0], Command):
                first = words[0]
                own = [Word(first.text, word.value, first.start, first.end) for word in stands_for[0].words]
                self.pieces.append(
                    Piece(
                        first.text,
                        first.start,
                        first.end,
                        "command",
                        says=f"stands for: {alias}",
                        what="alias",
                        depth=depth,
                    )
                )
                at = len(self.pieces)
                self.words.command([*own, *words[1:]], depth)
                kept = [
                    piece.changed(what=piece.what or "by the alias") if piece.start == first.start else piece
                    for piece in self.pieces[at:]
                ]
                self.pieces[at:] = kept
                return
        at = len(self.pieces)
        state = self.words.command(words, depth)
        self.states.append((command, state))
        if words[0].value in ("[", "test"):
            self._test(words, at, depth)

    def _test(self, words: list[Word], at: int, depth: int) -> None:
        """The operators of a test between their operands."""
        for n in range(at, len(self.pieces)):
            piece = self.pieces[n]
            if piece.depth != depth:
                continue
            if piece.text in ("=", "!=", "==", "!", "(", ")", "\\(", "\\)", "<", ">") and piece.role == "operand":
                self.pieces[n] = piece.changed(role="operator", says=_TEST_SAYS.get(piece.text))
            elif piece.text == "]" and words[0].text == "[" and piece.role == "operand":
                self.pieces[n] = piece.changed(role="operator", says="ends the test")

    def _mark(self, mark: Mark, depth: int) -> None:
        what = mark.what
        says = _says(mark)
        inside = bool(mark.word and mark.word.inner)
        variables = f"${mark.word.variables[0]}" if mark.word and mark.word.variables else ""
        if mark.role == "redirection":
            what = variables
        self.pieces.append(
            Piece(
                mark.text, mark.start, mark.end, mark.role, says=says or None, what=what if what != "test" else "",
                depth=depth, inside=inside,
            )
        )  # fmt: skip
        if mark.word is not None and inside:
            self._substitutions(mark.word, depth + 1)

    def _line_within(self, word: Word, depth: int) -> None:
        """What stands within a word: its substitutions, or a line of its own."""
        if word.inner:
            last = self.pieces[-1]
            if (
                last.text == word.text
                and word.text in (inner.text for inner in word.inner)
                and last.role == "operand"
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
        shell: Shell = parse_shell(word.value)
        start = len(self.pieces)
        self._items(shell.items, depth)
        for n in range(start, len(self.pieces)):
            piece = self.pieces[n]
            if exact:
                span = [offset + place for place in piece.span]
                self.pieces[n] = piece.changed(start=piece.start + offset, end=piece.end + offset, span=span)
            else:
                self.pieces[n] = piece.changed(start=word.start, end=word.end, span=[])
        if shell.problem is not None and start < len(self.pieces):
            self.pieces[-1] = self.pieces[-1].changed(problem=shell.problem[2])

    def _substitutions(self, word: Word, depth: int) -> None:
        for inner in word.inner:
            stream = inner.text[:1] in "<>"
            says = (
                "what these commands print"
                if not stream
                else (
                    "a file name that gives what these commands print"
                    if inner.text[0] == "<"
                    else "a file name whose contents go to these commands"
                )
            )
            self.pieces.append(
                Piece(inner.text, inner.start, inner.end, "substitution", says=says, depth=depth, inside=True)
            )
            if depth < MOST_DEPTH:
                self._items(inner.items, depth + 1)


_TEST_SAYS = {"=": "equal", "==": "equal", "!=": "not equal", "!": "not", "<": "sorts before", ">": "sorts after"}

_OPERATORS = {
    "|": "what the command before prints goes to the one after",
    "|&": "what the command before prints, errors too, goes to the one after",
    "&&": "goes on only if the command before succeeded",
    "||": "goes on only if the command before failed",
    ";": "then",
    ";;": "ends this case",
    "&": "runs it in the background",
    "(": "begins a group that runs in a shell of its own",
    ")": "ends the group",
    "{": "begins a group",
    "}": "ends the group",
}
_KEYWORDS = {
    "if": "if what follows succeeds",
    "then": "what is done then",
    "else": "what is done otherwise",
    "elif": "otherwise, if what follows succeeds",
    "fi": "ends the if",
    "for": "once for each of the words",
    "in": "the words",
    "do": "what is done each time",
    "done": "ends the loop",
    "while": "as long as what follows succeeds",
    "until": "as long as what follows fails",
    "case": "by what a word looks like",
    "esac": "ends the case",
    "select": "lets one be chosen from a menu",
    "function": "a function of this name",
    "[[": "begins a test",
    "]]": "ends the test",
    "!": "turns success into failure and the other way round",
    "{": "begins a group",
    "}": "ends the group",
    "((": "begins a sum",
    "))": "ends the sum",
}
_TESTS = {
    "-e": "it exists", "-f": "it is a file", "-d": "it is a folder", "-r": "it can be read", "-w": "it can be written",
    "-x": "it can be run", "-s": "it is not empty", "-L": "it is a link", "-h": "it is a link", "-n": "it is not empty text",
    "-z": "it is empty text", "-v": "the variable is set", "-eq": "equal as numbers", "-ne": "not equal as numbers",
    "-lt": "less", "-le": "less or equal", "-gt": "more", "-ge": "more or equal", "-nt": "newer", "-ot": "older",
    "-ef": "the same file", "=~": "matches the pattern", "==": "matches", "=": "matches", "!=": "does not match",
    "&&": "and", "||": "or", "!": "not",
}  # fmt: skip
_TARGETS = {"/dev/null": "is thrown away", "/dev/stderr": "goes to the errors", "/dev/tty": "goes to the terminal"}


def _says(mark: Mark) -> str:
    """What a mark means."""
    if mark.role == "operator":
        return _TESTS.get(mark.text, "") if mark.what == "test" else _OPERATORS.get(mark.text, "")
    if mark.role == "keyword":
        return _KEYWORDS.get(mark.text, "")
    if mark.role == "assignment":
        name, _, value = mark.text.partition("=")
        return f"sets {name} to {value}" if value else f"empties {name}"
    if mark.role == "comment":
        return "a remark: the shell passes over it"
    if mark.role == "redirection":
        return redirection_says(mark.what, mark.word.value if mark.word else "")
    return ""


def redirection_says(operator: str, target: str) -> str:
    """What a redirection does, by its operator with the number before it, and its target."""
    if operator.startswith("here-document"):
        return "the text that the command reads" if operator.endswith("text") else "ends the text"
    match = re.fullmatch(r"(\d*|&)(<<<|<<-?|<>|<&|<|>\||>>|>&|>)(.*)", operator)
    if not match:
        return ""
    number, sign, rest = match[1], match[2], match[3]
    if sign in ("<<", "<<-"):
        return f"input is the lines that follow, up to {rest}"
    if sign == "<<<":
        return "input is this text"
    if sign == "<":
        return f"input comes from {target}"
    if sign == "<>":
        return f"opens {target} for reading and writing"
    streams = {"": "what it prints", "1": "what it prints", "2": "its errors", "&": "what it prints and its errors"}
    what = streams.get(number, f"stream {number}")
    if sign in (">&", "<&"):
        if target == "-":
            return f"closes {what}"
        where = {"1": "where its output goes", "2": "where its errors go"}.get(target, f"stream {target}")
        if not number and not target.isdecimal():
            return f"what it prints and its errors go to {target}"
        return f"{what} goes {where}" if number != "2" else f"its errors go {where}"
    goes = "go" if what != "what it prints" and not what.startswith("stream") else "goes"
    if target in _TARGETS:
        return (
            f"{what} {_TARGETS[target]}"
            if goes == "goes"
            else f"{what} {_TARGETS[target].replace('is', 'are', 1).replace('goes', 'go')}"
        )
    if sign == ">>":
        return f"{what} {goes} to the end of {target}"
    return f"{what} {goes} to {target}, whose contents are replaced"
