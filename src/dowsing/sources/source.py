"""What every source of documentation offers: what it holds of a name, and that as a Document.

A source is a module with two functions: `availability(subject)` gives what it has, or one Holding
that says why it has nothing; `read(subject, held)` gives the Document, and raises Unreadable.
"""

from __future__ import annotations

from dowsing.model.entry import EntryKind
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any, Protocol

    from dowsing.machine.settings import Settings
    from dowsing.model.document import Document
    from dowsing.model.entry import Entry, InfoPlace, ShellRow

    class Names(Protocol):
        """What sources ask of the index; `memory` is for what they keep for the time of a run."""

        memory: dict[str, Any]

        def named(self, name: str, section: str = "") -> list[Entry]: ...

        def in_shells(self, name: str) -> list[ShellRow]: ...

        def shells(self) -> list[str]: ...

        def shell_keywords(self, shell: str) -> list[ShellRow]: ...

        def info_places(self, name: str) -> list[InfoPlace]: ...

        def package_of(self, path: str) -> str | None: ...

    class Source(Protocol):
        """A module of a source."""

        def availability(self, subject: Subject) -> list[Availability]: ...

        def read(self, subject: Subject, held: Availability) -> Document: ...


class Availability(Record):
    """What one source has of a name.

    `where` is the place in words, `path` the file it is read from, `detail` what the source needs
    to find it again. `present` is None where it is not known because the program was not asked.
    `note` says why there is nothing, or what to know about it.
    """

    source: str
    present: bool | None
    where: str = ""
    path: str = ""
    detail: str = ""
    note: str = ""


class Subject:
    """A name that is looked up, with what the index knows of it.

    `entries` are its pages and builtins, the likeliest first. `ask`: programs may be run for their
    usage. `shell`: only what this shell knows of it, "" for all shells.
    """

    def __init__(  # noqa: PLR0913 - what was asked is by keyword
        self,
        name: str,
        entries: list[Entry],
        store: Names,
        settings: Settings,
        *,
        section: str = "",
        ask: bool = True,
        shell: str = "",
    ) -> None:
        self.name = name
        self.entries = entries
        self.store = store
        self.settings = settings
        self.section = section
        self.ask = ask
        self.shell = shell
        self.held: dict[str, list[Availability]] = {}  # what sources were found to have
        self._shells: list[ShellRow] | None = None
        self._executables: list[str] | None = None

    @property
    def in_shells(self) -> list[ShellRow]:
        """What the shells know of the name, the user's own shell first."""
        if self._shells is None:
            from dowsing.machine.shells.choice import own_first

            rows = [row for row in self.store.in_shells(self.name) if self.shell in ("", row.shell)]
            self._shells = own_first(rows, self.store.shells(), self.settings)
        return self._shells

    @property
    def in_own_shell(self) -> ShellRow | None:
        """What the user's own shell knows of the name."""
        from dowsing.machine.shells.choice import own_shell

        own = own_shell(self.settings, self.store.shells())
        return next((row for row in self.in_shells if row.shell == own), None)

    @property
    def executables(self) -> list[str]:
        """The files of that name on PATH, in order; of a subcommand those of its program."""
        if self._executables is None:
            from dowsing.machine.search_path import executables

            name = self.name.partition(" ")[0]
            self._executables = executables(name, self.settings.search_path)
        return self._executables

    @property
    def subcommand(self) -> list[str]:
        """The words behind the program in the name of a subcommand, `pip install`, or of its page,
        `git-commit`.
        """
        program = f"{self.program}-"
        if self.name.startswith(program) and not self.executables:
            return [self.name.removeprefix(program)]
        return self.name.split(" ")[1:]

    @property
    def program(self) -> str:
        """The program that is run for the name: of a subcommand the one that it belongs to."""
        entry = self.entries[0] if self.entries else None
        if entry is not None and entry.kind == EntryKind.SUBCOMMAND and entry.family:
            return entry.family
        return self.name

    @property
    def packages(self) -> list[str]:
        """The packages that the name comes from: that of the shell whose builtin it is, of the
        program, of its pages.

        Pages of functions and files count only where no command has the name.
        """
        shells = [entry.package for entry in self.entries if entry.section == "builtin"]
        pages = [entry for entry in self.entries if entry.section != "builtin"]
        commands = [entry.package for entry in pages if entry.section[:1] in ("", "1", "6", "8")]
        found = [*shells, self._program_owner, *commands]
        if not any(found):
            found = [entry.package for entry in pages]
        return list(dict.fromkeys(package for package in found if package))

    @property
    def program_package(self) -> str | None:
        """The package that the program of that name comes from; where that is not known, of its
        page.
        """
        pages = [
            e.package for e in self.entries if e.package and e.section[:1] in ("", "1", "6", "8")
        ]
        return self._program_owner or (pages[0] if pages else None)

    @property
    def _program_owner(self) -> str | None:
        return self.store.package_of(self.executables[0]) if self.executables else None


def nothing(source: str, note: str) -> list[Availability]:
    """The answer of a source that has nothing."""
    return [Availability(source, False, note=note)]
