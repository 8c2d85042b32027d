"""Words spelled as options that no table has: what is still known of them, and whether they are
mistakes.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Meaning, ProblemCode
from dowsing.commandline.judging.value_checks import nearest_flags
from dowsing.commandline.model.tree import WordUse
from dowsing.commandline.reading.option_words import OptionReader
from dowsing.model.roles import Role
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.command import Spelling

_HELP = ("--help", "--version")


class UnknownOptionReader(OptionReader):
    """Reads options, those that no table has too."""

    def wrong_letter(self, value: str) -> str:
        """Of a cluster the letter that is not known, else the whole word."""
        if self.mostly_long:
            return value.partition("=")[0]
        letters = value[1:].partition("=")[0]
        known = [self.known.spelling("-" + letter) is not None for letter in letters]
        if (
            self.known.single_letters
            and len(letters) > 1
            and known[:1] == [True]
            and letters.isalnum()
        ):
            return "-" + letters[known.index(False)] if False in known else value
        return value.partition("=")[0]

    def contrary(self, flag: str) -> Spelling | None:
        """The switch whose contrary a spelling is by custom: `--no-color`, or `--color` where only
        the other is told of.
        """
        if flag[:2] != "--":
            return None
        found = self.known.spelling(f"--{flag[5:]}" if flag[:5] == "--no-" else f"--no-{flag[2:]}")
        return found if found is not None and not found.needs else None

    def may_be_one(self, flag: str, near: list[str]) -> bool:
        """Whether what no table has may be an option all the same: where the tables are not whole,
        or of another version than the program.
        """
        if self.state.is_lost or self.root_name in self.rules.shortened:
            return True
        if not self.known.is_complete:
            return not (near and flag.startswith("--"))
        return not near and self.maker.finder.is_from_elsewhere(self.known)

    def unknown(self, word: Word, flag: str) -> None:
        """An option that no table has: one that a text mentions, one that is not documented, or a
        mistake.
        """
        known = self.known
        self.state.unknown.append(flag)
        if flag in _HELP:
            code = Meaning.HELP_BY_CUSTOM if flag == "--help" else Meaning.VERSION_BY_CUSTOM
            self.add_option(word, flag, None, page=known.page or None, meaning=told(code))
            return
        teller = known if known.spellings or known.parent is None else known.parent
        if not teller.documented or not teller.spellings:
            self.undocumented(word, flag)
            return
        if teller is not known and not teller.has_manual:  # its own options stand elsewhere
            self.add_option(word, flag, None, meaning=told(Meaning.NOT_TOLD, teller.page))
            return
        if word.dynamic and "$" in flag:
            self.add_option(word, flag, None, meaning=told(Meaning.DYNAMIC_OPTION))
            return
        if (
            re.fullmatch(r"-\d[\d.:]*", word.value) or word.value[0] == "+"
        ):  # a number below zero, a place in a file
            self.operand(word, False)
            return
        place = word.value.find(flag[1:], 1) if len(flag) == 2 and len(word.value) > 2 else None
        near = nearest_flags(flag, known.all_flags)
        seek = self.maker.finder.mentions
        untagged = self.rules.untagged.get(known.name, ())
        page = known.page if flag in untagged else seek(known, flag, not near)
        if not page and known.parent is not None:
            page = seek(known.parent, flag, not near)
        if page:
            self.add_option(
                word, flag, None, place=place, page=page, meaning=told(Meaning.ONLY_MENTIONED)
            )
            return
        contrary = self.contrary(flag)
        if contrary is not None:
            meaning = told(Meaning.CONTRARY_NOT_TOLD, teller.page, contrary.flag)
            self.add_option(word, flag, None, meaning=meaning)
            return
        if self.may_be_one(flag, near):
            self.add_option(
                word, flag, None, place=place, meaning=told(Meaning.NOT_TOLD, teller.page)
            )
            return
        problem = told(ProblemCode.UNKNOWN_OPTION, known.page, flag)
        self.add_option(word, flag, None, place=place, problem=problem, nearest=near)

    def undocumented(self, word: Word, flag: str) -> None:
        """An option of a command whose options nothing tells; some are known to have a value."""
        carrier = self.carrier
        runs = carrier is not None and word.value in carrier.strings
        valued = runs or (carrier is not None and word.value in carrier.valued)
        value = self.words[self.at] if valued and self.at < len(self.words) else None
        self.add_option(
            word,
            flag,
            None,
            meaning=told(Meaning.UNDOCUMENTED_OPTION),
            value=value.value if value else None,
        )
        if value is None:
            return
        self.at += 1
        self.add(value, Role.VALUE, of=flag, inside=runs)
        use = self.state.uses[-1]
        assert isinstance(use, WordUse)
        use.value_word = value
        if runs and not value.dynamic:
            use.lines = self.string_within(value, value.value)
