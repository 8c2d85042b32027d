"""Which installed package owns a file, read from the package manager's own lists."""

from __future__ import annotations

import os

_DPKG = "/var/lib/dpkg/info"


def owners_of_pages(folder: str = _DPKG) -> dict[str, str]:
    """Path of every manual page that a Debian package brought -> the package's name."""
    owners: dict[str, str] = {}
    try:
        lists = [entry for entry in os.scandir(folder) if entry.name.endswith(".list")]
    except OSError:
        return owners
    for entry in lists:
        try:
            with open(entry.path, encoding="utf-8", errors="surrogateescape") as file:
                text = file.read()
        except OSError:
            continue
        if "/man/man" not in text:
            continue
        package = entry.name[: -len(".list")].split(":")[0]
        for line in text.split("\n"):
            if "/man/man" in line:
                owners[line] = package
    return owners


def owner(path: str, owners: dict[str, str]) -> str | None:
    """The package of a file, told by its path, or by a folder of versions that holds it."""
    return owners.get(path)
