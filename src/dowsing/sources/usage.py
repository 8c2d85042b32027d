"""The sources `usage` and `builtin-usage`: what a program, or a shell's builtin, prints for
`--help`.

Nothing is run unless the subject says that it may be; see asking.py.
"""

from __future__ import annotations

import os

from dowsing.facts import with_facts
from dowsing.knowledge.effects import part_asked_with
from dowsing.machine.search_path import executables
from dowsing.model.entry import ShellRow
from dowsing.model.errors import Unreadable
from dowsing.model.source_name import SourceName
from dowsing.readers.usage.usage_kind import UsageKind
from dowsing.sources.asking import ask_builtin, ask_program
from dowsing.sources.source import Availability, Subject, nothing
from dowsing.sources.usage_cache import FLAG, Usage, word_for

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document


def availability(subject: Subject) -> list[Availability]:
    """Of the first executable of that name on PATH."""
    parts = subject.subcommand
    files = subject.executables
    if parts and not files:
        files = executables(subject.program, subject.settings.search_path)
    if not files:
        return nothing(SourceName.USAGE, "no program of that name on PATH")
    usage = _ask(subject, files[0], subject.ask)
    word = part_asked_with(os.path.basename(files[0])) if parts else word_for(files[0])
    where = " ".join([files[0], *parts, word])
    return [_availability(SourceName.USAGE, where, files[0], usage)]


def _ask(subject: Subject, path: str, ask: bool) -> Usage | None:
    """What the program at `path` says of the subject: of itself, or of the subcommand."""
    words = subject.subcommand
    if words:
        from dowsing.sources.subcommand_usage import ask_subcommand

        has_page = " " not in subject.name
        return ask_subcommand(path, words, subject.settings, ask, has_page)
    return ask_program(path, subject.name, subject.settings, ask)


def builtin_availability(subject: Subject) -> list[Availability]:
    """Of the builtin of the user's own shell, else of the first shell that has one."""
    rows = subject.in_shells[:1]
    if not rows:
        return nothing(SourceName.BUILTIN_USAGE, "no shell here has a builtin of that name")
    usage = ask_builtin(rows[0], subject.settings, subject.ask)
    return [
        _availability(
            SourceName.BUILTIN_USAGE, f"{rows[0].shell}: {subject.name} {FLAG}", rows[0].path, usage
        )
    ]


def _availability(source: str, where: str, path: str, usage: Usage | None) -> Availability:
    if usage is None:
        return Availability(source, None, where=where, path=path, note="not asked")
    return Availability(
        source, usage.kind == UsageKind.USAGE, where=where, path=path, note=usage.says
    )


def read(subject: Subject, held: Availability) -> Document:
    """The usage text as a Document. Raises Unreadable with what came back instead."""
    row = subject.in_shells[0] if subject.in_shells else None
    if held.source == SourceName.BUILTIN_USAGE:
        usage = ask_builtin(row, subject.settings, True) if row else None
    else:
        usage = _ask(subject, held.path, True)
    if usage is None or usage.kind != UsageKind.USAGE:
        raise Unreadable(usage.says if usage else "it was not asked")
    if held.source == SourceName.BUILTIN_USAGE and row:
        return _builtin_document(row, usage)
    from dowsing.readers.usage.usage_text import read_usage

    package = subject.program_package
    return with_facts(
        read_usage(usage.text, subject.name, "usage", path=held.path, package=package)
    )


def _builtin_document(row: ShellRow, usage: Usage) -> Document:
    """A shell that has help prints just that; what others print is read like a program's usage."""
    from dowsing.readers.usage.cleaning import clean_lines
    from dowsing.readers.usage.usage_text import read_usage
    from dowsing.sources.builtin import help_document

    lines = clean_lines(usage.text)
    if row.text and lines[:1] == row.text.split("\n")[:1]:
        document = help_document(row)
        document.source = "builtin-usage"
        return document
    return with_facts(
        read_usage(usage.text, row.name, "builtin", source=SourceName.BUILTIN_USAGE, path=row.path)
    )
