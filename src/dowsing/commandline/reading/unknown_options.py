"""Words spelled as options that no table has: what is still known of them, and whether they are
mistakes.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Meaning, ProblemCode
from dowsing.commandline.judging.value_checks import nearest_flags
from dowsing.commandline.model.tree import WordUse
from dowsing.commandline.model.word_problems import wrong_option
from dowsing.model.roles import Role
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.command import Command, Spelling
    from dowsing.commandline.reading.command_reading import CommandReading

_HELP = {"--help": Meaning.HELP_BY_CUSTOM, "--version": Meaning.VERSION_BY_CUSTOM}
#: A number below zero, a place in a file.
_NUMBER = re.compile(r"-\d[\d.:]*")


class UnknownOptions:
    """Reads the options of a command that no table has."""

    def __init__(self, reading: CommandReading) -> None:
        self.reading = reading

    def read(self, word: Word, flag: str) -> None:
        """An option that no table has: one that a text mentions, one that is not documented, or a
        mistake.
        """
        reading, known = self.reading, self.reading.known
        reading.node.unknown.append(flag)
        if flag in _HELP:
            reading.take_loose(word, flag, page=known.page or None, meaning=told(_HELP[flag]))
            return
        teller = known if known.spellings or known.parent is None else known.parent
        if not teller.documented or not teller.spellings:
            self._undocumented(word, flag)
        elif teller is not known and not teller.has_manual:  # its own options stand elsewhere
            reading.take_loose(word, flag, meaning=told(Meaning.NOT_TOLD, teller.page))
        elif word.dynamic and "$" in flag:
            reading.take_loose(word, flag, meaning=told(Meaning.DYNAMIC_OPTION))
        elif _NUMBER.fullmatch(word.value) or word.value[0] == "+":
            reading.operands.operand(word)
        else:
            self._not_told(word, flag, teller)

    def _not_told(self, word: Word, flag: str, teller: Command) -> None:
        """An option that `teller`, whose text tells of others, has none of."""
        known, loose = self.reading.known, self.reading.take_loose
        place = word.value.find(flag[1:], 1) if len(flag) == 2 and len(word.value) > 2 else None
        near = nearest_flags(flag, known.all_flags)
        page = self._mentioned(flag, known, may_seek=not near)
        if page:
            loose(word, flag, place=place, page=page, meaning=told(Meaning.ONLY_MENTIONED))
            return
        contrary = self._contrary(flag)
        if contrary is not None:
            loose(word, flag, meaning=told(Meaning.CONTRARY_NOT_TOLD, teller.page, contrary.flag))
        elif self._may_be_one(flag, near):
            loose(word, flag, place=place, meaning=told(Meaning.NOT_TOLD, teller.page))
        else:
            reason = told(ProblemCode.UNKNOWN_OPTION, known.page, flag)
            loose(word, flag, place=place, problem=wrong_option(word, flag, reason, near, place))

    def _mentioned(self, flag: str, known: Command, may_seek: bool) -> str:
        """The page whose text speaks of an option somewhere, "" if none does."""
        if flag in self.reading.rules.untagged.get(known.name, ()):
            return known.page
        seek = self.reading.finder.mentions
        page = seek(known, flag, may_seek)
        if not page and known.parent is not None:
            page = seek(known.parent, flag, may_seek)
        return page

    def wrong_letter(self, value: str) -> str:
        """Of a cluster the letter that is not known, else the whole word."""
        known = self.reading.known
        letters = value[1:].partition("=")[0]
        if self.reading.options.mostly_long or len(letters) < 2 or not letters.isalnum():
            return value.partition("=")[0]
        are_known = [known.spelling("-" + letter) is not None for letter in letters]
        if not known.single_letters or not are_known[0]:
            return value.partition("=")[0]
        return "-" + letters[are_known.index(False)] if False in are_known else value

    def _contrary(self, flag: str) -> Spelling | None:
        """The switch whose contrary a spelling is by custom: `--no-color`, or `--color` where only
        the other is told of.
        """
        if flag[:2] != "--":
            return None
        other = f"--{flag[5:]}" if flag[:5] == "--no-" else f"--no-{flag[2:]}"
        found = self.reading.known.spelling(other)
        return found if found is not None and not found.needs else None

    def _may_be_one(self, flag: str, near: list[str]) -> bool:
        """Whether what no table has may be an option all the same: where the tables are not whole,
        or of another version than the program.
        """
        reading = self.reading
        if reading.node.is_lost or reading.root_name in reading.rules.shortened:
            return True
        if not reading.known.is_complete:
            # what goes on behind a spelling that is known is rather one of another name
            slips = [one for one in near if not flag.startswith(one)]
            return not (slips and flag.startswith("--"))
        return not near and reading.finder.is_from_elsewhere(reading.known)

    def _undocumented(self, word: Word, flag: str) -> None:
        """An option of a command whose options nothing tells; some are known to have a value."""
        reading, carrier = self.reading, self.reading.carrier
        use = reading.take_loose(word, flag, meaning=told(Meaning.UNDOCUMENTED_OPTION))
        runs = carrier is not None and word.value in carrier.strings
        valued = runs or (carrier is not None and word.value in carrier.valued)
        value = reading.next_word() if valued else None
        if value is None:
            return
        reading.take_value(WordUse(value, Role.VALUE), use)
        if runs and not value.dynamic:
            use.lines = reading.line_in(value, value.value)
