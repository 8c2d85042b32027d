"""A command as it is known here: its options, forms and subcommands from all of its documents,
corrected by facts. docs/decisions/command-model.md says why it is put together at look-up.
"""

from __future__ import annotations

import re

from dowsing.facts.command_table import CommandTable, points_to
from dowsing.facts.forms import Element, ElementKind, Form, Notation, parse_form
from dowsing.knowledge.command_facts import NO_FACTS
from dowsing.model.document import Option
from dowsing.model.source_name import SourceName
from dowsing.model.value_kinds import ValueKind, value_kind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.knowledge.command_facts import CommandFacts
    from dowsing.knowledge.conventions import Carrier
    from dowsing.model.document import Subcommand
    from dowsing.model.values import Value

_LETTERS = re.compile(r"-[A-Za-z0-9?]\Z")
#: What a page prints where it has a default and no name for the value: `--as=""`, `--filename=[]`.
_NO_NAME = re.compile(r"(?:\"[^\"]*\"|'[^']*'|\[\]|[\d.]+\w*|)\Z")
_IN_BRACKETS = re.compile(r"\[[^\[\]]+\]\Z")  # all of it may be left out
#: `implies -r and --times`, `same as -vET`, up to the end of the sentence.
_IMPLIES = re.compile(
    r"\b(?:[Ii]mpl(?:ies|ying)|(?:[Ss]ame as|[Ee]quivalent to)) ((?:(?:specifying|using|giving) )?"
    r"-[^.;]*)"
)
_ONLY_IF = re.compile(r"\b(?:unless|if|when|not|except|but|or)\b")
_FLAG = re.compile(r"(?<![\w-])--?[A-Za-z0-9][\w-]*(?:=[\w,-]+)?")
LEAST_OPTIONS = 3  # listed by a page whose list may be taken to be whole


class Spelling:
    """An option under one of its spellings. `page` is the text that tells of it, "" if only our
    facts do. `fact` is what these say of its value.
    """

    __slots__ = ("fact", "flag", "may_lack", "option", "page")

    def __init__(
        self,
        flag: str,
        option: Option,
        page: str,
        may_lack: bool = False,
        fact: Value | None = None,
    ) -> None:
        self.flag, self.option, self.page, self.fact = flag, option, page, fact
        self.may_lack = may_lack  # it has a tag without an argument as well

    def turned_off_by(self, flag: str) -> bool:
        """Whether what was typed is the contrary of what the option's text says: `--no-color` where
        there is `--color` too, `+x` for `-x`.
        """
        if flag[:1] == "+":
            return self.flag[:1] == "-"
        return self.flag.startswith("--no-") and f"--{self.flag[5:]}" in self.option.flags

    @property
    def implies(self) -> list[str]:
        """The options that its text says it stands for as well, as they are spelled there."""
        found = _IMPLIES.search(self.option.text)
        return _FLAG.findall(found[1]) if found and not _ONLY_IF.search(found[0]) else []

    @property
    def takes(self) -> bool:
        """Whether it takes an argument."""
        return self.option.argument is not None and self.flag not in self.option.bare

    @property
    def needs(self) -> bool:
        """Whether it cannot be without one."""
        if not self.takes or self.option.argument_optional or self.may_lack:
            return False
        printed = self.option.argument or ""
        return not _IN_BRACKETS.match(printed) and not self.may_be_several

    @property
    def may_be_several(self) -> bool:
        """Whether words may follow it, as many as there are: `--list PATTERN...`."""
        if self.fact is not None:
            return self.fact.loose
        return self.takes and (self.option.argument or "").endswith("...")

    @property
    def kind(self) -> ValueKind:
        """The kind of its value."""
        if self.fact is not None:
            return self.fact.kind
        return value_kind(self.option.argument or "", self.option.text, self.option.values)

    @property
    def choices(self) -> list[str]:
        """The words that its value may be; [] if it may be anything."""
        return (self.fact.choices if self.fact is not None else self.option.values) or []

    @property
    def placeholder(self) -> str:
        """What to call its value: the page's name for it, else one made of its long spelling."""
        printed = self.option.argument or ""
        if self.fact is not None and self.fact.placeholder:
            return self.fact.placeholder
        if not _NO_NAME.match(printed):
            return printed
        long = next((flag for flag in self.option.flags if flag.startswith("--")), "")
        return re.split(r"[-.]", long.strip("-"))[-1].upper() or "VALUE"


