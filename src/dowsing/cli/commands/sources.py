"""`sources`: every documentation of a name, side by side."""

from __future__ import annotations

import argparse

from dowsing.cli.listed import remember_own
from dowsing.comparing.differences import differences
from dowsing.comparing.passages import passages
from dowsing.comparing.source_table import Compared, compare
from dowsing.comparing.stale import PAGE_AND_USAGE, stale
from dowsing.comparing.things import Things, things_of, worth_reading
from dowsing.comparing.wordings import wordings
from dowsing.model.document import Document
from dowsing.model.errors import Failure
from dowsing.model.markup import clean_line
from dowsing.model.record import dump
from dowsing.model.source_name import SourceName
from dowsing.render.comparisons import next_lines, source_lines, wording_lines
from dowsing.render.differences import compared_lines, difference_lines
from dowsing.render.layout import title_lines
from dowsing.render.passages_beside import heading as passage_heading
from dowsing.render.passages_beside import passage_lines
from dowsing.render.staleness import stale_lines
from dowsing.session.naming import any_subject, unknown
from dowsing.session.session import Session
from dowsing.sources import catalogue
from dowsing.sources.resolution import resolve
from dowsing.sources.source import Subject

DESCRIPTION = (
    "Every documentation of a name: which sources have a text, where, how long, and which are the "
    "same. --differences says what one has and another leaves out, contradictions first; with two "
    "sources it sets their wording side by side. --stale asks whether the page is of the program "
    "that is installed; --passage sets what each text says of one option or word side by side."
)


#: Options whose value may look like an option itself: `--passage -f`.
TAKES_OPTIONS = ("--passage",)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("name", nargs="*", metavar="NAME", help="kill, '[', git commit")
    wanted = parser.add_mutually_exclusive_group()
    wanted.add_argument(
        "--differences",
        nargs="*",
        choices=catalogue.SOURCES,
        metavar="SOURCE",
        help="what not all texts say; of two sources also the wording",
    )
    wanted.add_argument(
        "--stale", action="store_true", help="what the page and the installed program do not share"
    )
    wanted.add_argument(
        "--passage", metavar="WORD", help="what each text says of this option or word"
    )
    parser.add_argument(
        "--everything", action="store_true", help="differences also of --help and --version"
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
    if options.stale:
        return _stale(session, subject)
    if options.passage is not None:
        return _passage(session, subject, options.passage.strip())
    named_only = options.differences is not None and not chosen
    compared = _compared(session, subject, all_of_it=not named_only)
    if options.differences is not None:
        return _differences(session, subject, compared, chosen, options.everything)
    if session.json:
        session.print_json({**_head(subject), "sources": dump(compared.rows), "differences": []})
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


def _compared(session: Session, subject: Subject, all_of_it: bool = False) -> Compared:
    """The texts of the name; those that are not compared are read only with `all_of_it`. Raises
    Failure if there is nothing of that name.
    """
    compared = compare(subject) if all_of_it else compare(subject, only=worth_reading(subject))
    if not compared.documents and not subject.executables and not subject.in_shells:
        raise unknown(session, subject.name)
    return compared


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
    if count > 1:
        lines += difference_lines(things, found, width)
    if chosen:
        first, second = chosen
        lines += wording_lines(wordings(*both), first, second, width)
    session.screen.show(lines, paged=True)
    return 0


def _stale(session: Session, subject: Subject) -> int:
    """The page beside the usage text of the program."""
    compared = compare(subject, PAGE_AND_USAGE, only=worth_reading(subject))
    found = stale(subject, things_of(subject, compared))
    if found is None:
        raise _not_both(session, subject)
    if session.json:
        session.print_json({**dump(found), "differs": found.differs})
        return 0
    width = session.screen.width
    about = f"the page against the program{f', {found.version}' if found.version else ''}"
    lines = title_lines(clean_line(subject.name), clean_line(about), [], width)
    session.screen.show(lines + stale_lines(found, width), paged=True)
    return 0


def _not_both(session: Session, subject: Subject) -> Failure:
    """Why the page and the usage text cannot be compared."""
    if not subject.entries and not subject.executables and not subject.in_shells:
        return unknown(session, subject.name)
    usage = catalogue.availability_of(subject, SourceName.USAGE)[0]
    if not usage.present:
        reason = usage.note or "it has no usage text"
        return Failure(f"there is no usage text of {subject.name[:60]} to compare: {reason}")
    return Failure(f"there is no manual page of {subject.name[:60]} to compare its usage text with")


def _passage(session: Session, subject: Subject, asked: str) -> int:
    """What each text says of one option or word."""
    if not asked:
        raise Failure("say an option or a word: --passage -v", status=2)
    compared = _compared(session, subject)
    found = passages(things_of(subject, compared), asked)
    if not found:
        read = ", ".join(dict.fromkeys(source for source, _ in compared.documents)) or "none here"
        raise Failure(f"no text of {subject.name[:60]} says anything of “{asked[:60]}” ({read})")
    if session.json:
        session.print_json({"name": subject.name, "asked": asked, "passages": dump(found)})
        return 0
    width = session.screen.width
    lines = title_lines(clean_line(subject.name), "", [], width)
    lines += ["", passage_heading(asked), *passage_lines(found, asked, width)]
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
