"""The source `builtin`: a shell's own help for its builtins and keywords."""

from __future__ import annotations

import re

from dowsing.facts import with_facts
from dowsing.model.document import Document, Paragraph, Section
from dowsing.model.entry import EntryKind, ShellRow
from dowsing.model.errors import Unreadable
from dowsing.model.source_name import SourceName
from dowsing.readers.usage.cleaning import indentation
from dowsing.readers.usage.usage_text import read_help
from dowsing.sources.source import Availability, Subject, nothing

NAME = SourceName.BUILTIN


def availability(subject: Subject) -> list[Availability]:
    """One for each shell that has help for the name."""
    rows = subject.in_shells
    found = [
        Availability(NAME, True, where=f"{row.shell}: {row.kind}", path=row.path, detail=row.shell)
        for row in rows
        if row.text
    ]
    if found:
        return found
    if rows:
        listed = ", ".join(row.shell for row in rows)
        part_of = next((holder for row in rows if (holder := holder_of(subject, row))), "")
        note = f"{rows[0].kind} of {listed}, which has no help for it"
        return nothing(NAME, f"{note}; it is part of “{part_of}”" if part_of else note)
    return nothing(NAME, "no shell here has a builtin of that name")


def holder_of(subject: Subject, row: ShellRow) -> str:
    """The keyword whose form has this one in it (`then` is part of `if`), "" if there is none."""
    if row.kind != EntryKind.KEYWORD or row.text:
        return ""
    for other in subject.store.shell_keywords(row.shell):
        if (
            other.text
            and other.name != row.name
            and row.name in other.text.split("\n")[0].replace(";", " ").split()
        ):
            return other.name
    return ""


def read(subject: Subject, held: Availability) -> Document:
    """The help as a Document. Raises Unreadable if the shell does not know the name any more."""
    row = next((row for row in subject.in_shells if row.shell == held.detail and row.text), None)
    if row is None:
        raise Unreadable(f"{held.detail} has no help for it")
    return help_document(row)


def help_document(row: ShellRow) -> Document:
    """The help text of a shell: forms on the lines before the first that is set in, then
    sections.
    """
    lines = row.text.split("\n")
    forms: list[str] = []
    at = 0
    while at < len(lines) and lines[at] and not indentation(lines[at]):
        form = re.sub(rf"^{re.escape(row.name)}: (?=\S)|^\S.{{0,14}}?\S: (?=\S)", "", lines[at])
        forms += re.split(rf" or (?={re.escape(row.name)} )", form)
        at += 1
    body = lines[at:]
    margin = min((indentation(line) for line in body if line), default=0)
    sections = read_help([line[margin:] if line else "" for line in body])
    synopsis = Section("SYNOPSIS")
    synopsis.blocks = [Paragraph(form, hanging=True) for form in forms]
    document = Document(
        row.name,
        "builtin",
        NAME,
        [synopsis, *sections],
        summary=row.summary,
        path=row.path,
        origin=row.shell,
    )
    return with_facts(document)
