"""The package that a file comes from, whichever manager brought it."""

from __future__ import annotations

import os

from dowsing.machine.packages import dpkg, homebrew, npm, pip, rpm

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.packages.package_record import Package
    from dowsing.machine.settings import Settings


def owner(path: str, settings: Settings) -> Package | None:
    """The package of a file or of what its links lead to; the managers of a language before those
    of the system.
    """
    for one in dict.fromkeys((path, os.path.realpath(path))):
        found = (
            homebrew.owner(one)
            or npm.owner(one)
            or dpkg.owner(one, settings.package_lists, settings.package_root)
        )
        if found or settings.demo:
            return found
        found = rpm.owner(one) or pip.owner(one)
        if found:
            return found
    return None


def files(path: str, package: Package, settings: Settings) -> list[str]:
    """The files of the package that `path` belongs to."""
    if package.manager == "dpkg":
        return dpkg.files(package.name, settings.package_lists, settings.package_root)
    readers = {"homebrew": homebrew.files, "npm": npm.files, "pip": pip.files, "rpm": rpm.files}
    for one in dict.fromkeys((path, os.path.realpath(path))):
        found = readers[package.manager](one)
        if found:
            return found
    return []
