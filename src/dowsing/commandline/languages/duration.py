"""Lengths of time: `90`, `1.5h`, `1h30m`, `2min`, `3 weeks` (sleep and systemd.time)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Part, Reading, counted, listed

_UNITS = {
    **dict.fromkeys(("ms", "msec"), "millisecond"),
    **dict.fromkeys(("", "s", "sec", "second", "seconds"), "second"),
    **dict.fromkeys(("m", "min", "minute", "minutes"), "minute"),
    **dict.fromkeys(("h", "hr", "hour", "hours"), "hour"),
    **dict.fromkeys(("d", "day", "days"), "day"),
    **dict.fromkeys(("w", "week", "weeks"), "week"),
    **dict.fromkeys(("month", "months"), "month"),
    **dict.fromkeys(("y", "year", "years"), "year"),
}
_STEP = re.compile(r"(\d+(?:\.\d+)?)\s*([a-z]*)\s*")


def read(value: str, dialect: str = "") -> Reading:
    """The time in words."""
    at, said = 0, []
    while at < len(value):
        match = _STEP.match(value, at)
        unit = _UNITS.get(match[2]) if match else None
        if not match or unit is None or (not match[2] and at):
            return NOTHING
        said.append(counted(match[1], unit))
        at = match.end()
    if not said or value in ("infinity",):
        return NOTHING
    says = listed(said)
    return Reading([Part(value, says)], says)
