"""`audit`: documentation coverage and disagreements over many names."""

from __future__ import annotations

import argparse

from dowsing.cli.files import write_file
from dowsing.comparing.coverage import Audit, audit
from dowsing.comparing.coverage_scope import Scope, entries_scope, path_scope, shell_scope
from dowsing.model.errors import EmptyScope, Failure
from dowsing.model.record import dump
from dowsing.render.matrices import audit_csv, audit_lines, stale_audit_lines
from dowsing.session.session import Session
from dowsing.terminal.progress_bar import building
from dowsing.terminal.screen import write

DESCRIPTION = (
    "Which documentation many names have: all builtins of a shell, the commands of a package or a "
    "family, or everything on PATH; what nobody documents, what does not answer when it is asked, "
    "where texts disagree. --stale asks instead which pages are not of the programs that are "
    "installed. Programs are asked for their usage, but for everything on PATH only with --usage."
)
FORMATS = ("text", "json", "csv")  # that it prints


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    scope = parser.add_mutually_exclusive_group()
    scope.add_argument("--shell", metavar="S", help="the builtins and keywords of this shell")
    scope.add_argument("--package", metavar="P", help="the commands of this package")
    scope.add_argument("--family", metavar="F", help="a program and its subcommands")
    parser.add_argument(
        "--stale", action="store_true", help="pages that lack what the program has, and the reverse"
    )
    parser.add_argument("--chart", metavar="FILE", help="draw it, as .png or .svg")
    parser.add_argument("--report", metavar="FILE", help="write all of it as one .html page")
    asking = parser.add_mutually_exclusive_group()
    asking.add_argument(
        "--usage",
        action="store_true",
        help="ask every program for its usage, also over all of PATH",
    )
    asking.add_argument("--no-usage", action="store_true", help="ask no program")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json", "csv")
    _check(options)
    try:
        scope = _scope(session, options)
    except EmptyScope as error:
        raise Failure(str(error)) from None
    whole_path = scope.kind == "path"
    ask = options.usage or not (options.no_usage or whole_path)
    with building(
        f"looking at {len(scope.names)} names", quiet=session.settings.demo, what="names"
    ) as progress:
        found = audit(
            scope,
            session.store,
            session.settings,
            ask=ask,
            options=not whole_path and not options.stale,
            pages=options.stale or options.report is not None,
            progress=progress,
        )
    if options.chart is not None:
        _draw(found, options.chart)
    if options.report is not None:
        from dowsing.render.audit_report import report_html

        write_file(options.report, report_html(found))
    if session.json:
        session.print_json(as_json(found))
    elif session.format == "csv":
        write(audit_csv(found))
    else:
        width = session.screen.width
        lines = stale_audit_lines(found, width) if options.stale else audit_lines(found, width)
        session.screen.show(lines, paged=True)
    return 0


def _check(options: argparse.Namespace) -> None:
    """What cannot be written is said before the work, not after. Raises Failure."""
    if options.chart is not None and not options.chart.endswith((".png", ".svg")):
        raise Failure(f"a chart is a .png or an .svg, not {options.chart[:80]}", status=2)
    if options.report is not None and not options.report.endswith((".html", ".htm")):
        raise Failure(f"a report is an .html page, not {options.report[:80]}", status=2)
    if options.chart is None:
        return
    from dowsing.model.errors import NoCharts
    from dowsing.render.charts import check

    try:
        check()
    except NoCharts as error:
        raise Failure(str(error), status=3) from None


def _draw(found: Audit, path: str) -> None:
    from dowsing.render.charts import draw

    try:
        draw(found, path)
    except OSError as error:
        raise Failure(
            f"cannot write {path}: {(error.strerror or 'failed').lower()}", status=3
        ) from None


def _scope(session: Session, options: argparse.Namespace) -> Scope:
    if options.shell is not None:
        return shell_scope(options.shell, session.store)
    if options.package is not None:
        return entries_scope("package", options.package, session.store)
    if options.family is not None:
        return entries_scope("family", options.family, session.store)
    return path_scope(session.settings, session.store)


def as_json(found: Audit) -> dict[str, object]:
    """The audit as plain data."""
    return {
        "scope": {"kind": found.scope.kind, "name": found.scope.name},
        "sources": found.sources,
        "names": dump(found.lines),
        "counts": found.counts,
        "undocumented": found.undocumented,
        "only_usage": found.only_usage,
        "unanswered": {kind: dump(rows) for kind, rows in found.unanswered.items()},
        "missing_options": [{"name": name, **dump(one)} for name, one in found.missing],
        "stale": dump(found.stale),
    }
