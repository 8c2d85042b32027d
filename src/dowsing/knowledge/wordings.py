"""Wordings of recipes: ways in which people ask for them. They stand beside the recipes, in
`files.wordings` for `files.toml`:

    tar -xf <archive> -C <folder>
        unpack <archive> into <folder>
        where did I put ... no, just open <archive>

The line of a recipe, and below it, set in, its wordings with the places of values as in the line.
Lines that begin with `#` are remarks. They are read when the index is written and when the choice
of recipes is fitted (bench/fit_tasks.py), not at look-up.
"""

from __future__ import annotations

import os


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


def read_wordings(folder: str = "") -> dict[str, list[str]]:
    """The wordings of a folder of recipes, of that which comes with the program if none is said."""
    folder = folder or os.path.join(os.path.dirname(os.path.abspath(__file__)), "recipes")
    found: dict[str, list[str]] = {}
    for name in sorted(os.listdir(folder)):
        if name.endswith(".wordings"):
            with open(os.path.join(folder, name), encoding="utf-8") as file:
                for line, wordings in parse_wordings(file.read()).items():
                    found.setdefault(line, []).extend(wordings)
    return found
