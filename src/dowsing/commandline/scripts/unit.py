"""Units of systemd: what their `Exec…` keys run (systemd.service)."""

from __future__ import annotations

import re

from dowsing.commandline.scripts.fragments import Fragment, Where
from dowsing.commandline.scripts.logical_lines import logical_lines
from dowsing.model.told import told

_KEY = re.compile(r"\s*(Exec\w+)\s*=\s*(.*)", re.DOTALL)
_PREFIX = re.compile(r"[-@:+!|]*")
_ENDINGS = (".service", ".socket", ".mount", ".timer", ".path", ".target")


def recognises(name: str, text: str) -> bool:
    """Whether it is a unit: by its name, or the sections it has."""
    is_unit = re.search(r"^\[(?:Unit|Service|Timer|Install)\]\s*$", text, re.MULTILINE)
    return name.endswith(_ENDINGS) or (is_unit is not None and "Exec" in text)


def fragments(text: str) -> list[Fragment]:
    """Each line that is run."""
    found: list[Fragment] = []
    for number, line in logical_lines(text):
        match = _KEY.match(line)
        if match and match[2].strip():
            command = _PREFIX.sub("", match[2], count=1).replace("$$", "$").replace("%%", "%")
            found.append(Fragment(command, number, told(Where.UNIT_KEY, match[1])))
    return found
