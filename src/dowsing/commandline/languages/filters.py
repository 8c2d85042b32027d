"""Filters of ffmpeg, as far as they are simple: `scale=1280:-1,fps=30` (ffmpeg-filters)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_TOKEN = re.compile(
    r"((?:\[[^\]]*\])*)([a-z]\w*)(?:=((?:'[^']*'|\\.|[^,;\['\\])*))?((?:\[[^\]]*\])*)([,;]|\Z)"
)
_PLAIN = {
    "hflip": "mirrors it left to right",
    "vflip": "turns it upside down",
    "yadif": "takes the lines of two fields together",
    "reverse": "plays it backwards",
    "areverse": "plays it backwards",
    "negate": "makes a negative of it",
    "loudnorm": "makes it as loud as is usual",
    "palettegen": "makes a palette of its colours",
    "paletteuse": "uses a palette",
    "hstack": "puts them side by side",
    "vstack": "puts one over the other",
}


def read(value: str, dialect: str = "") -> Reading:
    """Each filter that is known."""
    cutter = Cutter(value)
    said = []
    while cutter.at < len(value):
        match = _TOKEN.match(value, cutter.at)
        if not match or match.end() == cutter.at:
            return NOTHING
        says = _filter(match[2], (match[3] or "").split(":"))
        said.append(says)
        cutter.cut(match.end() - len(match[5]), says)
        cutter.cut(match.end())
    return cutter.finish(", ".join(said) if all(said) else "")


def _filter(name: str, given: list[str]) -> str:
    if name in _PLAIN:
        return _PLAIN[name]
    first = re.sub(r"\A[a-z_]+=", "", given[0])
    numbers = [re.sub(r"\A[a-z_]+=", "", one) for one in given]
    if name == "scale" and len(numbers) > 1:
        return _scaled(numbers[0], numbers[1])
    if name == "crop" and len(numbers) > 1:
        return f"cuts out {numbers[0]} by {numbers[1]} pixels" + (
            f" from {numbers[2]}, {numbers[3]}" if len(numbers) > 3 else " from the middle"
        )
    if name == "transpose":
        return f"turns it {'to the left' if first in ('0', '2') else 'to the right'}"
    if name == "rotate":
        return f"turns it by {first}"
    told = {
        "fps": f"{first} pictures a second",
        "volume": f"{first} as loud" if not re.search(r"[A-Za-z]", first) else f"louder by {first}",
        "atempo": f"{first} times as fast",
        "setpts": _speed(first),
        "subtitles": f"draws in the subtitles of {first}",
        "drawtext": "writes a text over it",
        "trim": "cuts out a part",
        "atrim": "cuts out a part",
        "select": f"only the pictures where {first}",
        "fade": f"fades it {first}",
        "afade": f"fades it {first}",
        "overlay": "lays one over the other",
        "concat": "plays one after the other",
        "pad": "puts a frame round it",
        "format": f"stored as {first}",
        "split": "copies it",
    }
    return told.get(name, "")


def _scaled(width: str, height: str) -> str:
    if height.startswith("-"):
        return f"{width} pixels wide, as high as fits"
    if width.startswith("-"):
        return f"{height} pixels high, as wide as fits"
    return f"{width} by {height} pixels"


def _speed(text: str) -> str:
    match = re.fullmatch(r"([\d.]+)\*PTS|PTS/([\d.]+)", text)
    return (
        f"takes {match[1]} times as long"
        if match and match[1]
        else (f"{match[2]} times as fast" if match else "")
    )
