"""Processes and jobs as kill, fg and wait take them: `1234`, `%1`, `%-`, `-1234` (POSIX.1-2017, XBD
3.204 and kill).
"""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Part, Reading

_CURRENT = {
    "%": "the current job",
    "%%": "the current job",
    "%+": "the current job",
    "%-": "the job before the current one",
}


def read(value: str, dialect: str = "") -> Reading:
    """Which process, group or job it is."""
    if value in _CURRENT:
        says = _CURRENT[value]
    elif re.fullmatch(r"%\d+", value):
        says = f"job {value[1:]}"
    elif re.fullmatch(r"%\?.+", value):
        says = f"the job whose line has {value[2:]} in it"
    elif re.fullmatch(r"%\w.*", value):
        says = f"the job whose line begins with {value[1:]}"
    elif re.fullmatch(r"-\d+", value):
        says = f"the process group {value[1:]}" if value != "-1" else "every process that it may"
    elif value.isdecimal():
        return Reading([], f"process {value}")
    else:
        return NOTHING
    return Reading([Part(value, says)], says)
