"""What is known of the command that a word names: its tables, and where each option is told."""

from __future__ import annotations

import os
import re

from dowsing.facts.command_table import CommandTable, make_table, unpack
from dowsing.facts.forms import Element, ElementKind, Form, Notation, parse_form
from dowsing.index.command_rows import command_table
from dowsing.model.entry import Entry, EntryKind
from dowsing.model.errors import Unreadable
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.index.store import Store
    from dowsing.knowledge.conventions import Carrier
    from dowsing.machine.settings import Settings
    from dowsing.model.document import Option

_LETTERS = re.compile(r"-[A-Za-z0-9?]\Z")


class Spelling:
    """An option under one of its spellings. `page` is the text that tells of it."""

    __slots__ = ("flag", "may_lack", "option", "page")

    def __init__(self, flag: str, option: Option, page: str, may_lack: bool = False) -> None:
        self.flag, self.option, self.page = flag, option, page
        self.may_lack = may_lack  # it has a tag without an argument as well

    @property
    def takes(self) -> bool:
        """Whether it takes an argument."""
        return self.option.argument is not None and self.flag not in self.option.bare

    @property
    def needs(self) -> bool:
        """Whether it cannot be without one; a list of them may be empty."""
        return (
            self.takes
            and not self.option.argument_optional
            and not self.may_lack
            and not (self.option.argument or "").endswith("...")
        )


class Known:
    """A command and its documentation. `builtin`: the user's shell takes the name itself.

    `parent` is the command that it is a subcommand of.
    `exists`: something of that name can be run here. `words`: what is typed for it.
    """

    def __init__(self, name: str, words: str, parent: Known | None = None) -> None:
        self.name = name
        self.words = words
        self.parent = parent
        self._tables: list[CommandTable] | None = []
        self._load: Callable[[], list[CommandTable]] | None = None
        self.page = ""
        self.path = ""
        self.summary = ""
        self.builtin = False
        self.keyword = False
        self.exists = True
        self.carrier: Carrier | None = (
            None  # how it carries another command, once that was found out
        )
        self.carrier_is_told = False
        self.only = ""  # of the forms of what it belongs to those that have this word
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
            found: dict[str, Spelling] = {}
            for n, table in enumerate(self.tables):
                page = self.page if not n else table.label
                for option in table.options:
                    for flag in option.flags:
                        known = found.get(flag)
                        if known is None or (
                            known.option.argument is None
                            and option.argument is not None
                            and (known.page, known.option.section) == (page, option.section)
                        ):
                            found[flag] = Spelling(flag, option, page, known is not None)
            self._spellings = found
        return self._spellings

    @property
    def forms(self) -> list[Form]:
        """Its forms; of a subcommand without a page of its own those of the page that have its
        word.
        """
        if self._forms is None:
            self._forms = self._read_forms()
        return self._forms

    def _read_forms(self) -> list[Form]:
        if self.only and self.parent is not None:
            found = [form for form in self.parent.forms if _has_word(form.elements, self.only)]
            written = [
                s.form
                for t in self.parent.tables
                for s in t.subcommands
                if s.name == self.only and s.form
            ]
            if not found and written:
                program = self.parent.name
                notation = Notation([program], [self.only])
                found = [parse_form(f"{program} {line}", notation) for line in written]
            return found
        return [form for table in self.tables for form in table.forms]

    @property
    def is_complete(self) -> bool:
        """Whether the tables may be taken to have all options: a usage text is short, and forms
        alone are no list.
        """
        own = self if self.tables or self.parent is None else self.parent
        if not own.tables or own.tables[0].source in (SourceName.USAGE, SourceName.BUILTIN_USAGE):
            return False
        return sum(bool(option.section) for table in own.tables for option in table.options) > 2

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


def _has_word(elements: list[Element], word: str) -> bool:
    """Whether the word stands among the elements, or in what they hold."""
    return any(
        one.text == word or _has_word(one.elements, word)
        for one in elements
        if one.what != ElementKind.OPTION
    )


