"""Which names an audit is over."""

from __future__ import annotations

import os
import shlex

from dowsing.index.command_rows import programs_of
from dowsing.index.store import Store
from dowsing.machine.search_path import commands
from dowsing.machine.settings import Settings
from dowsing.model.entry import Entry
from dowsing.model.errors import EmptyScope
from dowsing.model.record import Record


class Scope(Record):
    """The names of an audit. `kind`: `shell`, `package`, `family` or `path`; `shell` limits what
    shells know to one.
    """

    kind: str
    name: str
    names: list[str]
    shell: str = ""


def shell_scope(shell: str, store: Store) -> Scope:
    """All builtins and keywords of a shell. Raises EmptyScope."""
    names = [row.name for row in store.shell_names(shell)]
    if not names:
        there = ", ".join(store.shells()) or "none"
        raise EmptyScope(
            f"the shell {shell[:40]} is not here or could not be asked; shells here: {there}"
        )
    return Scope("shell", shell, names, shell)


def entries_scope(kind: str, name: str, store: Store) -> Scope:
    """The commands of a package (those that it has a page or a program of) or of a family. Raises
    EmptyScope.
    """
    entries = store.of_package(name) if kind == "package" else store.of_family(name)
    names = [entry.name for entry in entries if _is_command(entry)]
    if kind == "package":
        names += [os.path.basename(path) for path in programs_of(store, name)]
    if not names:
        what = "has no commands that are known here" if entries else "is not known here"
        raise EmptyScope(
            f"the {kind} {name[:60]} {what}; find one with: dowsing find {shlex.quote(name[:60])}"
        )
    return Scope(kind, name, list(dict.fromkeys(names)))


def path_scope(settings: Settings, store: Store) -> Scope:
    """Everything that a prompt takes: the builtins of the user's shell and all commands on PATH."""
    from dowsing.machine.shells.choice import own_shell

    own = own_shell(settings, store.shells())
    names = [row.name for row in store.shell_names(own)]
    for folder in settings.search_path:
        if folder.startswith("/"):
            names += sorted(commands(folder))
    names = [name for name in dict.fromkeys(names) if name.isprintable()]
    if not names:
        raise EmptyScope("there is no command on PATH")
    return Scope("path", "PATH", names, own)


def _is_command(entry: Entry) -> bool:
    return entry.section in ("", "builtin") or entry.section[:1] in ("1", "6", "8")
