"""Values that this machine has for a kind: files and folders, users, groups, hosts, signals, ports, units.

All come from listing folders and reading the usual files; nothing is run.
"""

from __future__ import annotations

import os
import re

from dowsing.model.markup import clean_line
from dowsing.model.plainfile import plain_only
from dowsing.model.quoting import file_word
from dowsing.model.value_kinds import SIGNALS

MOST_VALUES = 60
_UNIT_FOLDERS = ("/etc/systemd/system", "/run/systemd/system", "/usr/lib/systemd/system", "/lib/systemd/system")
_UNIT = re.compile(r".+\.(?:service|socket|timer|target|mount|path|slice|device|scope|swap|automount)\Z")


def values_here(kind: str, placeholder: str, typed: str, home: str = "") -> list[str] | None:
    """The values of a kind that begin with what is typed, in order; None for a kind that has no list.

    `home` is the user's own folder, for `~` and for what ssh knows of hosts.
    """
    home = home or os.path.expanduser("~")
    if re.fullmatch(r"(?:UNIT|PATTERN|unit)(?:\.\.\.)?", placeholder.strip("[]<>")) and kind in ("text", "pattern"):
        return _begin(_units(), typed)
    if kind in ("file", "folder", "path"):
        return [file_word(path) for path in files_here(typed, kind == "folder", home)]
    if kind == "user":
        return _begin(_first_fields("/etc/passwd"), typed)
    if kind == "group":
        return _begin(_first_fields("/etc/group"), typed)
    if kind == "host":
        user, at, part = typed.rpartition("@")
        return [user + at + host for host in _begin(_hosts(home), part)]
    if kind == "signal":
        return _begin(SIGNALS[:31], typed.upper().removeprefix("SIG"))
    if kind == "port":
        return _begin(_ports(), typed)
    return None


def _begin(values: list[str], typed: str) -> list[str]:
    return [value for value in dict.fromkeys(values) if value.startswith(typed)][:MOST_VALUES]


def _lines(path: str) -> list[str]:
    try:
        with open(path, encoding="utf-8", errors="replace", opener=plain_only) as file:
            return [clean_line(line.rstrip("\n")) for line in file]
    except OSError:
        return []


def _first_fields(path: str) -> list[str]:
    return [line.split(":")[0] for line in _lines(path) if ":" in line and not line.startswith("#")]


def _ports() -> list[str]:
    return [line.split()[0] for line in _lines("/etc/services") if line[:1].isalpha()]


def _hosts(home: str) -> list[str]:
    found: list[str] = []
    for line in _lines("/etc/hosts"):
        found += line.partition("#")[0].split()[1:]
    for line in _lines(os.path.join(home, ".ssh", "config")):
        words = line.split()
        if words[:1] and words[0].lower() == "host":
            found += [word for word in words[1:] if not set(word) & set("*?!")]
    for line in _lines(os.path.join(home, ".ssh", "known_hosts")):
        names = line.split(" ")[0]
        if names and names[0] not in "|#@":
            found += [name for name in names.split(",") if not name.startswith("[")]
    return found


def _units() -> list[str]:
    found: set[str] = set()
    for folder in _UNIT_FOLDERS:
        try:
            found.update(name for name in os.listdir(folder) if _UNIT.match(name))
        except OSError:
            continue
    return sorted(found)


def files_here(typed: str, folders_only: bool, home: str) -> list[str]:
    """The files and folders that begin as typed; folders end with a slash, hidden ones come when asked for.

    Names that cannot be seen as they are, with control characters or bytes that are no text in them, are not given.
    """
    home = home or os.path.expanduser("~")
    folder, slash, part = typed.rpartition("/")
    place = folder + slash
    if place.startswith("~/") or place == "~":
        place = home + place[1:]
    found = []
    try:
        with os.scandir(place or ".") as entries:
            for entry in entries:
                if not entry.name.startswith(part) or (entry.name[0] == "." and not part.startswith(".")):
                    continue
                if not entry.name.isprintable():
                    continue
                is_folder = entry.is_dir()
                if is_folder or not folders_only:
                    found.append(folder + slash + entry.name + ("/" if is_folder else ""))
    except OSError:
        return []
    return sorted(found)[:MOST_VALUES]
