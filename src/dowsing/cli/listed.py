"""Lists whose lines are look-ups of our own, which `take` makes."""

from __future__ import annotations

import argparse
import shlex

from dowsing.session.session import Session
from dowsing.tasks.remembered import ListKind, Remembered, remember

TYPE_CHECKING = False
if TYPE_CHECKING:
    from types import ModuleType


def remember_own(session: Session, calls: list[list[str]]) -> None:
    """Note a list; each call is the arguments of the program."""
    demo = ["--demo"] if session.settings.demo else []
    remember(
        session.settings.data,
        Remembered(ListKind.OWN, "", [], [shlex.join([*demo, *call]) for call in calls]),
    )


def make_call(line: str) -> int:
    """Make the look-up of a line of such a list; its exit status. Raises Failure."""
    from dowsing.cli.main import run

    return run(shlex.split(line))


def as_given(command: ModuleType, word: str) -> argparse.Namespace:
    """The arguments of another command when it is given this word alone."""
    parser = argparse.ArgumentParser()
    command.add_arguments(parser)
    return parser.parse_args(["--", word])
