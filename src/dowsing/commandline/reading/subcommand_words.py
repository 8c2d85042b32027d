"""The words of a command that are its subcommands, or fail to be."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Manner, ProblemCode
from dowsing.commandline.model.form_facts import wants_command
from dowsing.commandline.model.tree import OperandUse, WordUse
from dowsing.commandline.model.word_problems import problem_at
from dowsing.index.command_rows import has_subcommands
from dowsing.model.nearness import nearest_words
from dowsing.model.roles import Role
from dowsing.model.told import Told, told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word
    from dowsing.commandline.model.command import Command
    from dowsing.commandline.reading.command_reading import CommandReading

#: How subcommands are spelled.
_NAME = re.compile(r"[a-z][\w-]*")
_LEAST_LISTED = 3  # a list of fewer is none of subcommands
_LEAST_NEAR = 0.75


class SubcommandWords:
    """Reads the first word behind a command that has subcommands."""

    def __init__(self, reading: CommandReading) -> None:
        self.reading = reading

    def read(self, word: Word) -> bool:
        """A subcommand: by a page of its own, or listed in the command's text; whether the word is
        one or fails to be.
        """
        known = self.reading.known
        listed = known.subcommands
        short = ""
        page = self.reading.finder.subcommand(known, word.value)
        if page is None:
            short = self._short_for(word.value, listed)
            page = self.reading.finder.subcommand(known, short) if short else None
        if page is not None:
            says = page.summary or listed.get(short or word.value) or ""
            manner = told(Manner.SHORT_FOR, short) if short else None
            self._is(word, page, page.page, says, manner)
            return True
        inside = known.listed(short or word.value)
        if inside is not None:
            self.reading.finder.add_facts(inside)
            name = inside.only
            manner = told(Manner.SHORT_FOR, name) if name != word.value else None
            self._is(word, inside, known.page, listed[name] or "", manner)
            return True
        return self._fails(word, listed)

    def _is(self, word: Word, known: Command, page: str, says: str, manner: Told | None) -> None:
        self.reading.become(known)
        self.reading.take(WordUse(word, Role.SUBCOMMAND, page=page, says=says, manner=manner))

    def _short_for(self, value: str, listed: dict[str, str]) -> str:
        """What a word is the beginning of, or the reverse, for a program that lets one shorten."""
        if value in listed or self.reading.root_name not in self.reading.rules.shortened:
            return ""
        return next(
            (name for name in listed if name.startswith(value) or value.startswith(name)), ""
        )

    def _fails(self, word: Word, listed: dict[str, str]) -> bool:
        """Whether a word fails to be a subcommand: others are told of, and it is none of them."""
        known, value = self.reading.known, word.value
        if (
            not listed
            and known.parent is None
            and has_subcommands(self.reading.finder.store, known.name)
        ):
            near = self._subcommands_like(value) if _NAME.fullmatch(value) else []
            if near:
                self._wrong(word, told(ProblemCode.NO_SUBCOMMAND, known.words, value), near)
            return bool(near)
        if len(listed) < _LEAST_LISTED or not _NAME.fullmatch(value) or word.quoted:
            return False
        near = nearest_words(value, list(listed), least=_LEAST_NEAR)
        is_sure = known.parent is None and wants_command(known) and known.has_manual
        if not near and not is_sure:
            return False  # help lists what is at hand: plug-ins and projects have more
        # its page speaks of it, if only in passing
        if self.reading.finder.mentions(known, value, everywhere=False):
            self._take(
                WordUse(word, Role.SUBCOMMAND, page=known.page, manner=told(Manner.UNLISTED))
            )
        else:
            self._wrong(word, told(ProblemCode.UNLISTED_SUBCOMMAND, known.page, value), near)
        return True

    def _wrong(self, word: Word, reason: Told, near: list[str]) -> None:
        self.reading.node.is_lost = True
        problem = problem_at(word, reason, near)
        page = self.reading.known.page
        self._take(WordUse(word, Role.SUBCOMMAND, page=page, problem=problem))

    def _take(self, use: WordUse) -> None:
        """Take up what may as well be an operand."""
        self.reading.take(use)
        self.reading.node.operands.append(OperandUse(use.word))

    def _subcommands_like(self, value: str) -> list[str]:
        name = self.reading.known.name
        names = [entry.name for entry in self.reading.finder.store.of_family(name)]
        plain = [one.removeprefix(name + "-") for one in names if one.startswith(name + "-")]
        return nearest_words(value, plain, least=_LEAST_NEAR)
