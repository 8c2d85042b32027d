"""`sources`: every documentation of a name, side by side."""

from __future__ import annotations

import argparse

from dowsing.cli.listed import remember_own
from dowsing.comparing.differences import differences, wordings
from dowsing.comparing.source_table import Compared, compare
from dowsing.model.document import Document
from dowsing.model.errors import Failure
from dowsing.model.record import dump
from dowsing.render.comparisons import difference_lines, next_lines, source_lines, wording_lines
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
    parser.add_argument("--no-usage", action="store_true", help="ask no program for its usage")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    chosen = tuple(dict.fromkeys(options.differences or ()))
    if chosen and len(chosen) != 2:
        raise Failure(
            "the wording of two sources is compared: --differences manual builtin", status=2
        )
    subject = any_subject(session, options.name, ask=not options.no_usage)
    compared = compare(subject)
    if not compared.documents and not subject.executables and not subject.in_shells:
        raise unknown(session, subject.name)
    if session.json:
        session.print_json(_as_json(subject, compared, options.differences is not None, chosen))
        return 0
    width = session.screen.width
    lines = source_lines(subject.name, _runs(subject), compared.rows, width)
    if options.differences is None:
        there = list(dict.fromkeys(row.source for row in compared.rows if row.present))
        remember_own(session, [["read", subject.name, "--from", source] for source in there])
        lines += next_lines(
            subject.name, compared.rows, width, session.program, catalogue.order_for(subject)
        )
    else:
        lines += difference_lines(differences(compared, chosen), width)
        if chosen:
            first, second = chosen
            found = wordings(_document(compared, first), _document(compared, second))
            lines += wording_lines(found, first, second, width)
    session.screen.show(lines, paged=options.differences is not None)
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


def _as_json(
    subject: Subject, compared: Compared, wanted: bool, chosen: tuple[str, ...]
) -> dict[str, object]:
    found = resolve(subject)
    answer: dict[str, object] = {
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
        "sources": dump(compared.rows),
        "differences": dump(differences(compared, chosen)) if wanted else [],
    }
    if chosen:
        one, other = (_document(compared, source) for source in chosen)
        answer["wordings"] = dump(wordings(one, other))
    return answer
