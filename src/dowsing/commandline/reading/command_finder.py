"""Finds what is known here of the command that a word names."""

from __future__ import annotations

import os
import re
from functools import partial

from dowsing.commandline.model.command import Command
from dowsing.commandline.model.form_facts import wants_command
from dowsing.facts.command_table import CommandTable, make_table, unpack
from dowsing.index.command_rows import command_table
from dowsing.index.convention_rows import conventions_of
from dowsing.knowledge.command_facts import NO_FACTS
from dowsing.machine.installations import is_of_another
from dowsing.machine.many_in_one import maker_of
from dowsing.model.entry import NO_PAGE_REMARK, Entry, EntryKind
from dowsing.model.errors import Unreadable
from dowsing.model.source_name import OWN_HELP, SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store
    from dowsing.machine.settings import Settings
    from dowsing.model.document import Document

#: Pages beside that of a command that list options for it: `iptables-extensions`, `ffmpeg-all`.
_MORE_OPTIONS = ("extensions", "all", "options", "common", "full")

MOST_FOLLOWED = 3  # pages that texts of options point to


class CommandFinder:
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
        self._found: dict[str, Command] = {}
        #: Names that nothing knows, with those spelled like them and those of them that must be
        #: meant.
        self.suggested: dict[str, tuple[list[str], list[str]]] = {}

    def command(self, word: str) -> Command:
        """What is known of a command by the word that stands for it, which may be a path."""
        if word not in self._found:
            self._found[word] = self._find(word)
        return self._found[word]

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

    def _is_program(self, path: str) -> bool:
        """Whether a path is that of a program that its name alone would find as well."""
        is_of_system = path.startswith(("/bin/", "/usr/", "/sbin/", "/opt/"))
        return is_of_system or path in self._executables(os.path.basename(path))

    def _find(self, word: str) -> Command:
        name = os.path.basename(word) if "/" in word else word
        is_own = "/" in word and not self._is_program(word)
        known = Command(name, word if is_own else name)
        self.add_facts(known)
        if is_own:
            known.exists = True  # a file of the user's own: what it takes is not known
            return known
        entries = self.store.named(name)
        shell = next((e for e in entries if e.section == "builtin"), None)
        page = _page_of(entries)
        known.maker = maker_of(name, self.settings.search_path) if page is not None else ""
        if known.maker:
            page = None  # that of another
        if shell is not None and "/" not in word:
            self._from_shell(known, shell)
        if known.facts.shells and known.shell not in known.facts.shells:
            # of a shell that is not looked into here; of another it may be something else
            known.facts = NO_FACTS if known.shell else known.facts.sentences
        if page is not None:
            self._from_page(known, page, name)
        known.tables.sort(key=lambda table: table.source != SourceName.MANUAL)
        if page is None and shell is None:
            self._from_usage(known, name, entries)
        if not known.page and known.tables:
            known.page = known.tables[0].label
        if not known.summary:
            known.summary = next((table.summary for table in known.tables if table.summary), "")
        if page is None and shell is None and not known.documented:
            known.exists = self._may_run(word, name, entries)
        return known

    def _may_run(self, word: str, name: str, entries: list[Entry]) -> bool:
        """Whether something of that name can be run here, of which nothing else is known."""
        is_file = "/" in word and os.access(word, os.X_OK)
        return is_file or bool(self._executables(name)) or any(e.section == "" for e in entries)

    def add_facts(self, known: Command) -> None:
        """Give a command its facts, and the tables of the pages that list options for it."""
        known.facts = conventions_of(self.store).facts(known.words)
        for page in [*known.facts.pages, *(f"{known.name}-{end}" for end in _MORE_OPTIONS)]:
            for entry in self.store.named(page):
                table = self.page_table(entry) if entry.section[:1] in ("1", "8", "7") else None
                if table is not None:
                    known.deferred.append(table)

    def _from_page(self, known: Command, entry: Entry, name: str) -> None:
        table = self.page_table(entry)
        known.path = entry.path
        known.page = f"{name}({entry.section})"
        known.summary = entry.summary
        if table is not None:
            known.tables.append(table)
            self._follow(known, table)

    def _tables_of(self, known: Command, entry: Entry) -> list[CommandTable]:
        """The table of the page of a subcommand."""
        table = self.page_table(entry)
        if table is None:
            return []
        self._follow(known, table)
        return [table]

    def _follow(self, known: Command, table: CommandTable) -> None:
        """Have the tables of pages at hand that texts of options only point to."""
        for name in table.pointed_to[:MOST_FOLLOWED]:
            for entry in self.store.named(name):
                other = self.page_table(entry) if entry.path else None
                if other is not None:
                    known.pointed_to.append(other)

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

    def _from_shell(self, known: Command, entry: Entry) -> None:
        from dowsing.machine.shells.choice import own_first
        from dowsing.sources.builtin import help_document

        rows = own_first(self.store.in_shells(known.name), self.store.shells(), self.settings)
        if not rows:
            return
        row = next((row for row in rows if row.text), rows[0])
        own = rows[0].shell == row.shell
        known.builtin = own or not rows[0].text
        known.shell = row.shell
        known.keyword = row.kind == EntryKind.KEYWORD
        known.summary = row.summary
        known.page = f"{known.name}(builtin)"
        if row.text:
            known.tables.append(make_table(help_document(row)))

    def _from_usage(self, known: Command, name: str, entries: list[Entry]) -> None:
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
                    if source == SourceName.INFO and not _is_about(document, name):
                        continue
                    known.tables.append(make_table(document))
                    known.page = known.page or (
                        document.label if source == SourceName.INFO else name + OWN_HELP
                    )
                    told = document.summary or _told_by_package(entries)
                    known.summary = known.summary or told
                    return

    def _executables(self, name: str) -> list[str]:
        from dowsing.machine.search_path import executables

        return executables(name, self.settings.search_path)

    def is_from_elsewhere(self, known: Command) -> bool:
        """Whether the program that would run is not the one that its page came with: another
        version below /usr/local or in the user's own folders. What the page lacks says nothing
        then.
        """
        owner = known
        while owner.parent is not None and not owner.path:
            owner = owner.parent
        programs = self._executables(owner.name.partition("-")[0] if owner.parent else owner.name)
        return bool(programs) and is_of_another(owner.path, programs[0])

    def subcommand(self, known: Command, word: str) -> Command | None:
        """The page of a subcommand: `git commit`; None if there is none."""
        key = f"{known.words} {word}"
        if key in self._found:
            return self._found[key]
        if not re.fullmatch(r"[\w.:+-]+", word):
            return None
        found = (
            self._with_page(known, word)
            or self._with_own_help(known, word)
            or self._with_facts(known, word)
        )
        if found is not None:
            self._found[key] = found
        return found

    def _with_facts(self, known: Command, word: str) -> Command | None:
        """A subcommand that only our facts tell of: its options are those of the program."""
        if known.listed(word) is not None:
            return None
        found = Command(f"{known.name}-{word}", f"{known.words} {word}", known)
        facts = conventions_of(self.store).facts(found.words)
        if not facts.forms and not facts.clauses:
            return None
        self.add_facts(found)
        found.page, found.only = known.page, word
        return found

    def _with_own_help(self, known: Command, word: str) -> Command | None:
        """A subcommand whose program tells of it when it is asked: `pip install --help`."""
        told = known.listed(word)
        program = self._executables(known.words.split(" ")[0])
        if told is None or not program or not _is_of_usage(known):
            return None
        name = told.words.rpartition(" ")[2]
        found = Command(f"{known.name}-{name}", f"{known.words} {name}", known)
        from dowsing.sources import catalogue

        usage = catalogue.subject_of(found.words, None, self.store, self.settings, ask=self.ask)
        held = catalogue.availability_of(usage, SourceName.USAGE)[0]
        if not held.present:
            return None
        self.add_facts(found)
        found.page, found.summary = found.words + OWN_HELP, told.summary
        found.later(lambda: [make_table(catalogue.read(usage, held))])
        return found

    def _with_page(self, known: Command, word: str) -> Command | None:
        """A subcommand with a page of its own."""
        key = f"{known.words} {word}"
        for joined in (f"{known.name}-{word}", f"{known.name}_{word}"):
            for entry in self.store.named(joined):
                if entry.section[:1] not in ("1", "8") or joined not in (
                    entry.name,
                    *entry.aliases,
                ):
                    continue
                if self._is_of(entry, known, word):
                    found = Command(joined, key, known)
                    found.path, found.page, found.summary = (
                        entry.path,
                        f"{joined}({entry.section})",
                        entry.summary,
                    )
                    self.add_facts(found)
                    found.later(partial(self._tables_of, found, entry))
                    return found
        return None

    def _is_of(self, entry: Entry, known: Command, word: str) -> bool:
        """Whether the page `known-word` is that of a subcommand, and not of a program whose name
        only begins so, as that of ssh-add does.
        """
        return (
            entry.kind == EntryKind.SUBCOMMAND
            or word in known.subcommands
            or not known.forms
            or wants_command(known)
            or self._shows(entry, known.words, word)
        )

    def _shows(self, entry: Entry, program: str, word: str) -> bool:
        """Whether the forms of a page write it as a subcommand: `ip [ OPTIONS ] nexthop`."""
        table = self.page_table(entry)
        first = program.split(" ")[0]
        for line in table.lines if table else ():
            words = line.split(" ")
            if first in words and word in words[words.index(first) + 1 :][:7]:
                return True
        return False

    def mentions(self, known: Command, flag: str, everywhere: bool) -> str:
        """The text that has the flag as a word of its running text, "" if none of its own has.

        The last resort: it reads the manual page, and other texts too if `everywhere`.
        """
        from dowsing.model.document import document_text
        from dowsing.sources import catalogue

        pattern = re.compile(r"(?<![\w-])" + re.escape(flag) + r"(?![\w-])")
        entries = self.store.named(known.name)
        if not entries or known.maker:
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


def _page_of(entries: list[Entry]) -> Entry | None:
    """The page of a command; that of a subcommand only where there is no other."""
    pages = [one for one in entries if one.section[:1] in ("1", "8", "6")]
    whole = [one for one in pages if one.kind != EntryKind.SUBCOMMAND]
    return next(iter(whole or pages), None)


def _told_by_package(entries: list[Entry]) -> str:
    """What a package says of its program, "" if it does not, or tells of more than this one."""
    summary = entries[0].summary if entries else ""
    return summary.removesuffix(NO_PAGE_REMARK) if summary.endswith(NO_PAGE_REMARK) else ""


def _is_of_usage(known: Command) -> bool:
    """Whether all that is known of a command is what its program prints."""
    sources = [table.source for table in known.tables]
    return bool(sources) and sources[0] == SourceName.USAGE


def _is_about(document: Document, name: str) -> bool:
    """Whether a node of an Info manual is about a command, and does not only name it."""
    title = f"{document.name} {document.summary}"
    return re.search(rf"(?<![\w-]){re.escape(name)}(?![\w-])", title) is not None
