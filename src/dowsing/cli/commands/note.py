"""`note`: the user's own remark on a name."""

from __future__ import annotations

import argparse

from dowsing.model.errors import CannotKeep, Failure
from dowsing.model.markup import BOLD, ROMAN, clean_line
from dowsing.render.typed import typed
from dowsing.session.naming import find_entry
from dowsing.session.session import Session
from dowsing.session.user_data import notes_on
from dowsing.userdata import remarks
from dowsing.userdata.remarks import Remark

DESCRIPTION = (
    "Keeps a remark on a name: a page that is wrong, a trap, what to remember. It stands on the "
    "name's card and above its pages, and find finds it. Without a text it shows the remarks."
)
MOST = 2000  # characters


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """The arguments of the command."""
    parser.add_argument(
        "words", nargs="*", metavar="NAME [TEXT]", help="tar 'the manual of this machine is older'"
    )
    parser.add_argument(
        "--drop", type=int, metavar="N", help="keep the N-th remark on the name no longer"
    )


def run(session: Session, options: argparse.Namespace) -> int:
    """Answer the command."""
    session.only("text", "json")
    folder = session.settings.kept
    try:
        if not options.words:
            return _show(session, notes_on(session, None), "")
        found = find_entry(session, options.words[:1])
        assert found.entry is not None
        label, text = found.entry.label, " ".join(" ".join(options.words[1:]).split())
        there = notes_on(session, [label])
        if options.drop is not None:
            if not 1 <= options.drop <= len(there):
                raise Failure(f"there are {len(there)} remarks on {label}", status=2)
            remarks.drop_note(folder, there[options.drop - 1])
            session.screen.show([f"kept no longer: {clean_line(there[options.drop - 1].text)}"])
            return 0
        if not text:
            return _show(session, there, label)
        from datetime import date

        if len(text) > MOST:
            raise Failure(f"a remark has at most {MOST} characters", status=2)
        remarks.add_note(folder, Remark(label, text, date.today().isoformat()))
    except CannotKeep as error:
        raise Failure(str(error), status=3) from None
    session.screen.show([f"noted on {label}: {clean_line(text)}"])
    return 0


def _show(session: Session, found: list[Remark], label: str) -> int:
    if session.json:
        session.print_json({"name": label or None, "notes": found})
        return 0 if found else 1
    if not found:
        about = f" on {label}" if label else ""
        raise Failure(
            f"there is no remark{about} yet; write one: {session.program} note "
            f"{typed(label) if label else 'NAME'} 'TEXT'"
        )
    session.screen.show(
        [
            f"{number:>2}  {BOLD}{clean_line(one.name)}{ROMAN}  {one.day}  {clean_line(one.text)}"
            for number, one in enumerate(found, 1)
        ]
    )
    return 0
