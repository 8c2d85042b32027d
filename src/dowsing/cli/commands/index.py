"""`index`: build, refresh or look at the index."""

from __future__ import annotations

import argparse
import os
import time

from dowsing.knowledge.units import SECONDS_IN
from dowsing.model.markup import BOLD, ROMAN, clean_line
from dowsing.render.layout import title_lines
from dowsing.render.line_marks import HEADING
from dowsing.session.session import Session

DESCRIPTION = (
    "Builds or refreshes the index; --status says what it holds and what could not be read."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("--rebuild", action="store_true", help="read every page anew")
    parser.add_argument("--status", action="store_true", help="what the index holds")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    if options.rebuild:
        session.build("every page is read anew")
    status = status_of(session)
    if session.json:
        session.print_json(status)
    else:
        session.screen.show(status_lines(status, session.screen.width, session.program))
    return 0


def status_of(session: Session) -> dict[str, object]:
    """What the index says of itself."""
    store = session.store
    folders = store.folders()
    inside = {
        root: sum(os.path.dirname(folder) == root for folder in folders) for root in store.roots
    }
    return {
        "file": store.path,
        "bytes": os.path.getsize(store.path),
        "built": store.built,
        "pages": store.pages,
        **store.counts(),
        "shells": store.shells(),
        "folders": [{"path": root, "sections": inside[root]} for root in store.roots],
        "problems": store.problems(),
    }


def _age(built: int) -> str:
    seconds = max(int(time.time()) - built, 0)
    for unit in ("day", "hour", "minute"):
        size = SECONDS_IN[unit]
        if seconds >= size:
            count = seconds // size
            return f"{count} {unit}{'s' if count > 1 else ''} ago"
    return "just now"


def status_lines(status: dict, width: int, program: str) -> list[str]:  # type: ignore[type-arg]
    """The status as text."""
    size = status["bytes"]
    shown = f"{size / 1e6:.1f} MB" if size > 1e6 else f"{size / 1e3:.0f} kB"
    lines = title_lines(
        "The index", f"{status['pages']} pages, {status['entries']} entries", [], width
    )
    rows = [
        ("names", f"{status['names']}"),
        ("info", f"{status['info_names']} names in Info manuals"),
        ("shells", clean_line(", ".join(status["shells"])) or "none"),
        ("size", shown),
        (
            "built",
            f"{time.strftime('%Y-%m-%d %H:%M', time.localtime(status['built']))} "
            f"({_age(status['built'])})",
        ),
        ("file", clean_line(status["file"])),
    ]
    lines += ["", *(f"   {BOLD}{name:<8}{ROMAN}{value}" for name, value in rows), ""]
    lines.append(f"{HEADING}FOLDERS")
    lines += [f"   {clean_line(f['path'])}  ({f['sections']} sections)" for f in status["folders"]]
    problems = status["problems"]
    if problems:
        lines += ["", f"{HEADING}NOT READ ({len(problems)})"]
        lines += [f"   {clean_line(p.path)}: {clean_line(p.says)}" for p in problems[:200]]
        if len(problems) > 200:
            lines.append(
                f"   … and {len(problems) - 200} more: {program} index --status --format json"
            )
    else:
        lines += ["", "   Every page could be read."]
    return lines
