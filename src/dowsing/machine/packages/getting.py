"""How a package that is not here is brought, in words: by the tool that its name begins with, or by
the package manager of this system, if its lists have it.
"""

from __future__ import annotations

import os
import re
import sys

from dowsing.machine.search_path import executables

LISTS = "/var/lib/apt/lists"
#: Tools that install what is not a package of the system, each with the words before the name.
_TOOLS = {
    "pip": "pip install",
    "npm": "npm install -g",
    "cargo": "cargo install",
    "brew": "brew install",
    "gem": "gem install",
    "go": "go install",
    "snap": "sudo snap install",
}
#: Systems that a command is a part of, each with its name and how `sys.platform` begins there.
_SYSTEMS = {
    "macos": ("macOS", "darwin"),
    "freebsd": ("FreeBSD", "freebsd"),
    "openbsd": ("OpenBSD", "openbsd"),
}
_NAME = re.compile(r"[A-Za-z0-9@][\w.+@/-]*\Z")


def is_of_this_system(package: str) -> bool:
    """Whether a package can be had on this kind of system, as far as its name tells."""
    return package not in _SYSTEMS or sys.platform.startswith(_SYSTEMS[package][1])


def how_to_get(package: str, search_path: list[str], lists: str = LISTS) -> str:
    """The package, as absent.toml names it, and the line that installs it where that is sure.
    `search_path`: the folders of PATH.
    """
    if package in _SYSTEMS:
        return f"a part of {_SYSTEMS[package][0]}"
    tool, _, name = package.rpartition(":")
    if not _NAME.match(name):
        return ""
    if tool in _TOOLS:
        return f"{_TOOLS[tool]} {name}"
    if tool:
        return f"package {name} of {tool}"
    if executables("apt", search_path) and _is_listed(name, lists):
        return f"sudo apt install {name}"
    return f"package {name} (its name in Debian)"


def _is_listed(name: str, folder: str) -> bool:
    """Whether a list of the packages that can be had here has the name; lists that are packed are
    not read.
    """
    wanted = f"Package: {name}\n".encode()
    try:
        found = [entry.path for entry in os.scandir(folder) if entry.name.endswith("_Packages")]
    except OSError:
        return False
    return any(_has_line(path, wanted) for path in sorted(found))


def _has_line(path: str, wanted: bytes) -> bool:
    import mmap

    try:
        with open(path, "rb") as file, mmap.mmap(file.fileno(), 0, access=mmap.ACCESS_READ) as text:
            return text[: len(wanted)] == wanted or text.find(b"\n" + wanted) >= 0
    except (OSError, ValueError):  # an empty file has no memory to look through
        return False
