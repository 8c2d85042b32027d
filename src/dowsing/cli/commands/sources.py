"""`sources`: every documentation of a name, side by side."""

from __future__ import annotations

import argparse

from dowsing.cli.listed import remember_own
from dowsing.comparing.differences import differences
from dowsing.comparing.source_table import Compared, compare
from dowsing.comparing.things import Things, things_of, worth_reading
from dowsing.comparing.wordings import wordings
from dowsing.model.document import Document
from dowsing.model.errors import Failure
from dowsing.model.markup import clean_line
from dowsing.model.record import dump
from dowsing.render.comparisons import next_lines, source_lines, wording_lines
from dowsing.render.differences import compared_lines, difference_lines
from dowsing.render.layout import title_lines
from dowsing.session.naming import any_subject, unknown
from dowsing.session.session import Session
from dowsing.sources import catalogue
from dowsing.sources.resolution import resolve
from dowsing.sources.source import Subject

DESCRIPTION = (
    "Every documentation of a name: which sources have a text, where, how long, and which are the "
    "same. --differences says what one has and another leaves out; with two sources it sets their "
    "wording side by side."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("name", nargs="*", metavar="NAME", help="kill, '[', git commit")
    parser.add_argument(
        "--differences",
        nargs="*",
        choices=catalogue.SOURCES,
        metavar="SOURCE",
        help="what not all texts say; of two sources also the wording",
    )
    parser.add_argument(
        "--everything", action="store_true", help="differences also of --help and --version"
    )
    parser.add_argument("--no-usage", action="store_true", help="ask no program for its usage")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    chosen = tuple(dict.fromkeys(options.differences or ()))
    if chosen and len(chosen) != 2:  # noqa: PLR2004 - a wording is set beside one other
        raise Failure(
            "the wording of two sources is compared: --differences manual builtin", status=2
        )
    subject = any_subject(session, options.name, ask=not options.no_usage)
    named_only = options.differences is not None and not chosen
    compared = compare(subject, only=worth_reading(subject)) if named_only else compare(subject)
    if not compared.documents and not subject.executables and not subject.in_shells:
        raise unknown(session, subject.name)
    if options.differences is not None:
        return _differences(session, subject, compared, chosen, options.everything)
    if session.json:
        session.print_json(
            {**_head(subject), "sources": dump(compared.rows), "differences": []}
        )
        return 0
    width = session.screen.width
    lines = source_lines(subject.name, _runs(subject), compared.rows, width)
    there = list(dict.fromkeys(row.source for row in compared.rows if row.present))
    remember_own(session, [["read", subject.name, "--from", source] for source in there])
    lines += next_lines(
        subject.name, compared.rows, width, session.program, catalogue.order_for(subject)
    )
    session.screen.show(lines)
    return 0


def _differences(
    session: Session, subject: Subject, compared: Compared, chosen: tuple[str, ...], general: bool
) -> int:
    """What the texts do not all say; of two that are named the wording too."""
    both = [_document(compared, source) for source in chosen]
    things = things_of(subject, compared, chosen)
    found = differences(things, general=general)
    if session.json:
        session.print_json(_as_json(subject, compared, things, dump(found), both))
        return 0
    width = session.screen.width
    count = sum(len(thing.texts) for thing in things.things)
    texts = "1 text, nothing to compare it with" if count == 1 else f"{count} texts compared"
    lines = title_lines(clean_line(subject.name), f"{texts}; {_runs(subject)}", [], width)
    lines += compared_lines(things, width)
    lines += difference_lines(things, found, width)
    if chosen:
        first, second = chosen
        lines += wording_lines(wordings(*both), first, second, width)
    session.screen.show(lines, paged=True)
    return 0


def _runs(subject: Subject) -> str:
    row = subject.in_own_shell
    if row is not None:
        return f"{row.shell} takes it itself ({row.kind})"
    if subject.executables:
        return f"{subject.executables[0]} would run"
    if subject.program != subject.name:
        return f"a subcommand of {subject.program}"
    return "nothing of that name would run"


def _document(compared: Compared, source: str) -> Document:
    for one, document in compared.documents:
        if one == source:
            return document
    there = ", ".join(dict.fromkeys(one for one, _ in compared.documents))
    raise Failure(f"there is no text in the source {source} to compare; there are {there}")


def _head(subject: Subject) -> dict[str, object]:
    found = resolve(subject)
    return {
        "name": subject.name,
        "resolution": [
            {
                "kind": c.kind,
                "path": c.path,
                "link_to": c.file if c.links else None,
                "package": c.package.name if c.package else None,
            }
            for c in found.candidates
        ],
    }


def _as_json(
    subject: Subject,
    compared: Compared,
    things: Things,
    found: object,
    both: list[Document],
) -> dict[str, object]:
    texts = {id(text.document): thing for thing in things.things for text in thing.texts}
    rows = [
        {**dump(row), "of": texts[id(document)].kind}
        for row, document in compared.pairs
        if id(document) in texts
    ]
    answer: dict[str, object] = {
        **_head(subject),
        "sources": rows,
        "left_out": [
            {"source": row.source, "where": row.where, "reason": reason}
            for row, reason in things.left_out
        ],
        "differences": found,
    }
    if both:
        answer["wordings"] = dump(wordings(*both))
    return answer
