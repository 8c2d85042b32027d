"""A header of HTTP, as it is sent: `Name: value` (RFC 9110)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_NAMES = {
    "accept": "the kind of answer that is wanted",
    "accept-encoding": "how the answer may be packed",
    "accept-language": "the language that is wanted",
    "authorization": "who asks",
    "cache-control": "how long copies may be kept",
    "content-type": "what kind of data is sent",
    "content-length": "how much is sent",
    "cookie": "cookies for the server",
    "host": "the name of the machine that is meant",
    "if-modified-since": "only if it changed since then",
    "if-none-match": "only if it is another version",
    "origin": "the page that asks",
    "range": "only that part of it",
    "referer": "the page that it was found on",
    "user-agent": "the program that asks",
    "x-api-key": "the key of the service",
}


def read(value: str, dialect: str = "") -> Reading:
    """What the header tells the server."""
    match = re.fullmatch(r"([\w-]+)([:;])\s*(.*)", value, re.DOTALL)
    if value.startswith("@"):
        return Reading([], f"the headers of the file {value[1:]}")
    if not match:
        return NOTHING
    name, sign, text = match.groups()
    cutter = Cutter(value)
    cutter.cut(len(name), _NAMES.get(name.lower(), "a header of that name"))
    if not text:
        says = "sent empty" if sign == ";" else "not sent"
        cutter.cut(len(value), says)
        return cutter.finish(f"the header {name} {says}")
    cutter.cut(match.start(3))
    cutter.cut(len(value), _value(name.lower(), text) or "what it says")
    return cutter.finish(f"the header {name}")


def _value(name: str, text: str) -> str:
    first = text.partition(" ")[0].lower()
    if name == "authorization" and first in ("bearer", "basic", "token", "digest"):
        return {"bearer": "by a token", "token": "by a token"}.get(
            first, "by a name and a password"
        )
    return {"application/json": "JSON", "text/html": "a page of the web"}.get(text.lower(), "")
