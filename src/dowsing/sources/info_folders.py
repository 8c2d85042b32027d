"""The Info files of this machine."""

from __future__ import annotations

import os
import re

from dowsing.readers.decoding import unpacked_name

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.settings import Settings

_USUAL = (
    "/usr/local/share/info",
    "/usr/share/info",
    "/usr/local/info",
    "/usr/info",
    "/opt/homebrew/share/info",
    "/opt/local/share/info",
    "/usr/pkg/info",
)
_PIECE = re.compile(r"(?:\.info)?-\d+\Z")
_NOT_INFO = (
    ".png",
    ".jpg",
    ".jpeg",
    ".gif",
    ".svg",
    ".eps",
    ".pdf",
    ".txt",
    ".html",
    ".old",
    ".js",
    ".css",
)


def info_folders(settings: Settings) -> list[str]:
    """The folders of Info files: those of INFOPATH, or those beside PATH and the usual ones, each
    once.
    """
    usual = [
        os.path.join(os.path.dirname(os.path.normpath(folder)), *place)
        for folder in settings.search_path
        if os.path.isabs(folder)
        for place in (("share", "info"), ("info",))
    ]
    usual += [os.path.expanduser("~/.local/share/info"), *_USUAL]
    wanted: list[str] = []
    if settings.info_path is None:
        wanted = usual
    else:
        for part in settings.info_path.split(os.pathsep):
            wanted += [os.path.expanduser(part)] if part else usual
    found: dict[str, str] = {}
    for folder in wanted:
        real = os.path.realpath(folder)
        if real not in found and os.path.isdir(real):
            found[real] = folder if os.path.isabs(folder) else real
    return list(found.values())


def bare_name(file: str) -> str:
    """`coreutils.info.gz` → `coreutils`."""
    return unpacked_name(file).removesuffix(".info").removesuffix(".inf")


def info_files(folder: str) -> list[str]:
    """The main files of the manuals in a folder, in order; pieces of split ones are not listed.
    Raises OSError.
    """
    found = []
    for entry in os.scandir(folder):
        name = unpacked_name(entry.name)
        if (
            name in ("dir", "dir.old")
            or name.endswith(_NOT_INFO)
            or name.startswith(".")
            or not entry.is_file()
        ):
            continue
        if not _PIECE.search(name) and (name.endswith((".info", ".inf")) or "." not in name):
            found.append(entry.path)
    return sorted(found)
