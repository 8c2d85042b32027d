"""The manual folders of this machine."""

from __future__ import annotations

import os
import re

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.settings import Settings

_USUAL = (
    "/usr/local/share/man",
    "/usr/local/man",
    "/usr/share/man",
    "/usr/man",
    "/opt/homebrew/share/man",
    "/opt/local/share/man",
    "/usr/X11R6/man",
    "/usr/pkg/man",
)


def roots(settings: Settings) -> list[str]:
    """The manual folders to look in, in order: those of MANPATH, or those beside PATH and the usual
    ones.

    An empty part of MANPATH stands for the usual folders. Folders that do not exist are left out;
    two ways to one folder count once.
    """
    wanted: list[str] = []
    if settings.man_path is None:
        wanted = _usual_roots(settings)
    else:
        for part in settings.man_path.split(os.pathsep):
            wanted += [os.path.expanduser(part)] if part else _usual_roots(settings)
    found: list[str] = []
    seen: set[str] = set()
    for folder in wanted:
        real = os.path.realpath(folder)
        if real not in seen and os.path.isdir(real):
            seen.add(real)
            found.append(folder if os.path.isabs(folder) else real)
    return found


def _usual_roots(settings: Settings) -> list[str]:
    wanted: list[str] = []
    for folder in settings.search_path:
        if os.path.isabs(folder):
            above = os.path.dirname(os.path.normpath(folder))
            wanted += [os.path.join(above, "share", "man"), os.path.join(above, "man")]
    return [*wanted, os.path.expanduser("~/.local/share/man"), *_USUAL]


def section_folders(root: str) -> list[str]:
    """The folders of a manual folder that hold pages, `man1` … and formatted `cat1` …. Raises
    OSError.
    """
    is_section = re.compile(r"(?:man|cat)(?:[0-9][a-zA-Z0-9]*|[nlop])\Z").match
    return sorted(
        entry.path for entry in os.scandir(root) if is_section(entry.name) and entry.is_dir()
    )