class Tables:
    """Finds what is known of commands. `ask`: programs without other documentation are asked for
    their usage.

    `suggest`: for a command that nothing knows, those spelled like it are looked for.
    """

    def __init__(
        self, store: Store, settings: Settings, ask: bool = False, suggest: bool = True
    ) -> None:
        self.store = store
        self.suggest = suggest
        self.settings = settings
        self.ask = ask
        self._known: dict[str, Known] = {}
        #: Names that nothing knows, with those spelled like them and those of them that must be
        #: meant.
        self.suggested: dict[str, tuple[list[str], list[str]]] = {}

    def command(self, word: str) -> Known:
        """What is known of a command by the word that stands for it, which may be a path."""
        if word not in self._known:
            self._known[word] = self._find(word)
        return self._known[word]

    def is_here(self, word: str) -> bool:
        """Whether there is a page, a builtin or a program of that name, without reading any of
        them.
        """
        if any(
            entry.section == "builtin" or entry.section[:1] in ("1", "8", "6", "")
            for entry in self.store.named(word)
        ):
            return True
        return bool(self._executables(word))

    def _find(self, word: str) -> Known:
        name = os.path.basename(word) if "/" in word else word
        known = Known(name, word)
        if "/" in word and not word.startswith(("/bin/", "/usr/", "/sbin/", "/opt/")):
            known.exists = True  # a file of the user's own: what it takes is not known
            return known
        entries = self.store.named(name)
        page = next(
            (
                e
                for e in entries
                if e.section[:1] in ("1", "8", "6") and e.kind != EntryKind.SUBCOMMAND
            ),
            None,
        )
        page = page or next((e for e in entries if e.section[:1] in ("1", "8", "6")), None)
        shell = next((e for e in entries if e.section == "builtin"), None)
        if shell is not None and "/" not in word:
            self._from_shell(known, shell)
        if page is not None:
            self._from_page(known, page, name)
        if known.tables:
            known.tables.sort(key=lambda table: table.source != SourceName.MANUAL)
        if page is None and shell is None:
            self._from_usage(known, name, entries)
        if not known.page and known.tables:
            known.page = known.tables[0].label
        if not known.summary:
            known.summary = next((table.summary for table in known.tables if table.summary), "")
        if page is None and shell is None and not known.documented:
            known.exists = bool(self._executables(name)) or any(e.section == "" for e in entries)
        return known

    def _from_page(self, known: Known, entry: Entry, name: str) -> None:
        table = self.page_table(entry)
        known.path = entry.path
        known.page = f"{name}({entry.section})"
        known.summary = entry.summary
        if table is not None:
            known.tables.append(table)

    def page_table(self, entry: Entry) -> CommandTable | None:
        """The table of a manual page: the one that the index keeps, else worked out now."""
        data = command_table(self.store, entry.path)
        if data:
            return unpack(data)
        from dowsing.sources import page_files

        try:
            return make_table(
                page_files.read_page_file(
                    entry.path, entry.name, entry.section, package=entry.package, language=""
                )
            )
        except Unreadable:
            return None

    def _from_shell(self, known: Known, entry: Entry) -> None:
        from dowsing.machine.shells.choice import own_first
        from dowsing.sources.builtin import help_document

        rows = own_first(self.store.in_shells(known.name), self.store.shells(), self.settings)
        if not rows:
            return
        row = next((row for row in rows if row.text), rows[0])
        own = rows[0].shell == row.shell
        known.builtin = own or not rows[0].text
        known.keyword = row.kind == EntryKind.KEYWORD
        known.summary = row.summary
        known.page = f"{known.name}(builtin)"
        if row.text:
            known.tables.append(make_table(help_document(row)))

    def _from_usage(self, known: Known, name: str, entries: list[Entry]) -> None:
        from dowsing.sources import catalogue

        executables = self._executables(name)
        if not executables:
            return
        subject = catalogue.subject_of(
            name, entries[0] if entries else None, self.store, self.settings, ask=self.ask
        )
        for source in (SourceName.USAGE, SourceName.INFO):
            for held in catalogue.availability_of(subject, source):
                if held.present:
                    try:
                        document = catalogue.read(subject, held)
                    except Unreadable:
                        continue
                    known.tables.append(make_table(document))
                    known.page = known.page or (
                        document.label if source == SourceName.INFO else f"{name} --help"
                    )
                    known.summary = known.summary or document.summary
                    return

    def _executables(self, name: str) -> list[str]:
        from dowsing.machine.search_path import executables

        return executables(name, self.settings.search_path)

    def subcommand(self, known: Known, word: str) -> Known | None:
        """The page of a subcommand: `git commit`; None if there is none."""
        key = f"{known.words} {word}"
        if key in self._known:
            return self._known[key]
        if not re.fullmatch(r"[\w.:+-]+", word):
            return None
        for joined in (f"{known.name}-{word}", f"{known.name}_{word}"):
            for entry in self.store.named(joined):
                if entry.section[:1] not in ("1", "8") or joined not in (
                    entry.name,
                    *entry.aliases,
                ):
                    continue
                if (
                    entry.kind == EntryKind.SUBCOMMAND
                    or word in known.subcommands
                    or self._shows(entry, known.words, word)
                ):
                    found = Known(joined, key, known)
                    found.path, found.page, found.summary = (
                        entry.path,
                        f"{joined}({entry.section})",
                        entry.summary,
                    )
                    found.later(lambda entry=entry: [t for t in [self.page_table(entry)] if t])  # type: ignore[misc]
                    self._known[key] = found
                    return found
        return None

    def _shows(self, entry: Entry, program: str, word: str) -> bool:
        """Whether the forms of a page write it as a subcommand: `ip [ OPTIONS ] nexthop`."""
        table = self.page_table(entry)
        first = program.split(" ")[0]
        for line in table.lines if table else ():
            words = line.split(" ")
            if first in words and word in words[words.index(first) + 1 :][:7]:
                return True
        return False

    def mentions(self, known: Known, flag: str, everywhere: bool) -> str:
        """The text that has the flag as a word of its running text, "" if none of its own has.

        The last resort: it reads the manual page, and other texts too if `everywhere`.
        """
        from dowsing.model.document import document_text
        from dowsing.sources import catalogue

        pattern = re.compile(r"(?<![\w-])" + re.escape(flag) + r"(?![\w-])")
        entries = self.store.named(known.name)
        if not entries:
            return ""
        subject = catalogue.subject_of(known.name, entries[0], self.store, self.settings, ask=False)
        for source in (
            (
                SourceName.MANUAL,
                SourceName.INFO,
                SourceName.BUILTIN,
                SourceName.SHELL_MANUAL,
                SourceName.USAGE,
            )
            if everywhere
            else ("manual", "builtin")
        ):
            for held in catalogue.availability_of(subject, source):
                if not held.present:
                    continue
                try:
                    document = catalogue.read(subject, held)
                except Unreadable:
                    continue
                if document.section[:1] in ("1", "8", "6", "b", "") and pattern.search(
                    document_text(document.sections)
                ):
                    return document.label
        return ""
