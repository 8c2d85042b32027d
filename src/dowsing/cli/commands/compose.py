"""`compose`: a form on the screen that builds the line."""

from __future__ import annotations

import argparse
import os
import sys

from dowsing.cli.commands.given_line import given_line
from dowsing.model.errors import Failure
from dowsing.session.session import Session, from_shell
from dowsing.tasks.remembered import ListKind
from dowsing.terminal.screen import message, write

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.composing.sheet import Sheet

DESCRIPTION = (
    "Builds a command line from the command's own forms and options, or a line of a file (--line "
    "fstab): what is "
    "required, what is often used, then all, each with what the page says of it. What is typed "
    "already is filled in."
)
OTHERS_ARE_WORDS = True


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "name", nargs="*", metavar="NAME [ARG...]", help="tar, 'git commit', or a line in quotes"
    )
    parser.add_argument(
        "--line", dest="kind", metavar="KIND", help="a line of a file: fstab, crontab, hosts, …"
    )
    parser.add_argument("--kinds", action="store_true", help="the kinds of lines that there are")
    parser.add_argument(
        "--at", type=int, metavar="N", help="the command after so many characters of the line"
    )
    parser.add_argument(
        "--again",
        action="store_true",
        help="the form that was filled in last, or last for NAME, with its values",
    )
    parser.add_argument("--plain", action="store_true", help="ask field by field in plain lines")
    parser.add_argument(
        "--long", dest="spelling", action="store_const", const="long", help="options spelled long"
    )
    parser.add_argument(
        "--short",
        dest="spelling",
        action="store_const",
        const="short",
        help="options spelled short",
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    if options.kinds:
        return _kinds(session)
    if options.again:
        _take_kept(session, options)
    given, sheet = _sheet(session, options)
    spelling = options.spelling or ""
    if session.json:
        from dowsing.render.line_json import sheet_json

        session.print_json({**sheet_json(sheet), "line": sheet.line(spelling)})
        return 0
    if options.plain:
        from dowsing.cli.dialogue import ask_fields

        line = ask_fields(session, sheet, spelling)
        if line is not None:
            keep(session, sheet, line, options.kind or "")
            hand_out(session, line, sheet.title)
            return 1 if sheet.missing() or sheet.faults() else 0
    else:
        line = _on_screen(session, sheet, spelling, options.kind or "")
    if line is None:
        if given:
            write(given + "\n")
        if not from_shell():
            message("left as it was" if given else "nothing was composed")
        return 130
    return hand_out(session, line, sheet.title)


def _take_kept(session: Session, options: argparse.Namespace) -> None:
    """Put the line of a kept form in the place of the name that was asked for. Raises Failure."""
    from dowsing.model.errors import CannotKeep
    from dowsing.userdata.kept_forms import kept_forms

    if options.at is not None:
        raise Failure("--again opens a whole form; --at goes with a line", status=2)
    try:
        forms = kept_forms(session.settings.kept)
    except CannotKeep as error:
        raise Failure(str(error), status=3) from None
    asked = " ".join(options.name)
    for form in forms:
        if options.kind is not None and form.kind != options.kind:
            continue
        if not asked or form.title == asked or form.title.startswith(f"{asked} "):
            options.name = [form.line]
            options.kind = form.kind or None
            return
    what = asked or (f"a line of {options.kind}" if options.kind else "")
    raise Failure(
        f"no form {f'for {what[:60]} ' if what else ''}was filled in yet; the next one is kept"
    )


def _sheet(session: Session, options: argparse.Namespace) -> tuple[str, Sheet]:
    """What was given, and the sheet for it."""
    from dowsing.session import sheets

    if options.kind is not None:
        if options.at is not None:
            raise Failure("--at goes with a command line, not with --line", status=2)
        text = given_line(options.name, "compose") if options.name else ""
        return text, sheets.line_sheet(
            session, options.kind, " ".join(options.name) if text else ""
        )
    if not options.name:
        raise Failure(
            "say what to compose, for example: dowsing compose tar; or a line of a file: --line "
            "fstab",
            status=2,
        )
    line = given_line(options.name, "compose")
    if options.at is not None and not 0 <= options.at <= len(line):
        raise Failure(f"--at is a place in the line, 0 to {len(line)}", status=2)
    return line, sheets.command_sheet(session, line, options.at)


def _on_screen(session: Session, sheet: Sheet, spelling: str, kind: str) -> str | None:
    """The line that is composed on the whole screen; None if it was left."""
    why = no_screen()
    if why:
        raise Failure(f"{why}; --plain asks field by field instead", status=3)
    from dowsing.tui.composer import compose_on_screen

    return compose_on_screen(session, sheet, spelling, kind)


def no_screen() -> str:
    """Why nothing can be drawn on a whole screen here, "" if it can."""
    if os.environ.get("TERM", "") in ("dumb", ""):
        return (
            "a terminal that can be drawn on is needed, and TERM is "
            f"{os.environ.get('TERM') or 'not set'}"
        )
    try:
        os.close(os.open("/dev/tty", os.O_RDWR | os.O_NOCTTY))
    except OSError:
        return "there is no terminal to draw on"
    return ""


def keep(session: Session, sheet: Sheet, line: str, kind: str) -> None:
    """Keep a form that was filled in; that it cannot be kept is no reason to fail."""
    import contextlib

    from dowsing.model.errors import CannotKeep
    from dowsing.userdata.kept_forms import kept_now

    with contextlib.suppress(CannotKeep):
        kept_now(session.settings.kept, sheet.title, line, kind)


def hand_out(session: Session, line: str, task: str) -> int:
    """Print the line that came of it, and note it for `take`."""
    from dowsing.tasks.remembered import Remembered, remember

    remember(session.settings.data, Remembered(ListKind.TASK, task, [], [line], [task]))
    write(line + "\n")
    if sys.stdout.isatty() and not from_shell() and "\n" not in line:
        message(f"next: {session.program} take --run · take --copy · take --save · take --unpick")
    return 0


def _kinds(session: Session) -> int:
    """The kinds of lines with what each is."""
    from dowsing.composing.line_kinds import line_kinds, read_kind
    from dowsing.model.errors import BadDescription

    rows = []
    for name, path in line_kinds(session.settings).items():
        try:
            kind = read_kind(path)
            rows.append(
                {"name": name, "summary": kind.summary, "file": kind.file, "page": kind.page}
            )
        except BadDescription as error:
            message(str(error))
    if session.json:
        session.print_json({"kinds": rows})
        return 0
    from dowsing.cli.listed import remember_own
    from dowsing.model.markup import BOLD, ROMAN, clean_line
    from dowsing.render.cell_width import display_width

    remember_own(session, [["compose", "--line", row["name"]] for row in rows])
    number = len(str(len(rows)))
    widest = max((display_width(row["name"]) for row in rows), default=0)
    lines = [
        f"{n:>{number}}  "
        f"{BOLD}{clean_line(row['name'])}{ROMAN}{' ' * (widest - display_width(row['name']) + 2)}"
        f"{clean_line(row['summary'])}  {clean_line(row['page'])}"
        for n, row in enumerate(rows, 1)
    ]
    session.screen.show(
        [
            *lines,
            "",
            f"next: {session.program} compose --line {rows[0]['name'] if rows else 'KIND'}",
        ]
    )
    return 0