class Command:
    """A command and what is known of it. `name`: what its pages are called, `git-commit`; `words`:
    what is typed for it, `git commit`; `parent`: the command that it is a subcommand of.
    """

    def __init__(self, name: str, words: str, parent: Command | None = None) -> None:
        self.name = name
        self.words = words
        self.parent = parent
        #: The name of the page that tells most of it, its path and its summary; "" without one.
        self.page = self.path = self.summary = ""
        self.builtin = False  # the user's shell takes the name itself
        self.keyword = False
        self.shell = ""  # whose builtin it is
        self.maker = ""  # the program of many in one that it is a part of, `busybox`
        self.exists = True  # something of that name can be run here
        self.facts: CommandFacts = NO_FACTS
        #: How it carries another command, once `carrier_is_told`.
        self.carrier: Carrier | None = None
        self.carrier_is_told = False
        self.only = ""  # of the forms of what it belongs to those that have this word
        self.deferred: list[CommandTable] = []  # of other pages that list its options
        #: Tables of pages that its own send to for what some options do.
        self.pointed_to: list[CommandTable] = []
        self._tables: list[CommandTable] | None = []
        self._load: Callable[[], list[CommandTable]] | None = None
        self._spellings: dict[str, Spelling] | None = None
        self._forms: list[Form] | None = None

    @property
    def tables(self) -> list[CommandTable]:
        """The tables of its own texts, read when first asked for."""
        if self._tables is None:
            self._tables = self._load() if self._load else []
        return self._tables

    def later(self, load: Callable[[], list[CommandTable]]) -> None:
        """Have the tables read by `load` when they are asked for."""
        self._tables, self._load = None, load

    @property
    def documented(self) -> bool:
        """Whether there is a text that lists options or forms."""
        return any(table.options or table.lines for table in self.tables)

    @property
    def spellings(self) -> dict[str, Spelling]:
        """All spellings of all options; the first text that has one counts, and the first that
        shows an argument.
        """
        if self._spellings is None:
            self._spellings = self._read_spellings()
            if not self._spellings and not self._has_page_above():
                self._spellings = self._told_by_facts()
            for one in self.facts.options:
                self._correct(one.flags, one.value, self._spellings)
        return self._spellings

    def _read_spellings(self) -> dict[str, Spelling]:
        found = self._own_spellings()
        for table in self.pointed_to:
            for option in table.options:
                for flag in option.flags:
                    known = found.get(flag)
                    if known is not None and points_to(known.option.text) == table.name:
                        told = known.option.changed(text=option.text)
                        found[flag] = Spelling(flag, told, known.page, known.may_lack)
        return found

    @property
    def has_manual(self) -> bool:
        """Whether a manual page tells of it, and not only what it prints of itself."""
        return any(table.source == SourceName.MANUAL for table in self.tables)

    def _has_page_above(self) -> bool:
        """Whether a manual page of what it belongs to may tell of its options."""
        above = self.parent
        while above is not None:
            if above.has_manual:
                return True
            above = above.parent
        return False

    def _told_by_facts(self) -> dict[str, Spelling]:
        """The options that our facts have words for, of a command that no page here tells of."""
        facts = self.facts
        named = " ".join(act.says for act in facts.clauses)
        with_value = {flag for flag, text in facts.adds.items() if "{" in text}
        with_value |= {
            flag for group in re.findall(r"\{[=!]?(-[^{}]+)\}", named) for flag in group.split("|")
        }
        with_value |= set(facts.languages)
        if self.parent is not None:  # those that its subcommands have in common
            with_value |= set(self.parent.facts.languages) & set(facts.adds)
        flags = [flag for flag in dict.fromkeys([*facts.adds, *with_value]) if _is_flag(flag)]
        return {
            flag: Spelling(flag, Option([flag], "VALUE" if flag in with_value else None), "")
            for flag in flags
        }

    def _own_spellings(self) -> dict[str, Spelling]:
        found: dict[str, Spelling] = {}
        for n, table in enumerate([*self.tables, *self.deferred]):
            page = self.page if not n and self.tables else table.label
            for option in table.options:
                for flag in option.flags:
                    known = found.get(flag)
                    if known is None or (
                        known.option.argument is None
                        and option.argument is not None
                        and (known.page, known.option.section) == (page, option.section)
                    ):
                        found[flag] = Spelling(flag, option, page, known is not None)
        return found

    def _correct(self, flags: list[str], value: Value | None, found: dict[str, Spelling]) -> None:
        """Have facts count: what the value of an option is, or that it takes none. An option that
        no page lists comes with them.
        """
        known = found.get(flags[0])
        option = known.option if known else Option(flags)
        text = self.facts.texts.get(flags[0], "")
        if text:
            option = option.changed(text=text)
        if value is None:
            option = option.changed(argument=None, written=[])
        else:
            named = value.placeholder or option.argument or value.kind.upper()
            option = option.changed(
                argument=named,
                argument_optional=value.optional,
                repeatable=option.repeatable or value.again,
                bare=[flag for flag in option.bare if flag not in flags],
            )
        told_apart = {flag for one in self.facts.options for flag in one.flags}
        others = [flag for flag in option.flags if flag not in told_apart]
        for flag in dict.fromkeys([*flags, *others]):
            page = known.page if known else ""
            found[flag] = Spelling(flag, option, page, fact=value)

    @property
    def forms(self) -> list[Form]:
        """Its forms; of a subcommand without a page of its own those of the page that have its
        word.
        """
        if self._forms is None:
            self._forms = self._read_forms()
        return self._forms

    def _read_forms(self) -> list[Form]:
        if self.facts.forms:
            takes_value = [
                flag
                for flag, one in self.spellings.items()
                if one.takes and not one.option.argument_optional
            ]
            notation = Notation(self.words.split(" "), [], takes_value)
            return [parse_form(line, notation) for line in self.facts.forms]
        found = [form for table in self.tables for form in table.forms]
        if found or not self.only or self.parent is None:
            return found
        return [form for form in self.parent.forms if has_word(form.elements, self.only)]

    @property
    def is_complete(self) -> bool:
        """Whether the tables may be taken to have all options: a usage text is short, forms alone
        are no list, and some pages leave options to others.
        """
        own = self if (self.tables and not self.only) or self.parent is None else self.parent
        if self.facts.open or own.facts.open:
            return False
        if not own.tables or own.tables[0].source in (SourceName.USAGE, SourceName.BUILTIN_USAGE):
            return False
        listed = sum(bool(option.section) for table in own.tables for option in table.options)
        return listed >= LEAST_OPTIONS

    def spelling(self, flag: str) -> Spelling | None:
        """The option of that spelling, here or in what the command belongs to."""
        found = self.spellings.get(flag)
        if found is None and self.parent is not None:
            found = self.parent.spelling(flag)
        return found

    def beginning(self, flag: str) -> list[Spelling]:
        """The long options that begin so."""
        found = [one for name, one in self.spellings.items() if name.startswith(flag)]
        return found or (self.parent.beginning(flag) if self.parent else [])

    @property
    def all_flags(self) -> list[str]:
        """All spellings, also those of what the command belongs to."""
        return [*self.spellings, *(self.parent.all_flags if self.parent else [])]

    @property
    def single_letters(self) -> bool:
        """Whether there are options of one letter, which may stand together."""
        return any(_LETTERS.match(flag) for flag in self.spellings)

    @property
    def subcommands(self) -> dict[str, str]:
        """Its subcommands with what is said of them."""
        return {one.name: one.text for table in self.tables for one in table.subcommands}

    def listed(self, word: str) -> Command | None:
        """The subcommand that its own texts list under that word, or under another word for it."""
        for table in self.tables:
            for one in table.subcommands:
                if word == one.name or word in one.aliases:
                    return self._inside(one, table)
        return None

    def _inside(self, told: Subcommand, table: CommandTable) -> Command:
        from dowsing.facts.form_options import options_of_forms

        inside = Command(f"{self.name}-{told.name}", f"{self.words} {told.name}", self)
        inside.page, inside.only, inside.summary = self.page, told.name, told.text
        lines = [f"{self.name} {told.form}"] if told.form else []
        options = [*told.options, *options_of_forms(lines, told.options)]
        if lines or options:
            own = table.changed(
                options=options,
                lines=lines,
                subcommands=[],
                notation=table.notation.changed(literals=[*table.notation.literals, told.name]),
            )
            inside.later(lambda: [own])
        return inside


def _is_flag(text: str) -> bool:
    """Whether a key of facts is an option: `-x`, `--long`, or a letter alone, as ps has them."""
    return re.fullmatch(r"--?[A-Za-z0-9][\w:-]*|[a-z]", text) is not None


def has_word(elements: list[Element], word: str) -> bool:
    """Whether the word stands among the elements, or in what they hold."""
    return any(
        one.text == word or has_word(one.elements, word)
        for one in elements
        if one.what != ElementKind.OPTION
    )
