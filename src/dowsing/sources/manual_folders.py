"""The manual folders of this machine."""

from __future__ import annotations

import os
import re

from dowsing.model.plainfile import plain_only

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
    configured = _configured(settings)
    return [*wanted, *configured, os.path.expanduser("~/.local/share/man"), *_USUAL]


#: Files of the system that name manual folders, and their directives for one folder.
_CONFIGS = ("etc/manpath.config", "etc/man.conf")
_FOLDER = ("MANDATORY_MANPATH", "MANPATH", "manpath")
_MAP = "MANPATH_MAP"  # a folder of programs, and that of their pages
MOST_CONFIG = 1 << 16  # bytes


def _configured(settings: Settings) -> list[str]:
    """The manual folders that the system's own files name, those for folders of PATH among them."""
    found = []
    for name in _CONFIGS:
        try:
            with open(
                os.path.join(settings.package_root or "/", name), "rb", opener=plain_only
            ) as file:
                text = file.read(MOST_CONFIG).decode("utf-8", "surrogateescape")
        except OSError:
            continue
        for line in text.split("\n"):
            words = line.split()
            if len(words) > 1 and words[0] in _FOLDER:
                found.append(words[1])
            elif len(words) > 2 and words[0] == _MAP and words[1] in settings.search_path:
                found.append(words[2])
    return [folder for folder in found if os.path.isabs(folder)]


_SECTION = re.compile(r"(?:man|cat)(?:[0-9][a-zA-Z0-9]*|[nlop])\Z")
_LANGUAGE = re.compile(r"([a-z]{2,3}(?:_[A-Z]{2})?)(?:@\w+)?(?:\.[\w-]+)?\Z")


def section_folders(root: str) -> list[str]:
    """The folders of a manual folder that hold pages, `man1` … and formatted `cat1` …, and those
    within them that hold pages of one architecture, `man4/amd64`. Raises OSError.
    """
    found: list[str] = []
    for entry in os.scandir(root):
        if _SECTION.match(entry.name) and entry.is_dir():
            found.append(entry.path)
            found += _folders_in(entry.path)
    return sorted(found)


def _folders_in(folder: str) -> list[str]:
    try:
        return [entry.path for entry in os.scandir(folder) if entry.is_dir(follow_symlinks=False)]
    except OSError:  # told where its pages are looked for
        return []


def language_folders(root: str, first: str = "") -> list[str]:
    """The folders of translated pages in a manual folder, those of the language `first` before the
    others. Raises OSError.
    """
    found = [e.path for e in os.scandir(root) if _LANGUAGE.match(e.name) and e.is_dir()]
    wanted = (first, first.split("_")[0])
    return sorted(found, key=lambda path: (_code(path) not in wanted, path))


def language_of(page: str, settings: Settings) -> str:
    """The code of the language whose folder a page stands in, `de`; "" for none. Such a folder
    stands in a manual folder: one that is named `man` elsewhere is none.
    """
    folder = os.path.dirname(os.path.dirname(page))
    code = _code(folder)
    if not code:
        return ""
    above, known = os.path.dirname(folder), roots(settings)
    is_within = above in known or os.path.basename(above) == "man"
    return code if is_within and folder not in known else ""


def _code(folder: str) -> str:
    name = os.path.basename(folder)
    match = None if _SECTION.match(name) else _LANGUAGE.match(name)
    return match[1] if match else ""
