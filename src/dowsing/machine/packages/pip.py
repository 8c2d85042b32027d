"""Python packages: the `RECORD` of an installed distribution lists its scripts, `METADATA` says
what it is.

The layout is that of the Python packaging user guide, "Recording installed projects".
"""

from __future__ import annotations

import os
import re

from dowsing.machine.packages.package_record import Package
from dowsing.model.plainfile import plain_only


def library_folders(prefix: str) -> list[str]:
    """The folders in which Python interpreters installed at `prefix` look for modules."""
    found = []
    for lib in ("lib", "local/lib"):
        base = os.path.join(prefix, lib)
        try:
            versions = sorted(
                name for name in os.listdir(base) if name.startswith(("python3", "pypy3"))
            )
        except OSError:
            continue
        found += [
            os.path.join(base, v, kind)
            for v in versions
            for kind in ("site-packages", "dist-packages")
        ]
    return [folder for folder in found if os.path.isdir(folder)]


_LINKED = re.compile(r"(?m)^(/[^\n]+)$|['\"](/[^'\"\n]+)['\"]")
_MOST_LINKED = 40  # folders that packages say their code is in
_MOST_OF_LINK = 1 << 16  # bytes of a file that says so


def linked_code(libraries: list[str]) -> list[str]:
    """Folders outside of these of libraries that packages in them say their code is in."""
    found: list[str] = []
    for library in libraries:
        try:
            for name in os.listdir(library):
                if name.endswith(".pth") or name.startswith("__editable__"):
                    path = os.path.join(library, name)
                    with open(path, errors="replace", opener=plain_only) as file:
                        text = file.read(_MOST_OF_LINK)
                    found += [one or other for one, other in _LINKED.findall(text)]
        except OSError:
            continue
    return found[:_MOST_LINKED]


def _distributions(path: str) -> list[str]:
    """The `.dist-info` folders beside the folder that a script stands in."""
    prefix = os.path.dirname(os.path.dirname(os.path.abspath(path)))
    return [
        os.path.join(folder, name)
        for folder in library_folders(prefix)
        for name in sorted(os.listdir(folder))
        if name.endswith(".dist-info")
    ]


def _record(distribution: str) -> str:
    """The list of a distribution's files as it stands there; empty if it cannot be read."""
    path = os.path.join(distribution, "RECORD")
    try:
        with open(path, encoding="utf-8", errors="replace", opener=plain_only) as file:
            return file.read()
    except OSError:
        return ""


def _listed(distribution: str, record: str) -> list[str]:
    """The files of a distribution's list, by their full paths."""
    base = os.path.dirname(distribution)
    return [
        os.path.normpath(os.path.join(base, line.rsplit(",", 2)[0].strip('"')))
        for line in record.split("\n")
        if line
    ]


def _distribution(path: str) -> str | None:
    name = os.path.basename(path)
    for distribution in _distributions(path):
        record = _record(distribution)
        if name in record and os.path.abspath(path) in _listed(distribution, record):
            return distribution
    return None


def owner(path: str) -> Package | None:
    """The package that installed the script at `path`, or None."""
    distribution = _distribution(path)
    return _package(distribution) if distribution is not None else None


def scripts(folder: str) -> dict[str, Package]:
    """The programs in a folder that Python packages installed, with these."""
    found: dict[str, Package] = {}
    inside = os.path.abspath(folder)
    for distribution in _distributions(os.path.join(folder, "any")):
        record = _record(distribution)
        names = [
            os.path.basename(path)
            for path in (_listed(distribution, record) if "bin/" in record else [])
            if os.path.dirname(path) == inside
        ]
        package = _package(distribution) if names else None
        if package is not None:
            found |= dict.fromkeys(names, package)
    return found


def _package(distribution: str) -> Package | None:
    """What the files of a distribution say of it."""
    try:
        with open(
            os.path.join(distribution, "METADATA"),
            encoding="utf-8",
            errors="replace",
            opener=plain_only,
        ) as file:
            head = file.read().split("\n\n")[0].split("\n")
    except OSError:
        return None
    fields: dict[str, str] = {}
    pages: list[tuple[str, str]] = []
    for line in head:
        key, _, value = line.partition(": ")
        fields.setdefault(key, value.strip())
        if key == "Project-URL":
            label, _, address = value.partition(", ")
            pages.append((label.casefold(), address.strip()))
    home_page = fields.get("Home-page", "")
    if home_page in ("", "UNKNOWN"):
        named = [
            address
            for label, address in pages
            if label.startswith(("home", "source", "repository"))
        ]
        home_page = (named or [address for _, address in pages] or [""])[0]
    return Package(
        fields.get("Name", ""),
        "pip",
        fields.get("Version", ""),
        home_page,
        fields.get("Summary", ""),
    )


def files(path: str) -> list[str]:
    """The files of the package that the script belongs to."""
    distribution = _distribution(path)
    return _listed(distribution, _record(distribution)) if distribution else []
