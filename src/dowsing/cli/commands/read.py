"""`read`: the documentation of a name, whole or in part."""

from __future__ import annotations

import argparse

from dowsing.cli.commands.naming import find_entry, open_document
from dowsing.cli.failure import Failure
from dowsing.cli.output import pages
from dowsing.cli.output.terminal import write
from dowsing.cli.session import Session
from dowsing.core.document import Document
from dowsing.core.finding.lookup import Lookup
from dowsing.core.reading.parts import UnknownPart, choose_part

DESCRIPTION = "Reads the documentation of a name, laid out for this terminal."


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("name", nargs="*", metavar="NAME", help="tar, 'printf(3)', printf.3, git commit")
    parser.add_argument(
        "--part", metavar="PART", help="a section by its title, or summary, synopsis, options, examples, see-also"
    )
    parser.add_argument("--brief", action="store_true", help="forms, options in a line each, and the sections")
    parser.add_argument("--around", metavar="TEXT", help="only the paragraphs with this text in them")
    parser.add_argument("--lang", metavar="L", help="a translation, such as de")
    parser.add_argument("-o", "--output", metavar="FILE", help="write to this file instead")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    found = find_entry(session, options.name)
    assert found.entry is not None
    document = open_document(session, found.entry, options.lang)
    if session.format == "json":
        session.print_json(_part_json(document, options))
        return 0
    if session.format in ("html", "markdown"):
        _export(session, document, options.output)
        return 0
    lines = _lines(session, found, document, options)
    if options.output:
        _save(options.output, "\n".join(session.screen.encode(line) for line in lines) + "\n")
    else:
        session.screen.show(lines, paged=True)
    return 0


def _part_json(document: Document, options: argparse.Namespace) -> dict[str, object]:
    from dowsing.cli.output.export import document_json

    whole = document_json(document)
    if options.part is not None:
        part = _part(document, options.part)
        wanted = {section.title for section in part.sections}
        whole["sections"] = [s for s in whole["sections"] if s["title"] in wanted]  # type: ignore[attr-defined]
    return whole


def _export(session: Session, document: Document, output: str | None) -> None:
    if session.format == "html":
        from dowsing.cli.output.html import document_html as export
    else:
        from dowsing.cli.output.markdown import document_markdown as export
    text = export(document)
    if output:
        _save(output, text)
    else:
        write(text)


def _save(path: str, text: str) -> None:
    try:
        with open(path, "w", encoding="utf-8") as file:
            file.write(text)
    except OSError as error:
        raise Failure(f"cannot write {path}: {(error.strerror or 'failed').lower()}", status=3) from None


def _part(document: Document, wanted: str):  # type: ignore[no-untyped-def]
    try:
        return choose_part(document, wanted)
    except UnknownPart as error:
        raise Failure(f"{document.label} {error.says}", nearest=error.titles) from None


def _lines(session: Session, found: Lookup, document: Document, options: argparse.Namespace) -> list[str]:
    width = session.screen.width
    head = pages.head_lines(document, found, width)
    if options.part is not None:
        part = _part(document, options.part)
        return head + [""] + pages.part_lines(part, width)
    if options.around:
        lines = pages.around_lines(document, options.around, width)
        if not lines:
            raise Failure(f"“{options.around[:80]}” does not occur in {document.label}")
        return [*head, "", *lines]
    if options.brief:
        return head + [""] + pages.brief_lines(document, width)
    return head + [""] + pages.whole_lines(document, width)
