"""`resolve`: what a name would run, everywhere it stands, and what belongs to it."""

from __future__ import annotations

import argparse

from dowsing.model.record import dump
from dowsing.render.resolutions import resolution_lines
from dowsing.session.naming import any_subject, named, unknown
from dowsing.session.session import Session
from dowsing.sources.resolution import Resolution, resolve

DESCRIPTION = (
    "What a name would run, in the order in which the shell takes it: keyword, builtin, every "
    "program on PATH, with links, packages and the files that belong to it."
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument("name", nargs="*", metavar="NAME", help="kill, python3, [")
    parser.add_argument(
        "--startup",
        action="store_true",
        help="ask your shell with its start-up files for aliases and functions too",
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    names = _several(session, options.name)
    found = [_resolved(session, name, options.startup) for name in names]
    if session.json:
        rows = [as_json(one) for one in found]
        session.print_json(rows if len(rows) > 1 else rows[0])
        return 0
    lines: list[str] = []
    for one in found:
        lines += [""] * bool(lines)
        lines += resolution_lines(one, session.screen.width, session.program)
    session.screen.show(lines)
    return 0


def _several(session: Session, words: list[str]) -> list[list[str]]:
    """The names that words are: each for itself, where all are names and together they are none."""
    if len(words) > 1 and named(session, words).entry is None:
        if all(named(session, [word]).entry is not None for word in words):
            return [[word] for word in words]
    return [words]


def _resolved(session: Session, name: list[str], startup: bool) -> Resolution:
    """What one name would run. Raises Failure."""
    subject = any_subject(session, name, ask=False)
    found = resolve(subject, startup)
    if not found.candidates and not found.documents:
        raise unknown(session, subject.name)
    return found


def as_json(found: Resolution) -> dict[str, object]:
    """The answer as plain data."""
    whole = dump(found)
    for candidate, own in zip(whole["candidates"], found.candidates, strict=True):
        candidate["link_to"] = own.file if own.links else None
    whole["runs"] = whole["candidates"][0] if whole["candidates"] else None
    whole["documents"] = [{"path": path, "source": source} for path, source in found.documents]
    return dict(whole)
