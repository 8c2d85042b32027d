"""Data that is sent with a request: JSON, the fields of a form, a file (`@file`)."""

from __future__ import annotations

import json
import re

from dowsing.commandline.languages.reading import (
    NOTHING,
    Cutter,
    LanguageFault,
    Reading,
    counted,
    fault,
    listed,
)

MOST_KEYS = 6
_PAIR = re.compile(r"([\w.\[\]-]+)(=@|=<|=|@)([^&]*)")


def read(value: str, dialect: str = "") -> Reading:
    """What is sent."""
    if value == "@-":
        return Reading([], "what comes in on its input")
    if value.startswith("@"):
        return Reading([], f"the contents of {value[1:]}")
    if value.lstrip()[:1] in ("{", "["):
        return _json(value)
    return _form(value)


def _json(value: str) -> Reading:
    try:
        data = json.loads(value)
    except ValueError as wrong:
        at = getattr(wrong, "pos", 0)
        if at >= len(value.rstrip()):  # it ends too early
            char = value.lstrip()[:1]
            start = value.index(char)
            return Reading([], "", fault(start, start + 1, LanguageFault.NOT_CLOSED, char))
        return NOTHING
    says = f"JSON: {_outline(data)}"
    cutter = Cutter(value)
    cutter.cut(len(value), says)
    return cutter.finish("JSON")


def _outline(data: object) -> str:
    """What JSON holds, in outline."""
    if isinstance(data, dict):
        names = [f"{key}" for key in data]
        if not names:
            return "an empty object"
        more = [f"{len(names) - MOST_KEYS} more"] if len(names) > MOST_KEYS else []
        return f"an object with {listed([*names[:MOST_KEYS], *more])}"
    if isinstance(data, list):
        return f"a list of {counted(str(len(data)), 'element')}"
    return "one value"


def _form(value: str) -> Reading:
    cutter = Cutter(value)
    named = 0
    for text in value.split("&"):
        match = _PAIR.fullmatch(text)
        named += bool(match)
        cutter.cut(cutter.at + len(text), _field(match) if match else "")
        if cutter.at < len(value):
            cutter.cut(cutter.at + 1)
    return cutter.finish() if named else NOTHING


def _field(match: re.Match[str]) -> str:
    name, sign, text = match.groups()
    if sign == "=@":
        return f"the field {name}: the file {text.partition(';')[0]}"
    if sign in ("=<", "@"):
        return f"the field {name}: the contents of {text}"
    return f"the field {name}: {text or 'empty'}"
