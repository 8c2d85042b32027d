"""The words of one command as pieces: options, their values, subcommands, operands, and the command
within it.

Reading follows the guidelines of POSIX.1-2017 (XBD 12.2) with what GNU getopt_long, the X toolkit's
single-dash long options and the BSD's bundles add, each as far as the command's own documentation
shows such options.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Manner, Meaning, ProblemCode
from dowsing.commandline.model.command import Command
from dowsing.commandline.model.tree import CommandNode, OperandUse, WordUse
from dowsing.commandline.reading.operand_words import OperandReader
from dowsing.commandline.reading.piece_maker import PieceMaker
from dowsing.index.convention_rows import conventions_of
from dowsing.knowledge.command_classes import CommandClass, members_of
from dowsing.model.roles import Role
from dowsing.model.told import Told, told
from dowsing.model.value_kinds import ValueKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.pieces import Piece

MOST_SUGGESTED = 12  # names that nothing knows for which those spelled like them are looked for
MOST_CARRIED = 24  # commands within commands, such as sudo env xargs …, that are taken apart
_ASSIGNMENT = re.compile(r"[A-Za-z_]\w*\+?=")
_EXPRESSION_OPERATORS = frozenset(("(", ")", "!", ",", "-o", "-or", "-a", "-and", "-not"))
_EARLIER_LINE = re.compile(r"!(?:!|-?\d+|\??[A-Za-z][\w./-]*)")
_COMPARISONS = frozenset(("=", "!=", "==", "<", ">"))
_TEST_OPERATORS = frozenset(("=", "!=", "==", "!", "(", ")", "<", ">"))
_JOINING = {
    "(": Meaning.BEGINS_GROUP,
    ")": Meaning.ENDS_GROUP,
    "!": Meaning.NEGATES,
    "-not": Meaning.NEGATES,
    "-o": Meaning.EITHER,
    "-or": Meaning.EITHER,
    "-a": Meaning.BOTH,
    "-and": Meaning.BOTH,
    ",": Meaning.SECOND_COUNTS,
}


class WordReader:
    """Reads the words of commands into pieces."""

    def __init__(self, maker: PieceMaker) -> None:
        self.maker = maker
        self.finder = maker.finder
        self.functions: frozenset[str] = frozenset()  # that the text defines
        self.looked_for = 0  # names that nothing knows, for which those like them were looked for

    def command(self, words: list[Word], depth: int) -> CommandNode | None:
        """Read a command. The state is what it is left in at its last word; None if the name is not
        known here.
        """
        name = words[0]
        if name.dynamic:
            self.maker.add(
                self.maker.piece(name, Role.COMMAND, depth, meaning=told(Meaning.DYNAMIC_COMMAND))
            )
            self._rest(words[1:], depth)
            return None
        known = self.finder.command(name.value)
        if name.value in self.functions:
            known = Command(name.value, name.value)
            self.maker.add(
                self.maker.piece(name, Role.COMMAND, depth, meaning=told(Meaning.OWN_FUNCTION))
            )
        elif is_earlier_line(name):
            meaning = told(Meaning.EARLIER_LINE)
            self.maker.add(self.maker.piece(name, Role.COMMAND, depth, meaning=meaning))
        else:
            self.maker.add(self._command_piece(name, known, depth))
        return _CommandReader(self, name, known, depth).read(words[1:])

    def _command_piece(self, name: Word, known: Command, depth: int) -> Piece:
        piece = self.maker.piece(
            name,
            Role.COMMAND,
            depth,
            page=known.page or None,
            says=known.summary or None,
            builtin=known.builtin,
            manner=told(Manner.KEYWORD) if known.keyword else None,
        )
        if known.page or known.documented:
            return piece
        if known.exists:
            own = "/" in name.value
            return piece.changed(
                says=None, meaning=told(Meaning.OWN_FILE if own else Meaning.UNDOCUMENTED)
            )
        # what we know to run others is a tool that is not here, and no mistake
        is_tool = known.name in conventions_of(self.finder.store).carriers
        near, meant = ([], []) if is_tool else self._suggested(name.value)
        problem = told(ProblemCode.UNKNOWN_COMMAND) if meant else None
        meaning = told(Meaning.NOT_HERE)
        return piece.changed(says=None, meaning=meaning, problem=problem, nearest=meant or near)

    def _suggested(self, name: str) -> tuple[list[str], list[str]]:
        """What `_commands_like` gives, looked for once a name, and not for the hundreds that one
        line may have.
        """
        known = self.finder.suggested
        if name not in known:
            if not self.finder.suggest or self.looked_for >= MOST_SUGGESTED:
                return [], []
            self.looked_for += 1
            known[name] = self._commands_like(name)
        return known[name]

    def _commands_like(self, name: str) -> tuple[list[str], list[str]]:
        """Commands that are spelled like it, and those of them so nearly the same that one must be
        meant.
        """
        from dowsing.index.nearest_names import nearest_commands
        from dowsing.model.nearness import is_slip

        like = nearest_commands(self.finder.store, name)[:3]
        # what is no slip of the fingers may well be a tool not here
        return like, [one for one in like if is_slip(name, one)]

    def _rest(self, words: list[Word], depth: int) -> None:
        for word in words:
            self.maker.add(self.maker.piece(word, Role.OPERAND, depth))
            if word.inner:
                self.maker.line_of(word, depth)


class _CommandReader(OperandReader):
    """Reads the words of one command. `reader` reads the command that it may carry."""

    def __init__(self, reader: WordReader, name: Word, known: Command, depth: int) -> None:
        super().__init__(reader.maker, name, known, depth)
        self.reader = reader

    # --- the order of things
    # -------------------------------------------------------------------------

    def read(self, words: list[Word]) -> CommandNode:
        """The roles of all words behind the command's name."""
        self.words = words
        self.carrier = self.carrier_of(self.known)
        expression = self.rules.expressions.get(self.known.name)
        while self.at < len(words):
            word = words[self.at]
            self.at += 1
            if self.script_rest:
                self.other_operand(word, self.script_rest)
            elif self.is_behind_all(word):
                self.script_rest = Manner.SCRIPT_ARGUMENT
                self.other_operand(word, self.script_rest)
            elif self.bundle(word) or self.inner(word):
                pass
            elif self.is_plain(word) or self.is_compared():
                self.operand(word, expression is not None)
            elif self.is_dashed(word.value):
                self.operand(word, False)
            else:
                self.mark(word, expression)
        self.label_operands()
        self.state.wants_inner = self.wants_inner()
        self.state.needs_inner = self.state.wants_inner and not self.state.used
        needs = self.carrier is not None and self.carrier.needs
        lines = any(isinstance(use, OperandUse) and use.lines for use in self.state.uses)
        self.state.is_carrier_alone = needs and not self.state.carried and not lines
        return self.state

    def is_behind_all(self, word: Word) -> bool:
        """Whether a word with a dash stands where options have ended: behind the image of a
        container it goes to that.
        """
        is_closed = self.carrier is not None and self.carrier.closes and self.wants_inner()
        return is_closed and word.value[:1] == "-"

    def is_plain(self, word: Word) -> bool:
        """Whether a word can only be an operand: by its shape, or because options have ended."""
        value = word.value
        expanded = word.dynamic and value[:1] == "$"
        return self.state.ended or len(value) < 2 or value[0] not in "-+" or expanded

    def is_compared(self) -> bool:
        """Whether a word is what a test compares with, whatever it is spelled like."""
        before = self.words[self.at - 2].value if self.at > 1 else ""
        return (
            self.known.name in members_of(CommandClass.TEST)
            and before in _COMPARISONS
            and self.at > 2
        )

    def is_dashed(self, value: str) -> bool:
        """Whether this command takes such a word as an operand although it begins with a dash."""
        shape = self.rules.dashed.get(self.known.name)
        return shape is not None and re.fullmatch(shape, value) is not None

    def mark(self, word: Word, expression: list[str] | None) -> None:
        """A word that begins as an option does: an operator, the end of options, or an option."""
        value = word.value
        if value == "--":
            self.end_of_options(word)
        elif expression is not None and (value in _EXPRESSION_OPERATORS or value in expression):
            self.expression(word, expression)
        elif self.joins(value):
            meaning = _joining(value) or told(Meaning.TEST, value)
            self.add(word, Role.OPERATOR, page=self.known.page or None, meaning=meaning)
        elif self.carrier and value == self.carrier.after:
            self.long(word)
            self.inner_command()
        elif value[0] == "+" and self.known.facts.plus and self.cluster(word):
            pass
        elif value[0] == "+" and not self.knows_plus(value):
            self.plus_word(word)
        elif value.startswith("--"):
            self.long(word)
        else:
            self.short(word)

    def end_of_options(self, word: Word) -> None:
        """A lone `--`, behind which some commands take another command."""
        self.state.ended = True
        meaning = told(Meaning.ENDS_OPTIONS)
        self.state.uses.append(WordUse(word, Role.OPTION))
        self.add(word, Role.OPTION, flags=["--"], page=self.known.page or None, meaning=meaning)
        if self.carrier and self.carrier.after == "--":
            self.inner_command()

    def joins(self, value: str) -> bool:
        """Whether the word is an operator of the command's own between other words."""
        begun = bool(self.state.used or self.state.operands)
        return begun and value in self.rules.operators.get(self.known.name, ())

    def knows_plus(self, value: str) -> bool:
        """Whether the command has an option with that plus sign."""
        spellings = (value, value[:2])
        return any(self.known.spelling(one) is not None for one in spellings)

    def wants_inner(self) -> bool:
        """Whether a command that carries another has all that stands before that one."""
        carrier = self.carrier
        if carrier is None or carrier.never or carrier.after or carrier.string:
            return False
        return not self.state.wanting and len(self.state.operands) >= carrier.before

    # --- operands
    # ------------------------------------------------------------------------------------

    def inner(self, word: Word) -> bool:
        """Whether the command that this one carries begins with the word; if so, all of it is
        read.
        """
        carrier = self.carrier
        if carrier is None or carrier.never or carrier.after:
            return False
        if word.value[:1] == "-" and not self.state.ended and len(word.value) > 1:
            return False
        if carrier.string:
            if self.state.operands or word.value == "-":
                return False
            use = self.add_operand(word, Manner.LATER_LINE, inside=True)
            use.lines = self.string_within(word, word.value)
            return True
        if carrier.assignments and _ASSIGNMENT.match(word.value):
            self.add(word, Role.ASSIGNMENT, meaning=assignment_meaning(word.value))
            return True
        if len(self.state.operands) < carrier.before:
            return False
        if self.known.name not in self.rules.carriers and self.maker.finder.subcommand(
            self.known, word.value
        ):
            return False
        self.at -= 1
        self.inner_command()
        return True

    def inner_command(self) -> None:
        """Read the rest of the words as the command that this one carries."""
        rest = self.words[self.at :]
        self.at = len(self.words)
        if not rest:
            return
        if self.depth >= MOST_CARRIED:
            for word in rest:
                self.maker.add(
                    self.maker.piece(word, Role.OPERAND, self.depth, meaning=told(Meaning.TOO_DEEP))
                )
            return
        first = rest[0]
        if (
            self.carrier is not None
            and self.carrier.joined
            and first.quoted
            and re.search(r"\s", first.value)
        ):
            for word in rest:
                use = self.other_operand(word, Manner.SHELL_LINE, inside=True)
                use.lines = self.string_within(word, word.value)
            return
        self.carry(rest)

    def carry(self, words: list[Word]) -> None:
        """Read a command that this one carries."""
        inner = self.reader.command(words, self.depth + 1)
        self.state.inner = inner
        if inner is not None:
            inner.carrier = self.state
            self.state.carried.append(inner)

    def expression(self, word: Word, carrying: list[str]) -> None:
        """An operator of an expression, or a test that runs a command up to `;` or `+`."""
        value = word.value
        spelling = self.known.spelling(value)
        if value in _EXPRESSION_OPERATORS:
            says = spelling.option.text if spelling else ""
            self.add(
                word,
                Role.OPERATOR,
                page=self.known.page or None,
                says=says or None,
                meaning=None if says else _joining(value),
                flags=spelling.option.flags if spelling else None,
            )
            return
        end = self.at
        while end < len(self.words) and self.words[end].value not in (";", "+"):
            end += 1
        inner = self.words[self.at : end]
        closer = self.words[end : end + 1]
        text = " ".join(
            one.value for one in [*inner, *(closer if closer and closer[0].value == "+" else [])]
        )
        problem = None if closer else told(ProblemCode.MISSING_CLOSER, value)
        if spelling:
            use = self.use(word, value, spelling, text)
            use.value_words, use.carries = inner, True
        self.add_option(word, value, spelling, value=text, problem=problem, kind=ValueKind.COMMAND)
        self.at = end + 1
        if inner:
            self.carry(inner)
        if closer:
            if self.state.inner is not None:
                self.state.inner.closer = closer[0]
            self.state.inner = None
            each = closer[0].value == ";"
            meaning = told(Meaning.ONCE_EACH if each else Meaning.AS_MANY_AS_FIT)
            self.add(
                closer[0], Role.OPERATOR, of=value, page=self.known.page or None, meaning=meaning
            )

    def operand(self, word: Word, expression: bool) -> None:
        """A subcommand, a word that is an option without a dash, or what the command works on."""
        value = word.value
        if expression and value in _EXPRESSION_OPERATORS:
            self.expression(word, [])
            return
        if self.known.name in members_of(CommandClass.TEST) and self.of_test(word):
            return
        if (
            not self.state.operands
            and not word.dynamic
            and not self.state.ended
            and self.subcommand(word)
        ):
            return
        if self.keyword(word):
            return
        if self.known.name in members_of(CommandClass.DECLARES) and _ASSIGNMENT.match(value):
            number = self.add(word, Role.ASSIGNMENT, meaning=assignment_meaning(value))
            self.state.operands.append(OperandUse(word, number))
        elif self.script(word):
            pass
        elif value == "-":
            self.lone_dash(word)
        else:
            self.add_operand(word)

    def plus_word(self, word: Word) -> None:
        """A word behind a plus sign that is no option."""
        stands_for = self.rules.plus_words.get(self.known.name)
        if stands_for is None:
            self.operand(word, False)
        else:
            self.other_operand(word, meaning=told(Meaning.BY_CONVENTION, stands_for))


def is_earlier_line(name: Word) -> bool:
    """Whether the name of a command stands for a line run before: `!!`, `!tar`, `!-2`."""
    return not name.quoted and _EARLIER_LINE.fullmatch(name.text) is not None


def assignment_meaning(text: str) -> Told:
    """What `NAME=value` does."""
    name, _, value = text.partition("=")
    return told(Meaning.SETS, name, value) if value else told(Meaning.EMPTIES, name)


def _joining(operator: str) -> Told | None:
    """What an operator of an expression means."""
    meaning = _JOINING.get(operator)
    return told(meaning) if meaning else None
