"""`read`: the documentation of a name, whole or in part, from the best source or one that is
chosen.
"""

from __future__ import annotations

import argparse

from dowsing.cli.files import write_file
from dowsing.model.document import Document
from dowsing.model.errors import Failure, UnknownPart, Unreadable
from dowsing.model.markup import clean
from dowsing.model.source_name import SourceName
from dowsing.render import page_text
from dowsing.search.lookup import Lookup
from dowsing.search.parts import choose_part
from dowsing.session.naming import find_entry, open_found, subject_of
from dowsing.session.session import Session
from dowsing.session.user_data import note_read, notes_on
from dowsing.sources import catalogue
from dowsing.sources.source import Availability, Subject
from dowsing.terminal.screen import message, write

DESCRIPTION = (
    "Reads the documentation of a name, laid out for this terminal: the best source for what would "
    "run, or the one that --from chooses."
)
FORMATS = ("text", "json", "html", "markdown")  # that it prints


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "name", nargs="*", metavar="NAME", help="tar, 'printf(3)', printf.3, git commit"
    )
    parser.add_argument(
        "--from",
        dest="source",
        metavar="SOURCE",
        help=f"one of {', '.join(catalogue.SOURCES)}; or all",
    )
    parser.add_argument(
        "--part",
        metavar="PART",
        help="a section by its title, or summary, synopsis, options, examples, see-also",
    )
    parser.add_argument(
        "--brief", action="store_true", help="forms, options in a line each, and the sections"
    )
    parser.add_argument(
        "--around", metavar="TEXT", help="only the paragraphs with this text in them"
    )
    parser.add_argument("--lang", metavar="L", help="a translation, such as de")
    parser.add_argument(
        "--beside",
        action="store_true",
        help="in a pane beside, or in a window of its own; what is open there is replaced",
    )
    parser.add_argument("--following", metavar="FILE", help=argparse.SUPPRESS)
    parser.add_argument("-o", "--output", metavar="FILE", help="write to this file instead")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    if options.source is not None and options.source not in (*catalogue.SOURCES, "all"):
        raise Failure(
            f"there is no source “{options.source[:40]}”; sources are "
            f"{', '.join(catalogue.SOURCES)}, or all",
            status=2,
        )
    if getattr(options, "following", None):
        from dowsing.terminal.beside import program
        from dowsing.terminal.following import follow

        return follow(options.following, program())
    found = find_entry(session, options.name)
    if getattr(options, "beside", False):
        return _beside(session, options, found)
    documents = _documents(session, found, options)
    for document in documents:
        if document.source == SourceName.INFO and document.origin:
            message(f"{document.path}: {document.origin}")
    if session.format == "json":
        parts = [_part_json(document, options) for document in documents]
        every = {"name": options.name[0], "documents": parts}
        session.print_json(every if options.source == "all" else parts[0])
    elif session.format in ("html", "markdown"):
        _export(session, documents, options.output)
    else:
        _show(session, found, documents, options)
    return 0


def _documents(session: Session, found: Lookup, options: argparse.Namespace) -> list[Document]:
    """The texts that were asked for."""
    if options.source == "all":
        return _all_documents(session, found)
    if options.source:
        return [_from_source(session, found, options)]
    return [open_found(session, found, options.lang)]


def _show(
    session: Session, found: Lookup, documents: list[Document], options: argparse.Namespace
) -> None:
    """Print the texts below the user's own remarks, or write them to a file."""
    assert found.entry is not None
    lines: list[str] = []
    notes = notes_on(session, [found.entry.label])
    if notes:
        from dowsing.render.kept_lists import note_lines

        lines = [*note_lines(notes, session.screen.width), ""]
    for n, document in enumerate(documents):
        lines += [*([""] if n else []), *_lines(session, found, document, options, first=not n)]
    if options.output:
        write_file(options.output, "\n".join(session.screen.encode(line) for line in lines) + "\n")
    else:
        session.screen.show(lines, paged=True)
    note_read(session, found.entry.label)


