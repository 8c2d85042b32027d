"""Which shells there are here, the user's own first."""

from __future__ import annotations

from dowsing.machine.shells.any_shell import Shell, on_path
from dowsing.machine.shells.choice import wanted_shell

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.settings import Settings

_KNOWN = ("bash", "zsh", "fish", "dash", "ksh", "mksh", "yash")


def installed_shells(settings: Settings) -> list[Shell]:
    """The shells that can be asked, the user's own first; those that the settings describe come
    before others.
    """
    from dowsing.machine.shells.described import DescribedShell

    found: list[Shell] = [
        DescribedShell(name, description, settings.search_path)
        for name, description in settings.shells.items()
    ]
    if not settings.demo:
        for name in _KNOWN:
            path = on_path(name, settings.search_path)
            if path and name not in settings.shells:
                found.append(shell_named(name, path, settings))
    own = wanted_shell(settings)
    return sorted(found, key=lambda shell: shell.name != own)


def shell_named(name: str, path: str, settings: Settings) -> Shell:
    """The shell of that kind at `path`."""
    if name == "bash":
        from dowsing.machine.shells.bash import Bash

        return Bash(name, path, settings.search_path)
    if name == "zsh":
        from dowsing.machine.shells.zsh import Zsh

        return Zsh(name, path, settings.search_path)
    if name == "fish":
        from dowsing.machine.shells.fish import Fish

        return Fish(name, path, settings.search_path)
    from dowsing.machine.shells.posix import PosixShell

    return PosixShell(name, path, settings.search_path)
