"""Reading in a pane beside, or in a window of its own."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys

from dowsing.model.errors import Failure
from dowsing.terminal.screen import message

WIDE = 150  # columns from which on two pages fit beside each other
#: What the page depends on, which a new pane may not have.
_PASSED = ("PATH", "MANPATH", "INFOPATH", "LANG", "LC_ALL", "NO_COLOR", "PAGER", "HOME", "SHELL")
#: Terminals, each with what stands before the command in it.
_TERMINALS = {
    "x-terminal-emulator": ["-e"],
    "gnome-terminal": ["--"],
    "konsole": ["-e"],
    "xfce4-terminal": ["-x"],
    "kitty": [],
    "foot": [],
    "alacritty": ["-e"],
    "wezterm": ["start", "--"],
    "xterm": ["-e"],
}


def open_beside(arguments: list[str], environment: dict[str, str], columns: int) -> str:
    """Run the program with these arguments in a pane beside, in a window otherwise; what it was
    opened in.

    `columns`: how wide the terminal is. Raises Failure if there is neither.
    """
    command = [*_environment(environment), *program(), *arguments]
    tried = []
    for what, call in _ways(command, environment, columns):
        tried.append(what)
        if _works(call, wait="window" not in what):
            return what
    if tried:
        raise Failure(
            f"{tried[-1]} could not be opened; read it here, or as a page: --format html -o FILE",
            status=3,
        )
    raise Failure(
        "--beside needs a terminal multiplexer around this shell (tmux, screen, zellij), or a "
        "graphical screen with a terminal program; for a second screen: --format html -o FILE",
        status=3,
    )


def program() -> list[str]:
    """How this program is called again."""
    called = sys.argv[0]
    if os.path.basename(called) == "dowsing" and os.access(called, os.X_OK):
        return [os.path.abspath(called)]
    return [sys.executable, "-m", "dowsing.cli.main"]


def _environment(environment: dict[str, str]) -> list[str]:
    """`env` with what the page depends on."""
    wanted = [
        name for name in environment if name in _PASSED or name.startswith(("DOWSING_", "XDG_"))
    ]
    return ["env", *(f"{name}={environment[name]}" for name in wanted)]


def _ways(
    command: list[str], environment: dict[str, str], columns: int
) -> list[tuple[str, list[str]]]:
    """The ways there are, the nearest first: what it is, and the call."""
    found: list[tuple[str, list[str]]] = []
    wide = columns >= WIDE
    if environment.get("TMUX") and shutil.which("tmux"):
        found.append(("a pane of tmux", ["tmux", "split-window", "-h" if wide else "-v", *command]))
    if environment.get("STY") and shutil.which("screen"):
        found.append(("a window of screen", ["screen", "-X", "screen", *command]))
    if environment.get("ZELLIJ") and shutil.which("zellij"):
        side = "right" if wide else "down"
        found.append(
            (
                "a pane of zellij",
                ["zellij", "run", "--close-on-exit", "--direction", side, "--", *command],
            )
        )
    if environment.get("WEZTERM_PANE") and shutil.which("wezterm"):
        side = "--right" if wide else "--bottom"
        found.append(("a pane of wezterm", ["wezterm", "cli", "split-pane", side, "--", *command]))
    if environment.get("KITTY_LISTEN_ON") and shutil.which("kitty"):
        found.append(
            ("a pane of kitty", ["kitty", "@", "launch", "--location", "vsplit", *command])
        )
    if environment.get("DISPLAY") or environment.get("WAYLAND_DISPLAY"):
        own = environment.get("TERMINAL", "")
        names = [own] if own and shutil.which(own) else []
        for name in [*names, *(one for one in _TERMINALS if shutil.which(one))]:
            before = _TERMINALS.get(os.path.basename(name), ["-e"])
            found.append((f"a window of {os.path.basename(name)}", [name, *before, *command]))
    return found


def _works(call: list[str], wait: bool) -> bool:
    """Make a call; whether it worked. What stays open is looked at for a moment only."""
    try:
        run = subprocess.Popen(
            call,
            stdin=subprocess.DEVNULL,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            start_new_session=True,
        )
        return run.wait(timeout=10 if wait else 0.5) == 0
    except subprocess.TimeoutExpired:
        return True
    except OSError:
        return False


def read_beside(arguments: list[str], columns: int, cache: str) -> int:
    """Read beside what the arguments of `read` ask for: in the place of what the reader there shows
    already, else in a new one. Raises Failure.
    """
    from dowsing.terminal.following import Wanted, hand_over, place_for, write_wanted

    place = place_for(cache)
    if hand_over(place, arguments):
        message("shown beside")
        return 0
    try:
        write_wanted(place, Wanted(arguments))
    except OSError as error:
        why = (error.strerror or "failed").lower()
        raise Failure(f"{place} cannot be written: {why}", status=3) from None
    where = open_beside(["read", "--following", place], dict(os.environ), columns)
    message(f"opened in {where}")
    return 0
