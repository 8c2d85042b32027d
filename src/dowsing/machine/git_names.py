"""Names that a git repository has: branches, tags, remotes. They are read out of its files; git is
not run.
"""

from __future__ import annotations

import os
import re

from dowsing.model.markup import clean_line
from dowsing.model.plainfile import plain_only

MOST_NAMES = 500
_SECTION = re.compile(r"\[remote \"([^\"]+)\"\]")


def branches(folder: str = ".") -> list[str]:
    """The branches, then those of remotes and the tags, of the repository that has the folder; []
    without one.
    """
    place = _repository(folder)
    if not place:
        return []
    found: dict[str, None] = {}
    packed = [line.split(" ", 1)[1] for line in _lines(place, "packed-refs") if line[:1].isalnum()]
    for kind in ("heads", "remotes", "tags"):
        prefix = f"refs/{kind}/"
        for name in [*_loose(place, prefix), *packed]:
            if name.startswith(prefix) and not name.endswith("/HEAD"):
                found.setdefault(clean_line(name.removeprefix(prefix)))
    return list(found)[:MOST_NAMES]


def remotes(folder: str = ".") -> list[str]:
    """The remotes of the repository that has the folder."""
    place = _repository(folder)
    lines = _lines(place, "config") if place else []
    return [clean_line(match[1]) for line in lines if (match := _SECTION.match(line.strip()))]


def _repository(folder: str) -> str:
    """The folder in which git keeps the names, "" if there is none above `folder`."""
    here = os.path.abspath(folder)
    while True:
        place = os.path.join(here, ".git")
        if os.path.isdir(place):
            return place
        above = os.path.dirname(here)
        if above == here:
            return ""
        here = above


def _loose(place: str, prefix: str) -> list[str]:
    """The names that have a file of their own below `prefix`."""
    found: list[str] = []
    root = os.path.join(place, prefix)
    for folder, _, files in os.walk(root):
        below = os.path.relpath(folder, place)
        found += [f"{below}/{name}" for name in files]
        if len(found) > MOST_NAMES:
            break
    return sorted(found)


def _lines(place: str, name: str) -> list[str]:
    try:
        path = os.path.join(place, name)
        with open(path, encoding="utf-8", errors="replace", opener=plain_only) as file:
            return file.read(1_000_000).splitlines()
    except OSError:
        return []
