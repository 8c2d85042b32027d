"""Addresses of the web and of other services: `https://user@host:port/path?query#part`."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_SHAPE = re.compile(
    r"(?P<scheme>[a-z][\w+.-]*)://(?P<user>[^/@]*@)?(?P<host>\[[^\]]*\]|[^/:?#]*)(?P<port>:\d+)?"
    r"(?P<path>/[^?#]*)?(?P<query>\?[^#]*)?(?P<part>#.*)?",
    re.DOTALL,
)


def read(value: str, dialect: str = "") -> Reading:
    """Its parts; nothing of one that is only a host and a path."""
    match = _SHAPE.fullmatch(value)
    if not match or not any(match[name] for name in ("user", "port", "query", "part")):
        return NOTHING
    cutter = Cutter(value)
    cutter.cut(match.end("scheme"), "how it is asked")
    if match["user"]:
        cutter.cut(match.start("user"))
        cutter.cut(match.end("user") - 1, "in whose name")
    cutter.cut(match.start("host"))
    cutter.cut(match.end("host"), "the machine")
    if match["port"]:
        cutter.cut(match.start("port") + 1)
        cutter.cut(match.end("port"), "the port")
    if match["path"]:
        cutter.cut(match.end("path"), "what is asked for there" if match["path"] != "/" else "")
    if match["query"]:
        cutter.cut(match.start("query") + 1)
        _query(cutter, match["query"][1:])
    if match["part"]:
        cutter.cut(match.start("part") + 1)
        cutter.cut(len(value), "the place in it")
    return cutter.finish()


def _query(cutter: Cutter, query: str) -> None:
    """The pairs of a query: `a=1&b=2`."""
    for pair in query.split("&"):
        name, equals, text = pair.partition("=")
        cutter.cut(
            cutter.at + len(pair),
            f"{name} is {text or 'empty'}" if equals else f"asks {name}" if name else "",
        )
        cutter.cut(
            min(cutter.at + 1, len(cutter.value))
            if cutter.value[cutter.at : cutter.at + 1] == "&"
            else cutter.at
        )
