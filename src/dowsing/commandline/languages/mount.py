"""What a container gets to see of this machine: `from:to:how`, or `type=bind,source=…,target=…`."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading, listed

_HOW = {
    "ro": "to be read only",
    "rw": "to be read and written",
    "z": "labelled for containers to share",
    "Z": "labelled for this container alone",
    "U": "owned by the user of the container",
    "nocopy": "without the contents that the image has there",
    "cached": "kept in step loosely",
    "delegated": "kept in step loosely",
    "consistent": "kept in step strictly",
}
_KINDS = {
    "bind": "something of this machine",
    "volume": "a volume",
    "tmpfs": "a file system in memory",
}
_SAME = {"src": "source", "dst": "target", "destination": "target", "ro": "readonly"}


def read(value: str, dialect: str = "") -> Reading:
    """What is seen where, and how."""
    return _volume(value) if dialect == "volume" else _pairs(value)


def _volume(value: str) -> Reading:
    fields = value.split(":")
    if len(fields) > 3 or not all(fields):
        return NOTHING
    cutter = Cutter(value)
    if len(fields) == 1:
        says = f"a volume without a name at {value} in the container"
        cutter.cut(len(value), says)
        return cutter.finish(says)
    source = _source(fields[0])
    how = [_HOW.get(one, one) for one in fields[2].split(",")] if len(fields) > 2 else []
    cutter.cut(len(fields[0]), source)
    cutter.cut(cutter.at + 1)
    cutter.cut(cutter.at + len(fields[1]), "where the container sees it")
    if how:
        cutter.cut(cutter.at + 1)
        cutter.cut(len(value), listed(how))
    return cutter.finish(", ".join([f"{source} seen at {fields[1]}", *how]))


def _source(text: str) -> str:
    is_path = text[:1] in "/.~$" or "/" in text
    return f"{text} of this machine" if is_path else f"the volume {text}"


def _pairs(value: str) -> Reading:
    known: dict[str, str] = {}
    cutter = Cutter(value)
    for match in re.finditer(r"([\w-]+)(?:=([^,]*))?(,|\Z)", value):
        key = _SAME.get(match[1], match[1])
        known[key] = match[2] or ""
        cutter.cut(match.end() - len(match[3]), _pair(key, match[2] or ""))
        cutter.cut(match.end())
    if not {"target", "source", "type"} & set(known):
        return NOTHING
    what = known.get("source") or _KINDS.get(known.get("type", "volume"), "something")
    says = f"{_source(what) if known.get('source') else what} seen at {known.get('target', '?')}"
    if "readonly" in known:
        says += f", {_HOW['ro']}"
    return cutter.finish(says if known.get("target") else "")


def _pair(key: str, text: str) -> str:
    if key == "type":
        return _KINDS.get(text, "")
    if key == "readonly":
        return _HOW["ro"] if text in ("", "true", "1") else ""
    return {"source": "what it is", "target": "where the container sees it"}.get(key, "")
