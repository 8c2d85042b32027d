"""A name in the order in which the shell takes it: alias, function, keyword, builtin, the programs
on PATH.
"""

from __future__ import annotations

import os
from enum import StrEnum

from dowsing.machine.file_kind import file_kind
from dowsing.machine.links import LinkStep, follow
from dowsing.machine.packages import owner as packages
from dowsing.machine.search_path import executables, folder_problems
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.packages.package_record import Package
    from dowsing.sources.source import Subject

MOST_SOURCES = 200
_SOURCE_SUFFIXES = (
    ".c",
    ".h",
    ".cc",
    ".cpp",
    ".hpp",
    ".rs",
    ".go",
    ".py",
    ".pl",
    ".pm",
    ".rb",
    ".js",
    ".ts",
    ".sh",
    ".lua",
    ".java",
    ".tcl",
)


class ResolvedKind(StrEnum):
    """What a name may mean, to a shell or on PATH."""

    ALIAS = "alias"
    FUNCTION = "function"
    KEYWORD = "keyword"
    BUILTIN = "builtin"
    COMMAND = "command"
    SUBCOMMAND = "subcommand"  # of the program at `path`


class Resolved(Record):
    """One thing that the name may mean.

    `path` is the file of a command or of the shell, `shell` its name, `links` the links on the way
    to `file`, the file at the end. `same_as` is an earlier candidate's path with the same file.
    `text` is what an alias or function is defined as.
    """

    kind: ResolvedKind
    path: str
    shell: str = ""
    links: list[LinkStep] = []  # noqa: RUF012 - a record is immutable
    file: str = ""
    file_kind: str = ""
    package: Package | None = None
    same_as: str = ""
    text: str = ""


class Resolution(Record):
    """All that the name may mean, what runs first; the files that belong to it; what is wrong with
    PATH.

    `documents` are the files of its documentation with the source each is of; `sources` files of
    source text.
    """

    name: str
    candidates: list[Resolved]
    documents: list[tuple[str, str]]
    sources: list[str]
    problems: dict[str, str]


def resolve(subject: Subject, startup: bool = False) -> Resolution:
    """Everything that the name may mean. `startup`: the user's shell is asked with its start-up
    files.
    """
    candidates = [*(_defined(subject) if startup else []), *_in_shell(subject), *_on_path(subject)]
    programs = [c for c in candidates if c.kind in (ResolvedKind.COMMAND, ResolvedKind.SUBCOMMAND)]
    return Resolution(
        subject.name,
        candidates,
        _documents(subject),
        _source_files(programs[0], subject) if programs else [],
        folder_problems(subject.settings.search_path),
    )


def _defined(subject: Subject) -> list[Resolved]:
    from dowsing.machine.shells.choice import own_shell
    from dowsing.machine.shells.installed import installed_shells

    own = own_shell(subject.settings, subject.store.shells())
    shell = next((one for one in installed_shells(subject.settings) if one.name == own), None)
    if shell is None:
        return []
    return [
        Resolved(ResolvedKind(kind), "", shell.name, text=text)
        for kind, text in shell.defined(subject.name)
    ]


def _in_shell(subject: Subject) -> list[Resolved]:
    """A keyword before a builtin, of the user's own shell."""
    row = subject.in_own_shell
    return [Resolved(ResolvedKind(row.kind), row.path, row.shell)] if row else []


def _on_path(subject: Subject) -> list[Resolved]:
    found: list[Resolved] = []
    seen: dict[str, str] = {}
    is_command = subject.program == subject.name or subject.executables
    kind = ResolvedKind.COMMAND if is_command else ResolvedKind.SUBCOMMAND
    for path in subject.executables or executables(subject.program, subject.settings.search_path):
        links, file = follow(path)
        earlier = seen.get(file, "")
        seen.setdefault(file, path)
        known = next((c.package for c in found if c.path == earlier), None)
        package = known if earlier else packages.owner(path, subject.settings)
        found.append(
            Resolved(kind, path, "", links, file, file_kind(file) if file else "", package, earlier)
        )
    return found


def _documents(subject: Subject) -> list[tuple[str, str]]:
    """The files that document the name, with their sources."""
    from dowsing.sources import manual, package, shell_manual

    found: list[tuple[str, str]] = []
    for source in (SourceName.MANUAL, SourceName.STANDARD):
        found += [(h.path, source) for h in manual.availability(subject, source) if h.present]
    for row in subject.in_shells[:1]:
        own = shell_manual.own_page(row)
        pages_of_shell = [
            entry.path for name in row.manual for entry in subject.store.named(name)[:1]
        ]
        found += [
            (path, SourceName.SHELL_MANUAL) for path in ([own] if own else pages_of_shell[:1])
        ]
    found += [
        (place.path, SourceName.INFO) for place in subject.store.info_places(subject.name)[:1]
    ]
    for held in package.availability(subject):
        if held.present:
            found += [
                (os.path.join(held.path, file), SourceName.PACKAGE)
                for file in package.doc_files(held.path)
            ]
    return list(dict.fromkeys(found))


def _source_files(program: Resolved, subject: Subject) -> list[str]:
    """The program itself where it is a script, and what its package ships of source text."""
    found = [program.file] if program.file_kind.startswith("script") else []
    if program.package:
        for file in packages.files(program.path, program.package, subject.settings):
            in_sources = file.startswith("/usr/src/") or program.package.manager in (
                "pip",
                "npm",
                "homebrew",
            )
            if (
                in_sources
                and file.endswith(_SOURCE_SUFFIXES)
                and file not in found
                and os.path.isfile(file)
            ):
                found.append(file)
            if len(found) >= MOST_SOURCES:
                break
    return found