def _beside(session: Session, options: argparse.Namespace, found: Lookup) -> int:
    """The same look-up, in a pane or window of its own."""
    import os

    from dowsing.terminal.beside import read_beside

    if session.format != "text" or options.output:
        raise Failure(
            "--beside shows text; --format html -o FILE writes a page for a second screen", status=2
        )
    assert found.entry is not None
    arguments = ["--demo"] if session.settings.demo else []
    arguments += [
        "read",
        found.entry.label
        if found.name.section
        else options.name[0]
        if len(options.name) == 1
        else found.entry.label,
    ]
    for flag, value in (
        ("--from", options.source),
        ("--part", options.part),
        ("--around", options.around),
        ("--lang", options.lang),
    ):
        arguments += [flag, value] if value else []
    arguments += ["--brief"] if options.brief else []
    try:
        columns = os.get_terminal_size(2).columns
    except OSError:
        columns = session.screen.width
    note_read(session, found.entry.label)
    return read_beside(arguments, columns, session.settings.cache)


def _from_source(session: Session, found: Lookup, options: argparse.Namespace) -> Document:
    """What the chosen source has; if it has nothing, those that have something are said."""
    subject = subject_of(session, found, ask=True)
    offered = catalogue.availability_of(subject, options.source)
    held = next((one for one in offered if one.present), None)
    if held is None:
        there = catalogue.others(subject, options.source)
        others = f"; it is in: {', '.join(there)}" if there else ""
        why = offered[0].note or "nothing is there"
        raise Failure(f"{subject.name} has no text in the source {options.source}: {why}{others}")
    try:
        document, options.part = _with_part(subject, held, options.part)
        return document
    except Unreadable as error:
        raise Failure(f"{held.where} cannot be read: {error}", status=3) from None


def _with_part(
    subject: Subject, held: Availability, part: str | None
) -> tuple[Document, str | None]:
    """The document that has the part in it, and what is left to choose in it.

    A part may lie outside the document of the name: another node of an Info manual, one file of a
    package.
    """
    if held.source == SourceName.PACKAGE and part is not None:
        from dowsing.sources import package

        file = package.read_file(subject, held, part)
        if file is not None:
            return file, None
    document = catalogue.read(subject, held)
    if held.source == SourceName.INFO and part is not None:
        from dowsing.sources import info

        key = " ".join(part.casefold().split())
        if not any(
            key in (section.title.casefold(), section.anchor.casefold())
            for section in document.sections
        ):
            try:
                return info.read_node(subject, held, part), None
            except Unreadable:  # no such node: it may still be the beginning of a title
                pass
    return document, part


def _all_documents(session: Session, found: Lookup) -> list[Document]:
    """What every source has, in the order for what would run."""
    subject = subject_of(session, found, ask=True)
    documents = []
    for source in catalogue.order_for(subject):
        for held in catalogue.availability_of(subject, source):
            if held.present:
                try:
                    documents.append(catalogue.read(subject, held))
                except Unreadable as error:
                    message(f"{held.where} cannot be read: {error}")
    if not documents:
        raise Failure(f"no source has a text for {subject.name}")
    return documents


def _part_json(document: Document, options: argparse.Namespace) -> dict[str, object]:
    from dowsing.render.export import document_json

    whole = document_json(document)
    if options.part is not None:
        part = _part(document, options.part)
        wanted = {section.title for section in part.sections}
        whole["sections"] = [s for s in whole["sections"] if s["title"] in wanted]  # type: ignore[attr-defined]
    return whole


def _export(session: Session, documents: list[Document], output: str | None) -> None:
    if session.format == "html":
        from dowsing.render.html import document_html as export
    else:
        from dowsing.render.markdown_pages import document_markdown as export
    if len(documents) > 1 and session.format == "html":
        raise Failure("one source a page: choose it with --from", status=2)
    text = "\n".join(export(document) for document in documents)
    if output:
        write_file(output, clean(text))
    else:
        write(text)


def _part(document: Document, wanted: str):  # type: ignore[no-untyped-def]
    try:
        return choose_part(document, wanted)
    except UnknownPart as error:
        raise Failure(f"{document.label} {error.says}", nearest=error.titles) from None


def _lines(
    session: Session, found: Lookup, document: Document, options: argparse.Namespace, first: bool
) -> list[str]:
    width = session.screen.width
    others = (
        catalogue.others(subject_of(session, found, ask=False), document.source) if first else []
    )
    head = page_text.head_lines(
        document, found if first else None, width, others if options.source != "all" else []
    )
    if options.part is not None:
        part = _part(document, options.part)
        return head + [""] + page_text.part_lines(part, width)
    if options.around:
        lines = page_text.around_lines(document, options.around, width)
        if not lines:
            raise Failure(f"“{options.around[:80]}” does not occur in {document.label}")
        return [*head, "", *lines]
    if options.brief:
        return head + [""] + page_text.brief_lines(document, width)
    return head + [""] + page_text.whole_lines(document, width)
