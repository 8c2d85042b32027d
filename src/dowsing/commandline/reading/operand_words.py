"""Words that a command works on: operands, keys and bundles of letters without a dash, the signs of
a test, a script with its arguments.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Manner, Meaning, ProblemCode
from dowsing.commandline.model.mark_meanings import assignment_meaning
from dowsing.commandline.model.operands import best_fit
from dowsing.commandline.model.tree import OperandUse, OptionUse, WordUse
from dowsing.commandline.model.word_problems import problem_at
from dowsing.knowledge.command_classes import CommandClass, members_of
from dowsing.model.roles import Role
from dowsing.model.told import told
from dowsing.model.value_kinds import ValueKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.command import Command, Spelling
    from dowsing.commandline.reading.command_reading import CommandReading

_TEST_OPERATORS = frozenset(("=", "!=", "==", "!", "(", ")", "<", ">"))
_ASSIGNMENT = re.compile(r"[A-Za-z_]\w*\+?=")


class OperandWords:
    """Reads the words of a command that are no options."""

    def __init__(self, reading: CommandReading) -> None:
        self.reading = reading

    @property
    def known(self) -> Command:
        """What is known of the command that is being read."""
        return self.reading.known

    def operand(self, word: Word) -> None:
        """A subcommand, a word that is an option without a dash, or what the command works on."""
        reading, node, value = self.reading, self.reading.node, word.value
        if self.known.name in members_of(CommandClass.TEST) and self.of_test(word):
            return
        may_be_subcommand = not node.operands and not word.dynamic and not node.ended
        if may_be_subcommand and reading.subcommands.read(word):
            return
        if self.keyword(word):
            return
        if self.known.name in members_of(CommandClass.DECLARES) and _ASSIGNMENT.match(value):
            reading.take(WordUse(word, Role.ASSIGNMENT, meaning=assignment_meaning(value)))
            node.operands.append(OperandUse(word))
        elif self.script(word):
            pass
        elif value == "-":
            self.lone_dash(word)
        else:
            reading.take_operand(OperandUse(word))

    def bundle(self, word: Word) -> bool:
        """A first word of option letters without a dash, as `tar xzf` and `ps aux` have it."""
        reading, known = self.reading, self.known
        is_first = not reading.node.operands and not reading.node.used and reading.at == 1
        if known.name not in reading.rules.bundles or not is_first:
            return False
        if not re.fullmatch(r"[A-Za-z0-9]+", word.value):
            return False
        letters = [
            known.spellings.get(letter) or known.spellings.get("-" + letter)
            for letter in word.value
        ]
        spellings = [one for one in letters if one is not None]
        if len(spellings) < len(letters):
            return False
        waiting: list[OptionUse] = []
        for n, spelling in enumerate(spellings):
            use = OptionUse(spelling.flag, spelling, word, None, place=n)
            use.manner = told(Manner.NO_DASH)
            reading.take_option(use)
            if spelling.needs:
                self._bundled_value(use, word.value[n], len(waiting))
                waiting.append(use)
        for use in waiting:
            value = reading.next_word()
            if value is not None:
                kind = use.spelling.kind
                made = WordUse(value, Role.VALUE, page=use.spelling.page, kind=kind)
                reading.take_value(made, use)
        return True

    def _bundled_value(self, use: OptionUse, letter: str, waiting: int) -> None:
        """The value of a letter in a bundle: the next word that none of those `waiting` before it
        takes.
        """
        words, at = self.reading.words, self.reading.at + waiting
        use.kind = use.spelling.kind
        if at < len(words):
            use.value = words[at].value
            return
        flag = letter if use.flag == letter else "-" + letter
        place = use.word.start + (use.place or 0)
        reason = told(ProblemCode.MISSING_VALUE, flag, use.spelling.placeholder)
        use.problem = problem_at(use.word, reason, mark=(place, place + 1))

    def of_test(self, word: Word) -> bool:
        """The operators of a test between its operands, and what ends it; whether the word is
        such.
        """
        if word.value in _TEST_OPERATORS:
            meaning = told(Meaning.BRACKET_TEST, word.text)
            self.reading.take(WordUse(word, Role.OPERATOR, meaning=meaning))
            return True
        ends = word.value == "]" and self.reading.node.name.value == "["
        if ends:
            self.reading.node.closer = word
        return ends

    def lone_dash(self, word: Word) -> None:
        """A dash alone, most often a stream in the place of a file."""
        stands_for = self.reading.rules.lone_dash.get(self.known.words)
        stream = told(Meaning.STANDARD_STREAM)
        meaning = told(Meaning.BY_CONVENTION, stands_for) if stands_for else stream
        self.reading.take_operand(OperandUse(word, meaning=meaning, what="-"))

    def label(self) -> None:
        """Tell the operands by the form that fits best, once all words are read."""
        node = self.reading.node
        fit = best_fit(node.known, len(node.operands), node.flags)
        node.lacking = fit.lacking
        for use, slot in zip(node.operands, fit.slots, strict=True):
            use.slot = slot
            if slot is None:
                node.surplus.append(use)
            elif not use.what and use.manner is None:
                use.what, use.kind = slot.name, slot.kind

    def script(self, word: Word) -> bool:
        """The script of an interpreter: options after it are its own."""
        reading = self.reading
        if reading.interpreter not in reading.rules.scripts or reading.has_code:
            return False
        if reading.node.operands:
            return False
        reading.take_operand(OperandUse(word, Manner.SCRIPT, kind=ValueKind.FILE))
        reading.node.ends_early = True
        reading.script_rest = Manner.SCRIPT_ARGUMENT
        return True

    def keyword(self, word: Word) -> bool:
        """An option that has no dash: `dev eth0`, `bs=1M`; whether the word is one."""
        name, equals, attached = word.value.partition("=")
        spelling = self._spelling_of_key(name)
        if spelling is None or word.quoted or len(name) < 2:
            return False
        if equals and spelling.takes:
            self.reading.options.option(word, name, spelling, attached)
            return True
        if equals or word.value.endswith("="):
            return False
        self.reading.options.option(word, name, spelling, None)
        return True

    def _spelling_of_key(self, name: str) -> Spelling | None:
        known = self.known.parent if self.known.only and self.known.parent else self.known
        return known.spellings.get(name) if name and name[0] not in "-+" else None

    def plus_word(self, word: Word) -> None:
        """A word behind a plus sign that is no option."""
        stands_for = self.reading.rules.plus_words.get(self.known.name)
        if stands_for is None:
            self.operand(word)
        else:
            meaning = told(Meaning.BY_CONVENTION, stands_for)
            self.reading.take_other(OperandUse(word, meaning=meaning))
