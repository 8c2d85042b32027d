"""What a program that is asked for its usage may read: the system's programs and libraries, a few
files of /etc, and what belongs to the program itself, wherever that lies. No other file of the
user's.
"""

from __future__ import annotations

import os
import re

from dowsing.machine.links import follow
from dowsing.machine.packages.pip import library_folders, linked_code
from dowsing.machine.search_path import executables
from dowsing.model.paths import is_within
from dowsing.model.plainfile import plain_only

#: Folders of the system that hold programs, libraries and what they come with.
SYSTEM = (
    "/usr", "/bin", "/sbin", "/lib", "/lib32", "/lib64", "/libx32", "/nix/store", "/gnu/store",
    "/snap", "/var/lib/gems", "/sys/devices/system", "/sys/fs/cgroup", "/sys/kernel/mm",
    "/System", "/Library",
)  # fmt: skip
#: What programs read of /etc before they print anything: what libraries are where, names of users,
#: language and time, and the settings of the languages that programs are written in.
_OF_ETC = re.compile(
    r"ld\.so\..*|passwd|group|nsswitch\.conf|host\.conf|hosts|localtime|timezone|locale.*|"
    r"os-release|lsb-release|debian_version|mime\.types|magic.*|inputrc|terminfo|shells|profile|"
    r"bash.*|services|protocols|alternatives|"
    r"java.*|python.*|perl|php.*|ruby.*|node.*|npmrc|gitconfig|mono|ImageMagick.*|fonts"
)
#: Files within folders of /etc whose other files are nobody's business.
_WITHIN_ETC = ("/etc/ssl/openssl.cnf", "/etc/ssl/certs", "/etc/ca-certificates")
#: The folders of programs in what they belong to, and what else of that belongs to them.
_OF_PROGRAMS = ("bin", "sbin", "libexec", "shims", "scripts", "Scripts")
_PARTS = (
    "bin", "sbin", "lib", "lib32", "lib64", "libexec", "share", "include", "jre", "conf", "jmods",
    "shims", "versions", "version", "plugins", "pyenv.d", "rbenv.d", "completions", "pyvenv.cfg",
    "release", "package.json",
)  # fmt: skip
#: Parts of paths that name no program.
_GENERAL = frozenset("bin sbin lib libexec share usr local opt etc home root ssl ssh".split())
_MOST_CHAIN = 4  # scripts that are run by scripts
_BEGINNING = 512  # bytes: the first line of a script
_MOST_LIBRARIES = 40  # folders that a script says its code is in
#: A folder of libraries that a script names by its whole path.
_NAMED_LIBRARY = re.compile(r"[\"'](/[^\"'\n]*/(?:node_modules|site-packages))(?=[/\"'])")
_MOST_OF_SCRIPT = 1 << 16  # bytes that are looked through for them


def readable_paths(program: str, search_path: list[str]) -> list[str]:
    """The files and folders that the program may read; what is not there is left out."""
    found = [*SYSTEM, *_etc(), *_WITHIN_ETC]
    chain = _chain(program, search_path)
    for file in chain:
        found.append(file)
        found += _belonging(file)
    found += _own_settings(chain)
    return [path for path in dict.fromkeys(found) if os.path.exists(path)]


def _etc() -> list[str]:
    try:
        names = [name for name in os.listdir("/etc") if _OF_ETC.fullmatch(name)]
    except OSError:
        return []
    return [os.path.join("/etc", name) for name in names]


def _own_settings(chain: list[str]) -> list[str]:
    """What of /etc is named for the program or for a folder that it is in:
    `/etc/postgresql-common`.
    """
    names = {part for file in chain for part in file.split(os.sep) if part}
    names |= {name.partition("-")[0] for name in names}
    return [os.path.join("/etc", name) for name in sorted(names - _GENERAL)]


def _chain(program: str, search_path: list[str]) -> list[str]:
    """The program, what its links lead to, and the programs that run it if it is a script."""
    found: list[str] = []
    waiting = [program]
    while waiting and len(found) < 4 * _MOST_CHAIN:
        path = waiting.pop()
        real = os.path.realpath(path)
        steps = [step.path for step in follow(path)[0] if not step.folder]
        found += [one for one in (path, *steps, real) if one not in found]
        for runner in _runners(real, search_path):
            if runner not in found:
                waiting.append(runner)
    return found


def _runners(script: str, search_path: list[str]) -> list[str]:
    """The programs that the first line of a script names, [] if it is none."""
    try:
        with open(script, "rb") as file:
            first = file.read(_BEGINNING).split(b"\n")[0]
    except OSError:
        return []
    if not first.startswith(b"#!"):
        return []
    words = os.fsdecode(first[2:]).split()
    if words and os.path.basename(words[0]) == "env":
        named = [word for word in words[1:] if not word.startswith("-") and "=" not in word]
        return [words[0], *executables(named[0], search_path)[:1]] if named else words[:1]
    return [word for word in words[:1] if os.path.isabs(word)]


def _belonging(file: str) -> list[str]:
    """What belongs to a program: the folders that it was installed with."""
    found: list[str] = []
    folder = os.path.dirname(file)
    if os.path.basename(folder) in _OF_PROGRAMS:
        found += _prefix(os.path.dirname(folder))
    before, joint, _ = file.partition("/node_modules/")
    if joint:
        found.append(f"{before}/node_modules")
    return [*found, *_beside(file), *_named_libraries(file)]


def _beside(file: str) -> list[str]:
    """The files beside a program that have its name with an ending: `tool.jar`, `tool.json`."""
    folder, name = os.path.split(file)
    try:
        return [
            os.path.join(folder, one) for one in os.listdir(folder) if one.startswith(f"{name}.")
        ]
    except OSError:
        return []


def _named_libraries(file: str) -> list[str]:
    """The folders of libraries that a script says it takes its code from."""
    try:
        with open(file, "rb", opener=plain_only) as script:
            text = script.read(_MOST_OF_SCRIPT)
    except OSError:
        return []
    if not text.startswith(b"#!"):
        return []
    named = _NAMED_LIBRARY.findall(os.fsdecode(text))
    return list(dict.fromkeys(named))[:_MOST_LIBRARIES]


def _prefix(prefix: str) -> list[str]:
    """What of the folder that holds programs, libraries and the like may be read."""
    home = os.path.realpath(os.path.expanduser("~"))
    own = os.path.realpath(prefix)
    if own == "/" or is_within(own, list(SYSTEM)):
        return []
    if own == home:
        return []
    is_environment = os.path.exists(os.path.join(prefix, "pyvenv.cfg"))
    linked = linked_code(library_folders(prefix)) if is_environment else []
    if not is_within(own, [home]):
        return [prefix, *linked]
    # the user's own files may be in it too: ~/.local, ~/.cargo
    parts = ("lib",) if own == os.path.join(home, ".local") else _PARTS
    return [*(os.path.join(prefix, part) for part in parts), *linked]
