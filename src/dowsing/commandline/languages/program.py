"""Programs given on the line to python, perl, ruby or node: what can be told at a glance."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Part, Reading, listed
from dowsing.commandline.languages.regex import parts_of

_NAMES = {"python": "Python", "perl": "Perl", "ruby": "Ruby", "node": "JavaScript", "php": "PHP"}
_IMPORT = re.compile(r"(?:^|[;\n])\s*(?:import\s+([\w., ]+)|from\s+([\w.]+)\s+import)")
_SUBSTITUTION = re.compile(
    r"\s*s(.)((?:\\.|(?!\1).)*)\1((?:\\.|(?!\1).)*)\1([gimsxe]*)\s*;?\s*", re.DOTALL
)
_FLAGS = {"g": "every time", "i": "in any case", "e": "whose result is computed"}


def read(value: str, dialect: str = "") -> Reading:
    """What language it is in, what it uses; a single substitution is taken apart."""
    if dialect in ("perl", "ruby"):
        replaced = substitution(value)
        if replaced.says:
            return replaced
    if not value.strip():
        return NOTHING
    name = _NAMES.get(dialect, "")
    notes = []
    used = [
        one.split(" as ")[0].strip()
        for match in _IMPORT.finditer(value)
        for one in (match[1] or match[2]).split(",")
    ]
    if used:
        notes.append(f"uses {listed(used[:4])}")
    if re.search(r"\bprint(?:f|ln)?\b|console\.log|\bputs\b|\bsay\b|\becho\b", value):
        notes.append("prints")
    says = f"a program in {name}" if name else "a program"
    cutter = Cutter(value)
    cutter.cut(len(value), "; ".join([says, *notes]))
    return cutter.finish(says)


def substitution(value: str) -> Reading:
    """A program that is `s/old/new/g` alone; nothing of another."""
    match = _SUBSTITUTION.fullmatch(value)
    if not match or match[1].isalnum() or match[1].isspace():
        return NOTHING
    _, old, new, flags = match.groups()
    notes = [_FLAGS[flag] for flag in flags if flag in _FLAGS]
    said = ", ".join([f"puts {new or 'nothing'} in the place of what matches {old}", *notes])
    return Reading([Part(value, said, parts_of(old, "perl"))], said)
