"""The words of a command by what each is: options, their values, subcommands, operands, and the
command within it.

Reading follows the guidelines of POSIX.1-2017 (XBD 12.2) with what GNU getopt_long, the X toolkit's
single-dash long options and the BSD's bundles add, each as far as the command's own documentation
shows such options.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Manner, Meaning, ProblemCode
from dowsing.commandline.grammar.shell_words import SimpleCommand
from dowsing.commandline.model.command import Command
from dowsing.commandline.model.mark_meanings import assignment_meaning
from dowsing.commandline.model.tree import CommandNode, OperandUse, OptionUse, WordUse
from dowsing.commandline.model.word_problems import problem_at
from dowsing.commandline.reading.command_reading import CommandReading
from dowsing.commandline.reading.operand_words import OperandWords
from dowsing.commandline.reading.option_words import OptionWords
from dowsing.commandline.reading.subcommand_words import SubcommandWords
from dowsing.commandline.reading.unknown_options import UnknownOptions
from dowsing.index.convention_rows import conventions_of
from dowsing.knowledge.command_classes import CommandClass, members_of
from dowsing.model.roles import Role
from dowsing.model.told import Told, told
from dowsing.model.value_kinds import ValueKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.reading.command_finder import CommandFinder
    from dowsing.commandline.reading.command_reading import LinesWithin
    from dowsing.knowledge.conventions import Carrier

MOST_SUGGESTED = 12  # names that nothing knows for which those spelled like them are looked for
MOST_CARRIED = 24  # commands within commands, such as sudo env xargs …, that are taken apart
_ASSIGNMENT = re.compile(r"[A-Za-z_]\w*\+?=")
_EXPRESSION_OPERATORS = frozenset(("(", ")", "!", ",", "-o", "-or", "-a", "-and", "-not"))
_EARLIER_LINE = re.compile(r"!(?:!|-?\d+|\??[A-Za-z][\w./-]*)")
_COMPARISONS = frozenset(("=", "!=", "==", "<", ">"))
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
    """Reads the words of commands; `lines_within` those lines that stand within a word."""

    def __init__(self, finder: CommandFinder, lines_within: LinesWithin) -> None:
        self.finder, self.lines_within = finder, lines_within
        self.functions: frozenset[str] = frozenset()  # that the text defines
        self.looked_for = 0  # names that nothing knows, for which those like them were looked for

    def command(self, words: list[Word], depth: int) -> CommandNode | None:
        """Read a command. The node is what it is left in at its last word; None if the name is only
        known when it runs.
        """
        name = words[0]
        if name.dynamic:
            for word in words[1:]:
                if word.inner:
                    self.lines_within(word, depth, is_alone=word.is_substitution)
            return None
        known = self.finder.command(name.value)
        head = WordUse(name, Role.COMMAND)
        if name.value in self.functions:
            known = Command(name.value, name.value)
            head.meaning = told(Meaning.OWN_FUNCTION)
        elif is_earlier_line(name):
            head.meaning = told(Meaning.EARLIER_LINE)
        else:
            self._tell(head, known)
        reading = CommandReading(self.finder, self.lines_within, head, known, depth)
        reading.options = OptionWords(reading)
        reading.unknown = UnknownOptions(reading)
        reading.subcommands = SubcommandWords(reading)
        reading.operands = OperandWords(reading)
        return _CommandReader(self, reading).read(words[1:])

    def _tell(self, head: WordUse, known: Command) -> None:
        """What is told of the name of a command."""
        head.page = known.page or None
        head.manner = told(Manner.KEYWORD) if known.keyword else None
        if known.page or known.documented:
            head.says = known.summary
            return
        name = head.word.value
        if known.exists:
            head.meaning = told(Meaning.OWN_FILE if "/" in name else Meaning.UNDOCUMENTED)
            return
        head.meaning = told(Meaning.NOT_HERE)
        # what we know to run others is a tool that is not here, and no mistake
        if known.name in conventions_of(self.finder.store).carriers:
            return
        near, meant = self._suggested(name)
        head.nearest = meant or near
        if meant:
            head.problem = problem_at(head.word, told(ProblemCode.UNKNOWN_COMMAND), meant)

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


class _CommandReader:
    """Goes through the words of one command. `reader` reads the command that it may carry."""

    def __init__(self, reader: WordReader, reading: CommandReading) -> None:
        self.reader, self.reading = reader, reading
        self.node = reading.node
        self.carrying = reading.rules.expressions.get(reading.known.name)

    # --- the order of things
    # -------------------------------------------------------------------------

    def read(self, words: list[Word]) -> CommandNode:
        """The roles of all words behind the command's name."""
        reading, node = self.reading, self.node
        reading.words = words
        while (word := reading.next_word()) is not None:
            if self.is_behind_all(word):
                reading.script_rest = Manner.SCRIPT_ARGUMENT
            if reading.script_rest:
                reading.take_other(OperandUse(word, reading.script_rest))
            elif not (reading.operands.bundle(word) or self.inner(word)):
                self.one_word(word)
        reading.operands.label()
        node.wants_inner = self.wants_inner()
        node.needs_inner = node.wants_inner and not node.used
        needs = reading.carrier is not None and reading.carrier.needs
        lines = any(isinstance(use, OperandUse) and use.lines for use in node.uses)
        node.is_carrier_alone = needs and not node.carried and not lines
        return node

    def one_word(self, word: Word) -> None:
        """A word that neither begins the command within this one nor is behind all of its own."""
        if self.is_plain(word) or self.is_compared():
            if self.carrying is not None and word.value in _EXPRESSION_OPERATORS:
                self.joint(word)
            else:
                self.reading.operands.operand(word)
        elif self.is_dashed(word.value):
            self.reading.operands.operand(word)
        else:
            self.mark(word)

    def is_behind_all(self, word: Word) -> bool:
        """Whether a word with a dash stands where options have ended: behind the image of a
        container it goes to that.
        """
        carrier = self.reading.carrier
        is_closed = carrier is not None and carrier.closes and self.wants_inner()
        return is_closed and word.value[:1] == "-"

    def is_plain(self, word: Word) -> bool:
        """Whether a word can only be an operand: by its shape, or because options have ended."""
        value = word.value
        expanded = word.dynamic and value[:1] == "$"
        return self.node.ended or len(value) < 2 or value[0] not in "-+" or expanded

    def is_compared(self) -> bool:
        """Whether a word is what a test compares with, whatever it is spelled like."""
        at = self.reading.at
        is_test = self.reading.known.name in members_of(CommandClass.TEST)
        return is_test and at > 2 and self.reading.words[at - 2].value in _COMPARISONS

    def is_dashed(self, value: str) -> bool:
        """Whether this command takes such a word as an operand although it begins with a dash."""
        shape = self.reading.rules.dashed.get(self.reading.known.name)
        return shape is not None and re.fullmatch(shape, value) is not None

    def mark(self, word: Word) -> None:
        """A word that begins as an option does: an operator, the end of options, or an option."""
        reading, value = self.reading, word.value
        carrier = reading.carrier
        if value == "--":
            self.end_of_options(word)
        elif self.carrying is not None and value in _EXPRESSION_OPERATORS:
            self.joint(word)
        elif self.carrying is not None and value in self.carrying:
            self.test_that_runs(word)
        elif self.joins(value):
            meaning = _joining(value) or told(Meaning.TEST, value)
            page = reading.known.page or None
            reading.take(WordUse(word, Role.OPERATOR, page=page, meaning=meaning))
        elif carrier and value == carrier.after:
            reading.options.long(word)
            self.inner_command()
        elif value[0] == "+" and reading.known.facts.plus and reading.options.cluster(word):
            pass
        elif value[0] == "+" and not self.knows_plus(value):
            reading.operands.plus_word(word)
        elif value.startswith("--"):
            reading.options.long(word)
        else:
            reading.options.short(word)

    def end_of_options(self, word: Word) -> None:
        """A lone `--`, behind which some commands take another command."""
        self.node.ended = True
        page = self.reading.known.page or None
        use = WordUse(word, Role.OPTION, page=page, meaning=told(Meaning.ENDS_OPTIONS))
        use.flags = ["--"]
        self.reading.take(use)
        if self.reading.carrier and self.reading.carrier.after == "--":
            self.inner_command()

    def joins(self, value: str) -> bool:
        """Whether the word is an operator of the command's own between other words."""
        begun = bool(self.node.used or self.node.operands)
        return begun and value in self.reading.rules.operators.get(self.reading.known.name, ())

    def knows_plus(self, value: str) -> bool:
        """Whether the command has an option with that plus sign."""
        spellings = (value, value[:2])
        return any(self.reading.known.spelling(one) is not None for one in spellings)

    def wants_inner(self) -> bool:
        """Whether a command that carries another has all that stands before that one."""
        carrier = self.reading.carrier
        if carrier is None or carrier.never or carrier.after or carrier.string:
            return False
        return (
            self.may_carry(carrier)
            and not self.node.wanting
            and len(self.node.operands) >= carrier.before
        )

    # --- the command within it
    # -----------------------------------------------------------------------

    def inner(self, word: Word) -> bool:
        """Whether the command that this one carries begins with the word; if so, all of it is
        read.
        """
        reading, carrier = self.reading, self.reading.carrier
        if carrier is None or carrier.never or carrier.after or not self.may_carry(carrier):
            return False
        if word.value[:1] == "-" and not self.node.ended and len(word.value) > 1:
            return False
        if carrier.string:
            if self.node.operands or word.value == "-":
                return False
            use = reading.take_operand(OperandUse(word, Manner.LATER_LINE))
            use.lines = reading.line_in(word, word.value)
            return True
        if carrier.assignments and _ASSIGNMENT.match(word.value):
            meaning = assignment_meaning(word.value)
            reading.take(WordUse(word, Role.ASSIGNMENT, meaning=meaning))
            return True
        if len(self.node.operands) < carrier.before:
            return False
        if reading.known.name not in reading.rules.carriers and reading.finder.subcommand(
            reading.known, word.value
        ):
            return False
        reading.at -= 1
        self.inner_command()
        return True

    def may_carry(self, carrier: Carrier) -> bool:
        """Whether the options that are there let it carry a command."""
        if carrier.not_with and self.node.use_of(*carrier.not_with) is not None:
            return False
        return not carrier.given or self.node.use_of(*carrier.given) is not None

    def inner_command(self) -> None:
        """Read the rest of the words as the command that this one carries."""
        reading = self.reading
        rest = reading.words[reading.at :]
        reading.at = len(reading.words)
        if not rest:
            return
        if reading.depth >= MOST_CARRIED:
            for word in rest:
                reading.take_other(OperandUse(word, meaning=told(Meaning.TOO_DEEP)))
            return
        first = rest[0]
        is_line = first.quoted and re.search(r"\s", first.value)
        if reading.carrier is not None and reading.carrier.joined and is_line:
            for word in rest:
                use = reading.take_other(OperandUse(word, Manner.SHELL_LINE))
                use.lines = reading.line_in(word, word.value)
            return
        self.carry(rest)

    def carry(self, words: list[Word]) -> None:
        """Read a command that this one carries."""
        inner = self.reader.command(words, self.reading.depth + 1)
        self.node.inner = inner
        if inner is None:
            self.node.carried_unknown = SimpleCommand(words)
            return
        inner.carrier = self.node
        self.node.carried.append(inner)

    # --- expressions
    # ---------------------------------------------------------------------------------

    def joint(self, word: Word) -> None:
        """An operator between the tests of an expression."""
        known = self.reading.known
        spelling = known.spelling(word.value)
        use = WordUse(word, Role.OPERATOR, page=known.page or None)
        if spelling is not None:
            use.says, use.flags = spelling.option.text, spelling.option.flags
        if not use.says:
            use.meaning = _joining(word.value)
        self.reading.take(use)

    def test_that_runs(self, word: Word) -> None:
        """A test of an expression that runs a command up to `;` or `+`."""
        reading, value = self.reading, word.value
        end = reading.at
        while end < len(reading.words) and reading.words[end].value not in (";", "+"):
            end += 1
        inner = reading.words[reading.at : end]
        closer = reading.words[end] if end < len(reading.words) else None
        is_shown = closer is not None and closer.value == "+"
        text = " ".join(one.value for one in [*inner, *([closer] if closer and is_shown else [])])
        use = self._test(word, text, inner)
        if closer is None:
            use.problem = problem_at(word, told(ProblemCode.MISSING_CLOSER, value))
        use.kind = ValueKind.COMMAND
        reading.at = end + 1
        if inner:
            self.carry(inner)
        if closer is None:
            return
        if self.node.inner is not None:
            self.node.inner.closer = closer
        self.node.inner = None
        each = closer.value == ";"
        meaning = told(Meaning.ONCE_EACH if each else Meaning.AS_MANY_AS_FIT)
        page = reading.known.page or None
        use.closer = WordUse(closer, Role.OPERATOR, page=page, meaning=meaning)

    def _test(self, word: Word, text: str, inner: list[Word]) -> OptionUse | WordUse:
        """Take up such a test."""
        spelling = self.reading.known.spelling(word.value)
        if spelling is None:
            return self.reading.take_loose(word, word.value, attached=text)
        use = OptionUse(word.value, spelling, word, text)
        use.carries = True
        use.values = [WordUse(one, Role.VALUE) for one in inner]
        self.reading.take_option(use)
        return use


def is_earlier_line(name: Word) -> bool:
    """Whether the name of a command stands for a line run before: `!!`, `!tar`, `!-2`."""
    return not name.quoted and _EARLIER_LINE.fullmatch(name.text) is not None


def _joining(operator: str) -> Told | None:
    """What an operator of an expression means."""
    meaning = _JOINING.get(operator)
    return told(meaning) if meaning else None
