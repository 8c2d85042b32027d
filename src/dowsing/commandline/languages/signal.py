"""Signals by number and name (POSIX.1-2017, signal.h, with the numbers of Linux)."""

from __future__ import annotations

from dowsing.commandline.languages.reading import NOTHING, Part, Reading

_SIGNALS = {
    "HUP": "the terminal is gone; many services read their settings anew",
    "INT": "interrupt, as Ctrl-C sends it",
    "QUIT": "quit, as Ctrl-\\ sends it",
    "KILL": "ends it at once; it cannot be caught",
    "TERM": "asks it to end",
    "STOP": "halts it; it cannot be caught",
    "CONT": "lets it go on",
    "TSTP": "halts it, as Ctrl-Z does",
    "USR1": "means what the program says",
    "USR2": "means what the program says",
    "PIPE": "nobody reads what it writes",
    "ALRM": "a timer has run out",
    "CHLD": "a process it started has ended",
    "WINCH": "the window's size has changed",
    "EXIT": "the shell itself ends",
    "ERR": "a command failed",
    "DEBUG": "before each command",
}
_NUMBERS = {
    1: "HUP",
    2: "INT",
    3: "QUIT",
    9: "KILL",
    10: "USR1",
    12: "USR2",
    13: "PIPE",
    14: "ALRM",
    15: "TERM",
    17: "CHLD",
    18: "CONT",
    19: "STOP",
    20: "TSTP",
    28: "WINCH",
}


def read(value: str, dialect: str = "") -> Reading:
    """The signal with what it means."""
    if value == "0":
        return Reading([Part("0", "no signal: tells whether the process is there")])
    name = _NUMBERS.get(int(value), "") if value.isdecimal() else value.upper().removeprefix("SIG")
    says = _SIGNALS.get(name, "")
    if not says:
        return NOTHING
    return Reading([Part(value, f"{name}: {says}" if value.isdecimal() else says)], name)
