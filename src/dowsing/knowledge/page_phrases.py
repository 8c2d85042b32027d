"""What entries are for, in plain words: the curated phrases, and the place where tasks of recipes
count as well.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from functools import cache

from dowsing.knowledge.absent import read_absent

_FOLDER = os.path.join(os.path.dirname(os.path.abspath(__file__)), "phrases")


@cache
def purposes() -> dict[str, list[str]]:
    """The phrases for each label, `tar(1)`. A label that this machine has no page for is simply not
    used.
    """
    import tomllib

    found: dict[str, list[str]] = {}
    for file in sorted(os.listdir(_FOLDER)):
        if file.endswith(".toml"):
            with open(os.path.join(_FOLDER, file), "rb") as data:
                table = tomllib.load(data)
            for label, phrases in table.items():
                found.setdefault(label, []).extend(_parted(phrases))
    for one in read_absent():
        found.setdefault(f"{one.name}({one.section})", []).extend(one.phrases)
    return found


def _parted(phrases: str) -> Iterator[str]:
    return (phrase.strip() for phrase in phrases.split(";"))
