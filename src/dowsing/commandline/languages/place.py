"""A place on this machine or another: `user@host:path`, `host:`, `user@host`."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_SHAPE = re.compile(
    r"(?:(?P<user>[\w.-]+)@)?(?P<host>\[[0-9a-fA-F:]+\]|[\w.-]{2,})(?P<path>::?.*)?"
)


def read(value: str, dialect: str = "") -> Reading:
    """Who, on which machine, which path there."""
    match = _SHAPE.fullmatch(value)
    if not match or value.startswith((".", "/", "~")) or not (match["user"] or match["path"]):
        return NOTHING
    cutter = Cutter(value)
    host = match["host"]
    if match["user"]:
        cutter.cut(match.end("user"), "in whose name")
        cutter.cut(match.start("host"))
    cutter.cut(match.end("host"), "the machine")
    as_user = f" as {match['user']}" if match["user"] else ""
    path = match["path"]
    if path is None:
        return cutter.finish(f"{host}{as_user}")
    where = path.lstrip(":")
    cutter.cut(match.end("host") + len(path) - len(where))
    cutter.cut(
        len(value), "where on it" if not path.startswith("::") else "the module of its server"
    )
    shown = "the home folder" if where in ("", ".", "~") else where
    return cutter.finish(f"{shown} on {host}{as_user}")
