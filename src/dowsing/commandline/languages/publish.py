"""Ports that a container shows: `[address:][port:]port[/protocol]`."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_SHAPE = re.compile(
    r"(?:(?P<address>\[[^\]]+\]|\d+\.[\d.]+):)?(?:(?P<own>[\d-]*):)?(?P<inner>[\d-]+)(?:/(?P<kind>tcp|udp|sctp))?"
)


def read(value: str, dialect: str = "") -> Reading:
    """Which port of this machine leads to which of the container."""
    match = _SHAPE.fullmatch(value)
    if not match:
        return NOTHING
    inner = f"{_port(match['inner'])} of the container" + (
        f" ({match['kind'].upper()})" if match["kind"] else ""
    )
    if match["own"]:
        own = f"{_port(match['own'])} of this machine"
    else:
        own = "a free port of this machine"
    if match["address"] in ("127.0.0.1", "[::1]"):
        own += ", for itself only"
    elif match["address"] and match["address"] != "0.0.0.0":
        own += f" at {match['address']}"
    cutter = Cutter(value)
    cutter.cut(match.start("inner") - 1 if match.start("inner") else 0, own)
    cutter.cut(match.start("inner"))
    cutter.cut(len(value), inner)
    return cutter.finish(f"{inner} at {own}")


def _port(text: str) -> str:
    return f"ports {text.replace('-', ' to ')}" if "-" in text else f"port {text}"
