"""Why a machine has no manual pages, and how they come back."""

from __future__ import annotations

import os
import re

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.settings import Settings

_LEFT_OUT = re.compile(r"^\s*path-exclude\s*=?\s*(/usr/share/man\S*)", re.MULTILINE)
_PLACES = ("etc/dpkg/dpkg.cfg", "etc/dpkg/dpkg.cfg.d")


def how_pages_come_back(settings: Settings) -> str:
    """What to do for pages: where dpkg is told to leave them out, else which package has them."""
    root = settings.package_root or "/"
    for file in _config_files(root):
        try:
            with open(file, encoding="utf-8", errors="replace") as opened:
                text = opened.read(1 << 16)
        except OSError:
            continue
        if _LEFT_OUT.search(text):
            return (
                f"{file} has dpkg leave them out; without that line, installing a package again "
                "brings its pages"
            )
    if os.path.isdir(settings.package_lists):
        return "the package manpages brings those of the system, and each package its own"
    return "they come with packages that your system keeps apart, or leaves out of an image"


def _config_files(root: str) -> list[str]:
    files = []
    for place in (os.path.join(root, place) for place in _PLACES):
        if os.path.isdir(place):
            files += [os.path.join(place, name) for name in sorted(os.listdir(place))]
        else:
            files.append(place)
    return [file for file in files if os.path.isfile(file)]
