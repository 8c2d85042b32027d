"""Homebrew packages: told by the place of a file below `Cellar`, with the receipt and the formula
kept there.
"""

from __future__ import annotations

import json
import os
import re

from dowsing.machine.packages.package_record import Package
from dowsing.model.plainfile import plain_only

_PLACE = re.compile(r"(.*/Cellar/([^/]+)/([^/]+))/")
_HOME_PAGE = re.compile(r'^\s*homepage\s+"([^"]+)"', re.MULTILINE)
_SUMMARY = re.compile(r'^\s*desc\s+"([^"]+)"', re.MULTILINE)


def owner(path: str) -> Package | None:
    """The package of a file, its links followed, or None."""
    match = _PLACE.match(os.path.realpath(path))
    if match is None:
        return None
    keg, name, version = match.groups()
    formula = ""
    try:
        with open(
            os.path.join(keg, ".brew", f"{name}.rb"),
            encoding="utf-8",
            errors="replace",
            opener=plain_only,
        ) as file:
            formula = file.read()
    except OSError:
        pass
    home_page, summary = _HOME_PAGE.search(formula), _SUMMARY.search(formula)
    return Package(
        name,
        "homebrew",
        _receipt_version(keg) or version,
        home_page[1] if home_page else "",
        summary[1] if summary else "",
    )


def _receipt_version(keg: str) -> str:
    try:
        with open(
            os.path.join(keg, "INSTALL_RECEIPT.json"), encoding="utf-8", opener=plain_only
        ) as file:
            receipt = json.load(file)
        return str(receipt["source"]["versions"]["stable"])
    except (OSError, ValueError, KeyError, TypeError):
        return ""


def files(path: str) -> list[str]:
    """The files of the package that the file belongs to."""
    match = _PLACE.match(os.path.realpath(path))
    if match is None:
        return []
    return [
        os.path.join(base, name) for base, _, names in os.walk(match[1]) for name in sorted(names)
    ]
