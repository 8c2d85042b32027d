"""Forwardings of ssh: `[address:]port:host:port`, of sockets, and of a port alone."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_TOKEN = re.compile(r"\[[^\]]*\]|[^:]+")
_HERE, _THERE = "here", "on the other machine"


def read(value: str, dialect: str = "local") -> Reading:
    """Where connections are taken, and where they are passed on to."""
    fields = list(_TOKEN.finditer(value))
    if ":".join(field[0] for field in fields) != value:
        return NOTHING
    texts = [field[0].strip("[]") for field in fields]
    if not 1 <= len(texts) <= 4 or (len(texts) == 1 and dialect == "local"):
        return NOTHING
    near, far = (_THERE, _HERE) if dialect == "remote" else (_HERE, _THERE)
    is_proxy = (
        len(texts) == 1
        or dialect == "dynamic"
        or (dialect == "remote" and len(texts) == 2 and texts[0][:1] not in "/~.")
    )
    split = len(texts) if is_proxy else len(texts) - (1 if texts[-1][:1] in "/~." else 2)
    if split < 1:
        return NOTHING
    listens, goes = texts[:split], texts[split:]
    cutter = Cutter(value)
    begin = _listens(listens, near)
    cutter.cut(fields[split - 1].end(), f"connections to {begin}")
    if is_proxy:
        out = "here" if far is _HERE else "there"
        says = f"takes connections to {begin} as a SOCKS proxy that passes them on from {out}"
        return Reading([cutter.parts[0].changed(says=says)], says)
    target = _goes(goes, far)
    cutter.cut(fields[split].start())
    cutter.cut(len(value), f"go to {target}")
    return cutter.finish(f"forwards {begin} to {target}")


def _listens(fields: list[str], where: str) -> str:
    """`port 8080 here`, `port 8080 of 0.0.0.0 here`."""
    if fields[-1][:1] in "/~.":
        return f"the socket {fields[-1]} {where}"
    address = fields[0] if len(fields) > 1 else ""
    if address in ("", "localhost", "127.0.0.1"):
        return f"port {fields[-1]} {where}"
    if address in ("*", "0.0.0.0", "::"):
        return f"port {fields[-1]} {where} (from anywhere)"
    return f"port {fields[-1]} of {address} {where}"


def _goes(fields: list[str], where: str) -> str:
    """`port 80 of db, as seen from there`."""
    if len(fields) == 1:
        return f"the socket {fields[0]} {where}"
    host, port = fields
    if host in ("localhost", "127.0.0.1", "::1"):
        return f"its own port {port}" if where is _THERE else f"port {port} here"
    return f"port {port} of {host}, as seen {'from there' if where is _THERE else 'from here'}"
