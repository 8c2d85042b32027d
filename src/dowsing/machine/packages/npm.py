"""npm packages: told by the `node_modules` folder that a file is in, with its `package.json`."""

from __future__ import annotations

import json
import os

from dowsing.machine.packages.package_record import Package
from dowsing.model.plainfile import plain_only


def folder(path: str) -> str | None:
    """The folder of the package that a file, its links followed, is in; None if it is in none."""
    parts = os.path.realpath(path).split(os.sep)
    if "node_modules" not in parts[:-1]:
        return None
    at = len(parts) - 1 - parts[::-1].index("node_modules")
    size = 3 if parts[at + 1].startswith("@") else 2
    return os.sep.join(parts[: at + size]) if len(parts) > at + size else None


def owner(path: str) -> Package | None:
    """The package of a file, or None."""
    place = folder(path)
    if place is None:
        return None
    try:
        with open(os.path.join(place, "package.json"), encoding="utf-8", opener=plain_only) as file:
            found = json.load(file)
    except (OSError, ValueError):
        return None
    if not isinstance(found, dict):
        return None
    return Package(
        str(found.get("name") or os.path.basename(place)),
        "npm",
        str(found.get("version") or ""),
        str(found.get("homepage") or ""),
        str(found.get("description") or ""),
    )


def files(path: str) -> list[str]:
    """The files of the package that the file belongs to, without those of packages inside it."""
    place = folder(path)
    found: list[str] = []
    for base, folders, names in os.walk(place or ""):
        folders[:] = [name for name in folders if name != "node_modules"]
        found += [os.path.join(base, name) for name in sorted(names)]
    return found
