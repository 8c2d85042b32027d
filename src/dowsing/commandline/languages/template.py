"""Templates of Go, as container tools and others take them: `{{.Names}}\\t{{json .State}}`."""

from __future__ import annotations

import re

from dowsing.commandline.languages.printf import escape_words
from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_TOKEN = re.compile(r"\{\{-?(.*?)-?\}\}|\\[nt]|(?:(?!\{\{|\\[nt]).)+", re.DOTALL)
_BLOCKS = {
    "range": "for each of {0}",
    "if": "if there is {0}",
    "with": "with {0}, if there is such",
    "else": "otherwise",
    "end": "ends what was begun",
    "json": "{0} as JSON",
    "index": "one element: {0}",
    "len": "the length of {0}",
    "println": "{0} and a new line",
    "upper": "{0} in capitals",
    "lower": "{0} in small letters",
    "join": "{0} joined",
}


def read(value: str, dialect: str = "") -> Reading:
    """Each field, block and the text between."""
    if "{{" not in value:
        known = {"json": "as JSON", "table": "as a table", "yaml": "as YAML"}
        return Reading([], known.get(value, "")) if value in known else NOTHING
    cutter = Cutter(value)
    if value.startswith("table "):
        cutter.cut(5, "a table with titles")
    for match in _TOKEN.finditer(value, cutter.at):
        if match[1] is not None:
            cutter.cut(match.end(), _action(match[1].strip()))
        elif match[0][0] == "\\" and len(match[0]) == 2:
            cutter.cut(match.end(), escape_words(match[0]))
        else:
            cutter.cut(match.end(), "as it stands" if match[0].strip() else "")
    return cutter.finish()


def _action(text: str) -> str:
    first, _, rest = text.partition(" ")
    if first in _BLOCKS:
        return _BLOCKS[first].format(_field(rest.strip()))
    return _field(text)


def _field(text: str) -> str:
    if text == ".":
        return "all of it"
    if re.fullmatch(r"\.[\w.]+", text):
        names = text[1:].split(".")
        return names[-1] if len(names) == 1 else f"{names[-1]} of {'.'.join(names[:-1])}"
    return text
