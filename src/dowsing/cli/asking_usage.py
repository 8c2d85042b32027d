"""`index --usage`: asks the programs of a folder or a package for their usage, and takes up what
they say.
"""

from __future__ import annotations

import os

from dowsing.index.command_rows import programs_of
from dowsing.machine.search_path import commands
from dowsing.model.errors import CannotBuild, Failure
from dowsing.model.markup import clean_line
from dowsing.render.layout import title_lines
from dowsing.render.line_marks import HEADING
from dowsing.render.typed import typed
from dowsing.render.wrap import wrap
from dowsing.session.session import Session
from dowsing.sources.asking_many import Asked, ask_many
from dowsing.terminal.progress_bar import building
from dowsing.terminal.screen import message

_SHOWN = 40  # programs without a usage text that are named


def ask_for(session: Session, places: list[str]) -> int:
    """Ask the programs of these folders and packages, take up what they say, and tell of it."""
    paths = [path for place in places for path in _programs(session, place)]
    paths = list({(os.path.basename(one), os.path.realpath(one)): one for one in paths}.values())
    title = f"asking {len(paths)} programs for their usage"
    with building(title, quiet=session.settings.demo, what="programs") as progress:
        asked = ask_many(paths, session.settings, progress)
    _take_up(session)
    if session.json:
        rows = [{"name": one.name, "path": one.path, "told": one.told, "says": one.says}
                for one in asked]  # fmt: skip
        session.print_json(rows)
    else:
        session.screen.show(asked_lines(asked, session.screen.width, session.program))
    return 0 if any(one.told for one in asked) else 1


def _programs(session: Session, place: str) -> list[str]:
    """The programs of a folder of PATH, or of a package. Raises Failure if it is neither."""
    folder = os.path.normpath(os.path.abspath(os.path.expanduser(place)))
    if os.path.isdir(folder):
        on_path = [os.path.normpath(one) for one in session.settings.search_path]
        inner = os.path.join(folder, "bin")
        folder = inner if folder not in on_path and inner in on_path else folder
        if folder not in on_path:
            raise Failure(f"{place} is no folder of PATH: what is not found there is not asked")
        return [os.path.join(folder, name) for name in sorted(commands(folder))]
    found = programs_of(session.store, place)
    if not found:
        raise Failure(f"{place} is neither a folder nor a package with programs on PATH")
    return found


def _take_up(session: Session) -> None:
    from dowsing.ingest.upkeep import bring_up_to_date

    session.store.close()
    try:
        bring_up_to_date(session.settings, None)
    except CannotBuild as error:
        message(f"what they say is kept, and could not be taken up: {error}")


def asked_lines(asked: list[Asked], width: int, program: str) -> list[str]:
    """What came of it as text."""
    told = [one for one in asked if one.told]
    rest = [one for one in asked if not one.told]
    lines = title_lines(
        "Usage", f"{len(told)} of {len(asked)} programs tell of themselves", [], width
    )
    if rest:
        lines += ["", f"{HEADING}WITHOUT A USAGE TEXT ({len(rest)})"]
        for one in rest[:_SHOWN]:
            says = one.says.removeprefix(f"{one.name} ")
            lines += wrap(f"{clean_line(one.name)}: {clean_line(says)}", width, 3, 5)
        if len(rest) > _SHOWN:
            lines.append(f"   … and {len(rest) - _SHOWN} more, with --format json")
    first = told[0].name if told else ""
    if first:
        lines += ["", *wrap(f"Next: {program} {typed(first)} · {program} find WORDS", width)]
    return lines
