"""Debian packages: the file lists and the status file that dpkg keeps."""

from __future__ import annotations

import os
import re

from dowsing.machine.packages.package_record import Package
from dowsing.model.plainfile import plain_only

MANAGER = "dpkg"
FOLDER = "/var/lib/dpkg"
_PARAGRAPH_FIELD = re.compile(
    r"^(Package|Version|Homepage|Description|Priority|Essential): (.*)$", re.MULTILINE
)


def owners(parts: tuple[str, ...], folder: str = FOLDER, root: str = "") -> dict[str, str]:
    """Path of every file whose path has one of `parts` in it, such as `/man/man` -> the package
    that brought it.

    `root` is the folder that the lists take for `/`, "" for the real one; so it is in all functions
    here.
    """
    found: dict[str, str] = {}
    for package, text in _lists(folder):
        if not any(part in text for part in parts):
            continue
        for line in text.split("\n"):
            for part in parts:
                if part in line:
                    found[root + line] = package
                    break
    return found


def _lists(folder: str):  # type: ignore[no-untyped-def]
    """The name and the file list of each package."""
    try:
        entries = os.scandir(os.path.join(folder, "info"))
        lists = [entry for entry in entries if entry.name.endswith(".list") and entry.is_file()]
    except OSError:
        return
    for entry in lists:
        try:
            with open(entry.path, encoding="utf-8", errors="surrogateescape") as file:
                yield entry.name[: -len(".list")].split(":")[0], file.read()
        except OSError:
            continue


def descriptions(folder: str = FOLDER) -> dict[str, str]:
    """The short description of every package."""
    return {name: fields.get("Description", "") for name, fields in _status(folder)}


def priorities(folder: str = FOLDER) -> dict[str, str]:
    """How basic each package is to a system: `essential`, or its priority (`required`, `important`,
    `standard`, …).
    """
    return {
        name: "essential" if fields.get("Essential") == "yes" else fields.get("Priority", "")
        for name, fields in _status(folder)
    }


def _status(folder: str) -> list[tuple[str, dict[str, str]]]:
    try:
        with open(
            os.path.join(folder, "status"), encoding="utf-8", errors="replace", opener=plain_only
        ) as file:
            text = file.read()
    except OSError:
        return []
    found = []
    for paragraph in text.split("\n\n"):
        fields = dict(_PARAGRAPH_FIELD.findall(paragraph))
        if "Package" in fields:
            found.append((fields["Package"], fields))
    return found


def spellings(path: str) -> tuple[str, ...]:
    """The path as lists may have it: before or after `/bin` became a link to `/usr/bin`."""
    if path.startswith("/usr/"):
        return path, path[4:]
    return path, "/usr" + path


def owner(path: str, folder: str = FOLDER, root: str = "") -> Package | None:
    """The package that brought the file, or None."""
    if not path.startswith(root):
        return None
    wanted = spellings(path.removeprefix(root))
    for name, text in _lists(folder):
        if any(f"\n{one}\n" in f"\n{text}\n" for one in wanted):
            return package(name, folder)
    return None


def package(name: str, folder: str = FOLDER) -> Package:
    """What is recorded of a package."""
    fields = next((fields for one, fields in _status(folder) if one == name), {})
    return Package(
        name,
        MANAGER,
        fields.get("Version", ""),
        fields.get("Homepage", ""),
        fields.get("Description", ""),
    )


def files(name: str, folder: str = FOLDER, root: str = "") -> list[str]:
    """The files and folders that a package brought."""
    for one, text in _lists(folder):
        if one == name:
            return [root + line for line in text.split("\n") if line and line != "/."]
    return []
