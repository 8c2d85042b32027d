"""Words that a command works on: operands, keys and bundles of letters without a dash, the signs of
a test, a script with its arguments.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Manner, Meaning, ProblemCode
from dowsing.commandline.model.command import Spelling
from dowsing.commandline.model.operands import best_fit
from dowsing.commandline.model.tree import OperandUse
from dowsing.commandline.reading.subcommand_words import SubcommandReader
from dowsing.model.roles import Role
from dowsing.model.told import told
from dowsing.model.value_kinds import ValueKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word

_TEST_OPERATORS = frozenset(("=", "!=", "==", "!", "(", ")", "<", ">"))


class OperandReader(SubcommandReader):
    """Reads the words of a command that are no options."""

    def bundle(self, word: Word) -> bool:
        """A first word of option letters without a dash, as `tar xzf` and `ps aux` have it."""
        known = self.known
        if (
            known.name not in self.rules.bundles
            or self.state.operands
            or self.state.used
            or self.at != 1
            or word.value[:1] == "-"
            or not re.fullmatch(r"[A-Za-z0-9]+", word.value)
        ):
            return False
        letters = [
            known.spellings.get(letter) or known.spellings.get("-" + letter)
            for letter in word.value
        ]
        if not all(letters):
            return False
        waiting: list[Spelling] = []
        for n, spelling in enumerate(letters):
            assert spelling is not None
            value = None
            manner = told(Manner.NO_DASH)
            use = self.use(word, spelling.flag, spelling, None, place=n, manner=manner)
            if spelling.needs:
                place = self.at + len(waiting)
                value = self.words[place].value if place < len(self.words) else None
                use.value, use.value_words = value, self.words[place : place + 1]
                waiting.append(spelling)
            flag = word.value[n] if spelling.flag == word.value[n] else "-" + word.value[n]
            missing = spelling.needs and value is None
            self.add(
                word,
                Role.OPTION,
                text=word.value[n],
                word=word.text if len(word.value) > 1 else "",
                span=[word.start + n, word.start + n + 1],
                flags=spelling.option.flags,
                value=value,
                page=spelling.page,
                says=spelling.option.text or None,
                problem=told(ProblemCode.MISSING_VALUE, flag, spelling.placeholder)
                if missing
                else None,
                manner=manner,
                kind=spelling.kind if spelling.needs else "",
                group=spelling.option.section,
            )
        for spelling in waiting:
            if self.at < len(self.words):
                one = self.words[self.at]
                self.at += 1
                self.add(
                    one,
                    Role.VALUE,
                    of=spelling.flag,
                    kind=spelling.kind,
                    page=spelling.page,
                )
        return True

    def of_test(self, word: Word) -> bool:
        """The operators of a test between its operands, and what ends it; whether the word is
        such.
        """
        if word.value in _TEST_OPERATORS:
            self.add(word, Role.OPERATOR, meaning=told(Meaning.BRACKET_TEST, word.text))
            return True
        ends = word.value == "]" and self.state.name.value == "["
        if ends:
            self.state.closer = word
            self.maker.add(
                self.maker.piece(word, Role.OPERATOR, self.depth, meaning=told(Meaning.ENDS_TEST))
            )
        return ends

    def lone_dash(self, word: Word) -> None:
        """A dash alone, most often a stream in the place of a file."""
        stands_for = self.rules.lone_dash.get(self.known.words)
        stream = told(Meaning.STANDARD_STREAM)
        meaning = told(Meaning.BY_CONVENTION, stands_for) if stands_for else stream
        self.add_operand(word, meaning=meaning, what="-")

    def add_operand(self, word: Word, manner: Manner | None = None, **more: object) -> OperandUse:
        """Take up an operand. Which place of a form it has is told once all are there."""
        use = self.other_operand(word, manner, **more)
        self.state.operands.append(use)
        return use

    def other_operand(self, word: Word, manner: Manner | None = None, **more: object) -> OperandUse:
        """Take up an operand that is of no form."""
        if manner is not None:
            more["manner"] = told(manner)
        use = OperandUse(word, self.add(word, Role.OPERAND, **more), manner)
        self.state.uses.append(use)
        return use

    def label_operands(self) -> None:
        """Tell the operands by the form that fits best, once all words are read."""
        state = self.state
        fit = best_fit(state.known, len(state.operands), state.flags)
        state.lacking = fit.lacking
        for use, slot in zip(state.operands, fit.slots, strict=True):
            use.slot = slot
            piece = self.maker.pieces[use.piece]
            if slot is None:
                state.surplus.append(use)
            elif piece.role == Role.OPERAND and not piece.what and piece.manner is None:
                self.maker.pieces[use.piece] = piece.changed(what=slot.name, kind=slot.kind)

    def script(self, word: Word) -> bool:
        """The script of an interpreter: options after it are its own."""
        if self.interpreter not in self.rules.scripts or self.has_code:
            return False
        if self.state.operands:
            return False
        self.add_operand(word, Manner.SCRIPT, kind=ValueKind.FILE)
        self.state.ends_early = True
        self.script_rest = Manner.SCRIPT_ARGUMENT
        return True

    def keyword(self, word: Word) -> bool:
        """An option that has no dash: `dev eth0`, `bs=1M`; whether the word is one."""
        name, equals, attached = word.value.partition("=")
        known = self.known.parent if self.known.only and self.known.parent else self.known
        spelling = known.spellings.get(name) if name and name[0] not in "-+" else None
        if spelling is None or word.quoted or len(name) < 2:
            return False
        if equals and spelling.takes:
            self.option(word, name, spelling, attached)
            return True
        if equals or word.value.endswith("="):
            return False
        self.option(word, name, spelling, None)
        return True
