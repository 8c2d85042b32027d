"""What entries are for, in plain words: the curated phrases, and the place where tasks of recipes
count as well.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from functools import cache

from dowsing.knowledge.absent import read_absent

_FOLDER = os.path.join(os.path.dirname(os.path.abspath(__file__)), "phrases")

_SPECIAL = "uncommon.toml"


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


@cache
def special_labels() -> frozenset[str]:
    """The labels of pages that few people look for: they have no other phrases than those of the
    file of such pages.
    """
    import tomllib

    with open(os.path.join(_FOLDER, _SPECIAL), "rb") as data:
        labels = tomllib.load(data)
    return frozenset(label for label, found in labels.items() if not _has_more(label, found))


def _has_more(label: str, phrases: str) -> bool:
    return len(purposes()[label]) > len(list(_parted(phrases)))


def _parted(phrases: str) -> Iterator[str]:
    return (phrase.strip() for phrase in phrases.split(";"))
