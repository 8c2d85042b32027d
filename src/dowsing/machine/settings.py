"""Settings: environment and `config.toml`, read once into one object that is passed on."""

from __future__ import annotations

import os
import sys

from dowsing.model.errors import BadSettings
from dowsing.model.plainfile import plain_only
from dowsing.model.record import Record

DEMO_LIBRARY = os.path.join(
    os.path.dirname(os.path.dirname(os.path.abspath(__file__))), "demo", "library"
)
DEMO_RECIPES = os.path.join(DEMO_LIBRARY, "recipes")


class Settings(Record):
    """What a run depends on besides its arguments.

    `man_path`: manual folders given by the user, or None for the usual ones. `search_path`: the
    folders of PATH. `info_path`: folders of Info files given by the user, or None for the usual
    ones. `language`: a language code such as `de` or `pt_BR`, or "". `demo`: the demo library is in
    use. `shell`: the user's shell, "" if not known. `shells`: shells that the settings describe.
    `doc_folder`: where packages keep their documentation. `package_lists`: where dpkg keeps its
    lists, whose paths begin at `package_root`. `values`: the other keys of the settings file
    (`pager`, `color`, `width`, `shell`, `usage`). `keys`: the keys of the shell's snippet that the
    user wants other ones for. `complaints`: what is wrong with the settings file, and was left out.
    """

    cache: str
    data: str
    config: str
    man_path: str | None
    search_path: list[str]
    info_path: str | None = None
    language: str = ""
    demo: bool = False
    shell: str = ""
    shells: dict[str, dict[str, object]] = {}  # noqa: RUF012 - a record is immutable
    doc_folder: str = "/usr/share/doc"
    package_lists: str = "/var/lib/dpkg"
    package_root: str = ""
    values: dict[str, str] = {}  # noqa: RUF012 - a record is immutable
    keys: dict[str, str] = {}  # noqa: RUF012
    complaints: list[str] = []  # noqa: RUF012

    @property
    def indexed_too(self) -> list[str]:
        """What an index is made of besides manual pages, where it is not the usual: Info files,
        shells, the demo library.
        """
        return [
            *([self.info_path] if self.info_path else []),
            *sorted(self.shells),
            *(["demo"] if self.demo else []),
        ]

    @property
    def kept(self) -> str:
        """The folder of what the user keeps; what is kept while trying things on the demo library
        is apart.
        """
        return os.path.join(self.data, "demo") if self.demo else self.data


def _folder(kind: str, variable: str, xdg: str, usual: str, environment: dict[str, str]) -> str:
    """A folder of the program: its own variable, the XDG variable or the platform's place."""
    own = environment.get(variable)
    if own and "\x00" in own:
        raise BadSettings(f"{variable} cannot be the name of a folder")
    if own:
        return _absolute(os.path.expanduser(own), variable)
    base = environment.get(xdg)
    if base and os.path.isabs(base):
        return os.path.join(base, "dowsing")
    if sys.platform.startswith("linux"):
        # as platformdirs has it, without the time its import takes
        home = environment.get("HOME") or os.path.expanduser("~")
        return os.path.join(home, usual, "dowsing")
    import platformdirs

    return str(getattr(platformdirs, f"user_{kind}_dir")("dowsing", appauthor=False))


def _absolute(path: str, variable: str) -> str:
    """The path from the root. Raises BadSettings if it means the working folder and that is
    gone.
    """
    try:
        return os.path.abspath(path)
    except FileNotFoundError:
        raise BadSettings(
            f"{variable} is {path}, within a working folder that is gone; set it from the root, or "
            "cd to another folder"
        ) from None


def language_of(environment: dict[str, str]) -> str:
    """The language of messages in force, without encoding: `de`, `pt_BR`; "" for English and C."""
    for variable in ("LC_ALL", "LC_MESSAGES", "LANG"):
        value = environment.get(variable, "")
        if value:
            code = value.split(".")[0].split("@")[0]
            return "" if code in ("C", "POSIX") or code.startswith("en") else code
    return ""


