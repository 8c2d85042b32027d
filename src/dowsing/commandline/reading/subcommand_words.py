"""The words of a command that are its subcommands, or fail to be; and how it carries another
command.
"""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Manner, ProblemCode
from dowsing.commandline.model.command import Command
from dowsing.commandline.model.form_facts import carried_after, wants_command
from dowsing.commandline.model.tree import OperandUse
from dowsing.commandline.reading.unknown_options import UnknownOptionReader
from dowsing.index.command_rows import has_subcommands
from dowsing.knowledge.conventions import Carrier
from dowsing.model.nearness import nearest_words
from dowsing.model.roles import Role
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.shell_words import Word


class SubcommandReader(UnknownOptionReader):
    """Reads options and subcommands."""

    def subcommand(self, word: Word) -> bool:
        """A subcommand: by a page of its own, or listed in the command's text; whether the word is
        one or fails to be.
        """
        known, value = self.known, word.value
        page = self.maker.finder.subcommand(known, value)
        listed = known.subcommands
        short = ""
        if page is None and value not in listed and self.root_name in self.rules.shortened:
            short = next(
                (name for name in listed if name.startswith(value) or value.startswith(name)), ""
            )
            page = self.maker.finder.subcommand(known, short) if short else None
        if page is not None:
            self.state.known = page
            self.carrier = self.carrier_of(page)
            says = page.summary or listed.get(short or value)
            self.add(
                word,
                Role.SUBCOMMAND,
                page=page.page,
                says=says or None,
                manner=told(Manner.SHORT_FOR, short) if short else None,
            )
            return True
        inside = known.listed(short or value)
        if inside is not None:
            self.maker.finder.add_facts(inside)
            self.state.known = inside
            self.carrier = self.carrier_of(inside)
            name = inside.only
            manner = told(Manner.SHORT_FOR, name) if name != value else None
            self.add(
                word,
                Role.SUBCOMMAND,
                page=known.page,
                says=listed[name] or None,
                manner=manner,
            )
            return True
        if (
            not listed
            and known.parent is None
            and has_subcommands(self.maker.finder.store, known.name)
        ):
            near = self._subcommands_like(value) if re.fullmatch(r"[a-z][\w-]*", value) else []
            if near:
                problem = told(ProblemCode.NO_SUBCOMMAND, known.words, value)
                self.state.is_lost = True
                number = self.add(
                    word, Role.SUBCOMMAND, problem=problem, nearest=near, page=known.page
                )
                self.state.operands.append(OperandUse(word, number))
            return bool(near)
        if len(listed) < 3 or not re.fullmatch(r"[a-z][\w-]*", value) or word.quoted:
            return False
        near = nearest_words(value, list(listed), least=0.75)
        if not near and (known.parent is not None or not wants_command(known)):
            return False
        if self.maker.finder.mentions(
            known, value, everywhere=False
        ):  # its page speaks of it, if only in passing
            number = self.add(word, Role.SUBCOMMAND, page=known.page, manner=told(Manner.UNLISTED))
            self.state.operands.append(OperandUse(word, number))
            return True
        self.state.is_lost = True
        number = self.add(
            word,
            Role.SUBCOMMAND,
            problem=told(ProblemCode.UNLISTED_SUBCOMMAND, known.page, value),
            nearest=near,
            page=known.page,
        )
        self.state.operands.append(OperandUse(word, number))
        return True

    def _subcommands_like(self, value: str) -> list[str]:
        names = [entry.name for entry in self.maker.finder.store.of_family(self.known.name)]
        plain = [
            name.removeprefix(self.known.name + "-")
            for name in names
            if name.startswith(self.known.name + "-")
        ]
        return nearest_words(value, plain, least=0.75)

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
            and not has_subcommands(self.maker.finder.store, known.name)
            and not known.subcommands
        ):
            before = carried_after(known)
            if before is not None:
                carrier = Carrier({"before": before})
        return carrier
