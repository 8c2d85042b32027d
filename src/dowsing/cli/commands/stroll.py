"""`stroll`: something not yet read, at random; how far one has come."""

from __future__ import annotations

import argparse

from dowsing.cli.commands import card
from dowsing.cli.commands.find import add_filters, filters_of
from dowsing.cli.listed import remember_own
from dowsing.model.entry import EntryKind
from dowsing.model.errors import CannotKeep, Failure
from dowsing.render.typed import typed
from dowsing.search.filters import Filters, narrowed
from dowsing.session.naming import find_entry
from dowsing.session.session import Session
from dowsing.terminal.asking import agreed, can_ask
from dowsing.terminal.screen import message
from dowsing.userdata.reading_progress import StrollPlace, forget, pick, read_labels, shares

DESCRIPTION = (
    "The card of an entry that you have not read yet, picked at random: of all commands, builtins, "
    "file formats and "
    "topics, or of what the filters leave. What was shown by card, read or examples counts as read."
)
#: What is picked from where nothing narrows: functions and subcommands would leave little chance to
#: all else.
KINDS = frozenset((EntryKind.COMMAND, EntryKind.BUILTIN, EntryKind.FILE_FORMAT, EntryKind.TOPIC))


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    add_filters(parser)
    ways = parser.add_mutually_exclusive_group()
    ways.add_argument(
        "--progress", action="store_true", help="how much of each package and family was read"
    )
    ways.add_argument(
        "--reset", action="store_true", help="forget what was read, as far as the filters go"
    )
    parser.add_argument(
        "--limit",
        type=int,
        choices=range(1, 1001),
        default=8,
        metavar="N",
        help="with --progress: so many of each (8)",
    )
    parser.add_argument("--yes", action="store_true", help="with --reset: do not ask")


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    filters = filters_of(options)
    if options.yes and not options.reset:
        raise Failure("--yes goes with --reset", status=2)
    within = narrowed(session.store, filters, options=True)
    everything = [StrollPlace(*row) for row in session.store.places(within)]
    places = [place for place in everything if filters.any or place.kind in KINDS]
    if not places:
        raise Failure(
            f"nothing is in {filters.described()}; what there is: {session.program} words packages"
        )
    try:
        read = read_labels(session.settings.kept)
        if options.reset:
            return _reset(session, options, filters, places, read)
    except CannotKeep as error:
        raise Failure(str(error), status=3) from None
    if options.progress:
        return _progress(session, options, places, everything, read)
    return _stroll(session, filters, places, read)


def _stroll(
    session: Session, filters: Filters, places: list[StrollPlace], read: dict[str, str]
) -> int:
    place = pick(places, read)
    again = " ".join(
        f"--{name} {typed(value)}" for name in Filters._fields if (value := getattr(filters, name))
    )
    if place is None:
        where = f" of {filters.described()}" if filters.any else ""
        raise Failure(
            f"all {len(places)}{where} are read; begin again with: {session.program} stroll "
            f"{again} --reset".replace("  ", " ")
        )
    status = card.show(session, find_entry(session, [place.label]))
    if not session.json:
        left = sum(one.label not in read for one in places) - 1
        where = f" in {filters.described()}" if filters.any else ""
        more = f"{session.program} stroll {again}".rstrip()
        message(
            f"{left} of {len(places)}{where} not read yet; on: {more} · how far: {more} --progress"
        )
    return status


def _progress(
    session: Session,
    options: argparse.Namespace,
    places: list[StrollPlace],
    everything: list[StrollPlace],
    read: dict[str, str],
) -> int:
    """`places` are what a stroll picks from, `everything` all that packages and families have."""
    done = sum(place.label in read for place in places)
    groups = {by: shares(everything, read, by) for by in ("package", "family")}
    if session.json:
        session.print_json(
            {
                "read": done,
                "total": len(places),
                "packages": groups["package"],
                "families": groups["family"],
            }
        )
        return 0
    from dowsing.render.progress_lines import progress_lines

    listed = {by: found[: options.limit] for by, found in groups.items()}
    remember_own(
        session, [["stroll", f"--{by}", one.name] for by, found in listed.items() for one in found]
    )
    session.screen.show(
        progress_lines(
            done, len(places), groups, options.limit, session.screen.width, session.program
        )
    )
    return 0


def _reset(
    session: Session,
    options: argparse.Namespace,
    filters: Filters,
    places: list[StrollPlace],
    read: dict[str, str],
) -> int:
    """Forget what was read, after asking."""
    labels = {place.label for place in places} if filters.any else None
    count = sum(labels is None or label in labels for label in read)
    where = f" of {filters.described()}" if filters.any else ""
    if not count:
        message(f"nothing{where} was read yet")
        return 0
    if not options.yes:
        if not can_ask():
            raise Failure(
                "what was read is forgotten only after asking, and nobody can be asked; --yes "
                "does it",
                status=2,
            )
        if not agreed(f"forget that {count}{where} were read?"):
            message("nothing was forgotten")
            return 1
    message(f"{forget(session.settings.kept, labels)} forgotten{where}")
    return 0