def read_settings(environment: dict[str, str] | None = None, demo: bool = False) -> Settings:
    """The settings of this run. Raises BadSettings if `config.toml` cannot be read or parsed, or a
    variable names no folder.
    """
    env = dict(os.environ) if environment is None else environment
    config = _folder("config", "DOWSING_CONFIG", "XDG_CONFIG_HOME", ".config", env)
    read = _read_values(os.path.join(config, "config.toml"))
    values = read.values
    man_path = env.get("MANPATH") or None
    if "man_path" in values:
        man_path = values["man_path"]
    if demo:
        return _demo_settings(env, config, read)
    return Settings(
        cache=_folder("cache", "DOWSING_CACHE", "XDG_CACHE_HOME", ".cache", env),
        data=_folder("data", "DOWSING_DATA", "XDG_DATA_HOME", os.path.join(".local", "share"), env),
        config=config,
        man_path=man_path,
        search_path=[folder for folder in env.get("PATH", "").split(os.pathsep) if folder],
        info_path=env.get("INFOPATH") or None,
        language=values.get("language", language_of(env)),
        shell=env.get("SHELL", ""),
        shells=read.shells,
        values=values,
        keys=read.keys,
        complaints=read.complaints,
    )


def _demo_settings(env: dict[str, str], config: str, read: _Read) -> Settings:
    """Those of the demo library: its own manual, programs, Info files, shell and package lists, and
    no others.
    """
    library = DEMO_LIBRARY
    shells = {
        name: {**described, "path": os.path.join(library, str(described["path"]))}
        for name, described in _read_values(os.path.join(library, "config.toml")).shells.items()
    }
    return Settings(
        cache=_folder("cache", "DOWSING_CACHE", "XDG_CACHE_HOME", ".cache", env),
        data=_folder("data", "DOWSING_DATA", "XDG_DATA_HOME", os.path.join(".local", "share"), env),
        config=config,
        man_path=os.path.join(library, "man"),
        search_path=[os.path.join(library, "bin")],
        info_path=os.path.join(library, "info"),
        language=read.values.get("language", ""),
        demo=True,
        shells=shells,
        doc_folder=os.path.join(library, "doc"),
        package_lists=os.path.join(library, "packages"),
        package_root=library,
        values=read.values,
        keys=read.keys,
        complaints=read.complaints,
    )


class _Read(Record):
    """What the settings file says: plain values, descriptions of shells, keys, and what is wrong
    with it.
    """

    values: dict[str, str] = {}  # noqa: RUF012 - a record is immutable
    shells: dict[str, dict[str, object]] = {}  # noqa: RUF012
    keys: dict[str, str] = {}  # noqa: RUF012
    complaints: list[str] = []  # noqa: RUF012


def _read_values(path: str) -> _Read:
    """What the settings file says; nothing if there is none. Raises BadSettings."""
    if not os.path.exists(path):
        folder = os.path.dirname(path)
        if os.path.lexists(folder) and not (
            os.path.isdir(folder) and os.access(folder, os.R_OK | os.X_OK)
        ):
            why = "cannot be looked into" if os.path.isdir(folder) else "is no folder"
            return _Read(complaints=[f"{folder}, where the settings are looked for, {why}"])
        return _Read()
    import tomllib

    from dowsing.machine.settings_checks import faults_of

    try:
        with open(path, "rb", opener=plain_only) as file:
            whole = tomllib.load(file)
    except (OSError, ValueError, RecursionError) as error:
        raise BadSettings(
            f"the settings file {path} cannot be used ({error}); correct or remove it"
        ) from None
    found, faults = faults_of(whole)
    values = {}
    for key, value in found.items():
        if isinstance(value, (str, int)):
            values[key] = str(value)
        elif isinstance(value, list):
            values[key] = os.pathsep.join(str(item) for item in value)
    described = found.get("shell")
    shells = (
        {name: one for name, one in described.items() if isinstance(one, dict)}
        if isinstance(described, dict)
        else {}
    )
    chosen = found.get("keys")
    keys = {name: str(key) for name, key in chosen.items()} if isinstance(chosen, dict) else {}
    return _Read(values, shells, keys, [f"{path}: {fault}" for fault in faults])
