"""Values that this machine has for a kind: files and folders, users, groups, hosts, signals, ports,
units.

All come from listing folders and reading the usual files; nothing is run.
"""

from __future__ import annotations

import os
import re
from functools import cache

from dowsing.machine.project_names import names_of_project
from dowsing.model.markup import clean_line
from dowsing.model.plainfile import plain_only
from dowsing.model.quoting import file_word
from dowsing.model.value_kinds import (
    FILE_KINDS,
    PROJECT_KINDS,
    SIGNALS,
    ValueKind,
    WrongValue,
    wrong_kind,
)

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

MOST_VALUES = 120
COMMON_SIGNALS = 31  # those that every system has; the rest are other names and real-time ones
_MAY_BE_UNITS = (ValueKind.TEXT, ValueKind.PATTERN)
_UNIT_PLACEHOLDER = r"(?:UNIT|unit)(?:\.\.\.)?"
_SERVICES = "/etc/services"
_UNIT_FOLDERS = (
    "/etc/systemd/system",
    "/run/systemd/system",
    "/usr/lib/systemd/system",
    "/lib/systemd/system",
)
_UNIT = re.compile(
    r".+\.(?:service|socket|timer|target|mount|path|slice|device|scope|swap|automount)\Z"
)


def values_here(kind: str, placeholder: str, typed: str, home: str = "") -> list[str] | None:
    """The values of a kind that begin with what is typed, in order; None for a kind that has no
    list.

    `home` is the user's own folder, for `~` and for what ssh knows of hosts.
    """
    home = home or os.path.expanduser("~")
    if kind == ValueKind.UNIT:
        return _begin(_units(), typed)
    if kind in PROJECT_KINDS:
        named = list(names_of_project(kind))
        return _begin(named, typed) if named else None
    if kind in _MAY_BE_UNITS and re.fullmatch(_UNIT_PLACEHOLDER, placeholder.strip("[]<>")):
        return _begin(_units(), typed)
    if kind in FILE_KINDS:
        return [file_word(path) for path in files_here(typed, kind == ValueKind.FOLDER, home)]
    if kind == ValueKind.USER and ":" in typed:  # `root:adm`
        user, _, part = typed.partition(":")
        return [f"{user}:{group}" for group in _begin(_groups(), part)]
    if kind == ValueKind.HOST:
        user, at, part = typed.rpartition("@")
        return [user + at + host for host in _begin(_hosts(home), part)]
    if kind == ValueKind.SIGNAL:
        return _begin(SIGNALS[:COMMON_SIGNALS], typed.upper().removeprefix("SIG"))
    lister = _LISTERS.get(kind)
    return _begin(lister(), typed) if lister else None


def wrong_here(kind: str, value: str, says: str = "") -> WrongValue | None:
    """Why a value cannot be of its kind on this machine, which may have names for ports."""
    wrong = wrong_kind(kind, value, says)
    return None if wrong is WrongValue.NO_PORT and value in service_names() else wrong


@cache
def service_names() -> frozenset[str]:
    """The names that stand for ports here; a few that are everywhere where no file tells them."""
    lines = _lines(_SERVICES)
    words = frozenset(
        word for line in lines for word in line.partition("#")[0].split() if word.isalpha()
    )
    return words or frozenset(("ssh", "http", "https", "smtp", "domain"))


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


def _users() -> list[str]:
    return _first_fields("/etc/passwd")


def _groups() -> list[str]:
    return _first_fields("/etc/group")


def _ports() -> list[str]:
    return [line.split()[0] for line in _lines(_SERVICES) if line[:1].isalpha()]


_LISTERS: dict[str, Callable[[], list[str]]] = {
    ValueKind.USER: _users,
    ValueKind.GROUP: _groups,
    ValueKind.PORT: _ports,
}


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
    # services are what people mean, and not those that are one of many
    return sorted(found, key=lambda name: (not name.endswith(".service"), "@" in name, name))


def files_here(typed: str, folders_only: bool, home: str) -> list[str]:
    """The files and folders that begin as typed; folders end with a slash, hidden ones come when
    asked for.

    Names that cannot be seen as they are, with control characters or bytes that are no text in
    them, are not given.
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
                if not entry.name.startswith(part) or (
                    entry.name[0] == "." and not part.startswith(".")
                ):
                    continue
                if not entry.name.isprintable():
                    continue
                is_folder = entry.is_dir()
                if is_folder or not folders_only:
                    found.append(folder + slash + entry.name + ("/" if is_folder else ""))
    except OSError:
        return []
    return sorted(found)[:MOST_VALUES]
