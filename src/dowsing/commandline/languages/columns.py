"""Lists of columns: `pid,ppid,%cpu,cmd`, with `=TITLE` behind a name and a sign before it."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_COLUMNS = {
    "pid": "number of the process",
    "ppid": "number of its parent",
    "pgid": "number of its group",
    "sid": "number of its session",
    "tid": "number of the thread",
    "lwp": "number of the thread",
    "user": "who runs it",
    "euser": "in whose name it runs",
    "uid": "number of the user",
    "group": "group",
    "%cpu": "share of the CPU",
    "pcpu": "share of the CPU",
    "%mem": "share of the memory",
    "pmem": "share of the memory",
    "rss": "memory in use, KiB",
    "vsz": "memory asked for, KiB",
    "stat": "state",
    "state": "state",
    "s": "state",
    "tty": "terminal",
    "start": "when it began",
    "lstart": "when it began, in full",
    "etime": "how long it has run",
    "etimes": "how long it has run, seconds",
    "time": "CPU time",
    "cputime": "CPU time",
    "ni": "niceness",
    "nice": "niceness",
    "pri": "priority",
    "psr": "CPU it runs on",
    "comm": "name of the program",
    "ucmd": "name of the program",
    "cmd": "whole command",
    "args": "whole command",
    "command": "whole command",
    "wchan": "what it waits for",
    "name": "name",
    "size": "size",
    "type": "kind",
    "fstype": "file system",
    "mountpoint": "where it is mounted",
    "mountpoints": "where it is mounted",
    "label": "label",
    "uuid": "UUID",
    "model": "model",
    "source": "device",
    "target": "where it is mounted",
    "fssize": "size",
    "used": "used",
    "avail": "free",
    "pcent": "share in use",
    "unit": "unit",
}


def read(value: str, dialect: str = "") -> Reading:
    """Each column that is known by name."""
    cutter = Cutter(value)
    known = 0
    for match in re.finditer(r"([-+]?)([%\w.-]+?)(=[^,]*)?(?=[,\s]|\Z)|[,\s]+|.", value):
        says = _COLUMNS.get((match[2] or "").lower(), "")
        known += bool(says)
        if says and match[1]:
            says += ", largest first" if match[1] == "-" else ", smallest first"
        if says and match[3]:
            says += f", under {match[3][1:]}" if len(match[3]) > 1 else ", without a title"
        cutter.cut(match.end(), says)
    return cutter.finish() if known else NOTHING
