"""Wordings of recipes: ways in which people ask for them. They stand beside the recipes, in
`tar.wordings` for `tar.toml`:

    tar -xf <archive> -C <folder>
        unpack <archive> into <folder>
        where did I put ... no, just open <archive>

The line of a recipe, and below it, set in, its wordings with the places of values as in the line.
Lines that begin with `#` are remarks. They are read when the index is written and when the choice
of recipes is fitted (bench/fit_tasks.py), not at look-up.
"""

from __future__ import annotations

from dowsing.knowledge.compiled import Part, part


def parse_wordings(text: str) -> dict[str, list[str]]:
    """The wordings of a text by the lines of their recipes."""
    found: dict[str, list[str]] = {}
    wordings: list[str] = []
    for line in text.split("\n"):
        if line.startswith("    "):
            wordings.append(line.strip())
        elif line and not line.startswith("#"):
            wordings = found.setdefault(line, [])
    return found


def read_wordings() -> dict[str, list[str]]:
    """The wordings of the recipes that come with the program, by their lines."""
    found: dict[str, list[str]] = part(Part.WORDINGS)
    return found
