"""`index`: build, refresh or look at the index."""

from __future__ import annotations

import argparse
import os
import time
from collections.abc import Callable

from dowsing.ingest.progress_file import progress_of
from dowsing.knowledge.units import SECONDS_IN
from dowsing.machine.own_files import remove_lists, remove_own_files
from dowsing.machine.passing_cache import passing_cache
from dowsing.model.errors import Failure
from dowsing.model.markup import BOLD, ROMAN, clean_line
from dowsing.render.layout import title_lines
from dowsing.render.line_marks import HEADING
from dowsing.session.session import Session

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store

DESCRIPTION = (
    "Builds or refreshes the index; --status says what it holds and what could not be read, "
    "--usage asks programs that have no page, --remove takes it away."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "place", nargs="*", metavar="PLACE", help="for --usage: a folder on PATH, or a package"
    )
    ways = parser.add_mutually_exclusive_group()
    ways.add_argument("--rebuild", action="store_true", help="read every page anew")
    ways.add_argument(
        "--usage",
        action="store_true",
        help="ask the programs of these places for their usage, and take up what they say",
    )
    ways.add_argument("--status", action="store_true", help="what the index holds")
    ways.add_argument(
        "--remove", action="store_true", help="remove it, and all else that can be made anew"
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    if options.usage != bool(options.place):
        raise Failure(
            "--usage wants places to ask in, such as ~/.local/bin or the name of a package"
            if options.usage
            else "places are for --usage, which asks the programs there",
            status=2,
        )
    if options.remove:
        return _remove(session)
    if options.usage:
        from dowsing.cli.asking_usage import ask_for

        return ask_for(session, options.place)
    session.waits = not options.status
    if options.rebuild:
        session.build("every page is read anew", passing=False, whole=True)
    status = status_of(session)
    if session.json:
        session.print_json(status)
    else:
        session.screen.show(status_lines(status, session.screen.width, session.program))
    return 0


def _remove(session: Session) -> int:
    """Remove what can be made anew, and say what stays and where."""
    cache, data = session.settings.cache, session.settings.data
    caches = [one for one in dict.fromkeys((cache, passing_cache(make=False))) if one]
    calls: list[tuple[Callable[[str], tuple[list[str], int]], str]] = [
        *((remove_own_files, one) for one in caches),
        *((remove_lists, one) for one in (os.path.join(data, "demo"), data)),
    ]
    removed: list[str] = []
    size = 0
    for remove, folder in calls:
        try:
            paths, more = remove(folder)
        except OSError as error:
            says = (error.strerror or "failed").lower()
            raise Failure(f"cannot remove {error.filename}: {says}", status=3) from None
        removed += paths
        size += more
    kept = [one for one in (session.settings.data, session.settings.config) if os.path.isdir(one)]
    if session.json:
        session.print_json({"removed": removed, "bytes": size, "kept": kept})
        return 0
    lines = [f"{len(removed)} files removed, {_amount(size)}" if removed else "there was none"]
    if kept:
        lines.append(f"what is yours stays: {' and '.join(clean_line(one) for one in kept)}")
    session.screen.show(lines)
    return 0


def _amount(size: int) -> str:
    return f"{size / 1e6:.1f} MB" if size > 1e6 else f"{size / 1e3:.0f} kB"


def status_of(session: Session) -> dict[str, object]:
    """What the index says of itself."""
    store = session.store
    folders = store.folders()
    roots = [root for root in store.roots if root]
    inside = {root: sum(os.path.dirname(folder) == root for folder in folders) for root in roots}
    return {
        "file": store.path,
        "bytes": os.path.getsize(store.path),
        "built": store.built,
        "pages": store.pages,
        "whole": store.is_whole,
        "read": None if store.is_whole else (progress_of(store.path) or (0, 0))[0],
        "coming": _coming(store),
        **store.counts(),
        "shells": store.shells(),
        "folders": [{"path": root, "sections": inside[root]} for root in roots],
        "problems": store.problems(),
    }


def _coming(store: Store) -> dict[str, int] | None:
    """How many pages came and went since, and how many of them are taken up; None for none."""
    count = store.pending.count if store.pending and store.is_whole else 0
    done = progress_of(store.path) if count else None
    return {"pages": count, "taken_up": done[0] if done else 0} if count else None


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
    lines = title_lines(
        "The index", f"{status['pages']} pages, {status['entries']} entries", [], width
    )
    rows = [
        ("names", f"{status['names']}"),
        ("info", f"{status['info_names']} names in Info manuals"),
        ("shells", clean_line(", ".join(status["shells"])) or "none"),
        ("size", _amount(status["bytes"])),
        (
            "built",
            f"{time.strftime('%Y-%m-%d %H:%M', time.localtime(status['built']))} "
            f"({_age(status['built'])})",
        ),
        ("file", clean_line(status["file"])),
    ]
    if not status["whole"]:
        read = f"{status['read']} of {status['pages']} pages are read for the rest"
        rows.insert(0, ("holds", f"names and summaries so far; {read}"))
    if status["coming"]:
        coming = status["coming"]
        says = f"{coming['pages']} pages came or went; {coming['taken_up']} are taken up so far"
        rows.insert(0, ("coming", says))
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
    elif status["whole"]:
        lines += ["", "   Every page could be read."]
    else:
        lines += ["", "   Which pages cannot be read is told once all are."]
    return lines
