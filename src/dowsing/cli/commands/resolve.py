"""`resolve`: what a name would run, everywhere it stands, and what belongs to it."""

from __future__ import annotations

import argparse

from dowsing.model.record import dump
from dowsing.render.resolutions import resolution_lines
from dowsing.session.naming import any_subject, unknown
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
    subject = any_subject(session, options.name, ask=False)
    found = resolve(subject, options.startup)
    if not found.candidates and not found.documents:
        raise unknown(session, subject.name)
    if session.json:
        session.print_json(as_json(found))
    else:
        session.screen.show(resolution_lines(found, session.screen.width, session.program))
    return 0


def as_json(found: Resolution) -> dict[str, object]:
    """The answer as plain data."""
    whole = dump(found)
    for candidate, own in zip(whole["candidates"], found.candidates, strict=True):
        candidate["link_to"] = own.file if own.links else None
    whole["runs"] = whole["candidates"][0] if whole["candidates"] else None
    whole["documents"] = [{"path": path, "source": source} for path, source in found.documents]
    return dict(whole)
