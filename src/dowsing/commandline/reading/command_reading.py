"""One command while its words are read: what was taken up, where the reading stands, and the
readers of each sort of word.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Manner
from dowsing.commandline.grammar.shell_words import Word
from dowsing.commandline.model.form_facts import carried_after
from dowsing.commandline.model.tree import CommandNode, OptionUse, WordUse
from dowsing.index.command_rows import has_subcommands
from dowsing.index.convention_rows import conventions_of
from dowsing.knowledge.conventions import Carrier
from dowsing.model.roles import Role

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Protocol

    from dowsing.commandline.grammar.problems import Problem
    from dowsing.commandline.model.command import Command, Spelling
    from dowsing.commandline.model.tree import Line, OperandUse
    from dowsing.commandline.reading.command_finder import CommandFinder
    from dowsing.model.told import Told

    class LinesWithin(Protocol):
        """Reads the lines of the shell that stand within a word: its substitutions, or, where it
        has none, itself. `is_alone`: the word is nothing but a substitution.
        """

        def __call__(self, word: Word, depth: int, *, is_alone: bool = False) -> list[Line]: ...

    class ReadsOptions(Protocol):
        """Reads words that are options of a table."""

        @property
        def mostly_long(self) -> bool: ...

        def long(self, word: Word) -> None: ...

        def short(self, word: Word) -> None: ...

        def cluster(self, word: Word) -> bool: ...

        def option(
            self, word: Word, flag: str, spelling: Spelling, attached: str | None
        ) -> None: ...

    class ReadsUnknown(Protocol):
        """Reads words spelled as options that no table has."""

        def read(self, word: Word, flag: str) -> None: ...

        def wrong_letter(self, value: str) -> str: ...

    class ReadsSubcommands(Protocol):
        """Reads the word that names a subcommand, or fails to."""

        def read(self, word: Word) -> bool: ...

    class ReadsOperands(Protocol):
        """Reads words that are no options."""

        def bundle(self, word: Word) -> bool: ...

        def operand(self, word: Word) -> None: ...

        def plus_word(self, word: Word) -> None: ...

        def label(self) -> None: ...


class CommandReading:
    """The reading of one command. `carrier`: how it carries another one; `script_rest`: what the
    words belong to that are no options of the command any more; `has_code`: an interpreter was
    given its program on the line; `depth`: how many commands and words it stands within. The
    readers of each sort of word call each other through it.
    """

    options: ReadsOptions
    unknown: ReadsUnknown
    subcommands: ReadsSubcommands
    operands: ReadsOperands

    def __init__(
        self,
        finder: CommandFinder,
        lines_within: LinesWithin,
        head: WordUse,
        known: Command,
        depth: int,
    ) -> None:
        self.finder, self.lines_within, self.depth = finder, lines_within, depth
        self.node = CommandNode(head, known)
        self.rules = conventions_of(finder.store)
        self.node.leading = frozenset(self.rules.leading.get(known.name, ()))
        self.carrier: Carrier | None = self.carrier_of(known)
        self.words: list[Word] = []
        self.at = 0
        self.has_code = False
        self.script_rest: Manner | None = None

    @property
    def known(self) -> Command:
        """What is known of the command or, once that was read, of its subcommand."""
        return self.node.known

    @property
    def root_name(self) -> str:
        """The program, also where a subcommand is being read."""
        return self.node.root.name

    @property
    def interpreter(self) -> str:
        """The name of the command without a version: `python` of python3.11."""
        return re.sub(r"\d(\.\d+)?\Z", "", self.known.name)

    # --- taking words up
    # -----------------------------------------------------------------------------

    def next_word(self) -> Word | None:
        """The word to be read next, which is read with that; None at the end."""
        if self.at >= len(self.words):
            return None
        self.at += 1
        return self.words[self.at - 1]

    def look_within(self, word: Word) -> None:
        """Read the substitutions of a word."""
        if word.inner:
            self.lines_within(word, self.depth)

    def take(self, use: WordUse) -> WordUse:
        """Take up a word that is neither an option of a table nor an operand."""
        self.node.uses.append(use)
        self.look_within(use.word)
        return use

    def take_loose(  # noqa: PLR0913 - all but two by keyword
        self,
        word: Word,
        flag: str,
        *,
        place: int | None = None,
        attached: str | None = None,
        page: str | None = None,
        meaning: Told | None = None,
        problem: Problem | None = None,
    ) -> WordUse:
        """Take up an option that no table has."""
        use = WordUse(word, Role.OPTION, page=page, meaning=meaning, problem=problem)
        use.flag, use.place, use.attached = flag, place, attached
        return self.take(use)

    def take_option(self, use: OptionUse) -> OptionUse:
        """Take up that an option is there."""
        self.node.used.append(use)
        self.node.uses.append(use)
        self.look_within(use.word)
        return use

    def take_value(self, value: WordUse, use: OptionUse | WordUse) -> WordUse:
        """Take up the value of an option, or one of several, that stands apart."""
        if isinstance(use, OptionUse):
            use.values.append(value)
        else:
            use.value = value
        self.look_within(value.word)
        return value

    def take_operand(self, use: OperandUse) -> OperandUse:
        """Take up an operand. Which place of a form it has is told once all are there."""
        self.node.operands.append(use)
        return self.take_other(use)

    def take_other(self, use: OperandUse) -> OperandUse:
        """Take up an operand that is of no form."""
        self.node.uses.append(use)
        word = use.word
        if word.inner:
            self.lines_within(word, self.depth, is_alone=word.is_substitution)
        return use

    def line_in(self, word: Word, value: str) -> list[Line]:
        """The line that stands within a word; [] if it is not known before it runs."""
        if word.dynamic and value.startswith("$"):
            return []
        inner = Word(word.text, value, word.start, word.end)
        inner.quoted, inner.placed = word.quoted, word.placed
        return self.lines_within(inner, self.depth + 1)

    # --- how it carries another command
    # --------------------------------------------------------------

    def become(self, known: Command) -> None:
        """Go on with what is known of a subcommand."""
        self.node.known = known
        self.carrier = self.carrier_of(known)

    def carrier_of(self, known: Command) -> Carrier | None:
        """How the command carries another: as the conventions say, else as its forms show."""
        if not known.carrier_is_told:
            known.carrier, known.carrier_is_told = self._carrier_of(known), True
        return known.carrier

    def _carrier_of(self, known: Command) -> Carrier | None:
        carrier = self.rules.carriers.get(known.name)
        if (
            carrier is None
            and known.parent is None
            and not has_subcommands(self.finder.store, known.name)
            and not known.subcommands
        ):
            before = carried_after(known)
            if before is not None:
                carrier = Carrier({"before": before})
        return carrier

    def runs_its_value(self, flag: str) -> bool:
        """Whether the value of an option is a line that is run."""
        return self.carrier is not None and flag in self.carrier.strings
