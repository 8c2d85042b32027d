"""Which shell is the user's own."""

from __future__ import annotations

import os

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.settings import Settings
    from dowsing.model.entry import ShellRow


def wanted_shell(settings: Settings) -> str:
    """The name of the shell that the settings or SHELL say, "" if neither does."""
    return settings.values.get("shell") or os.path.basename(settings.shell)


def own_shell(settings: Settings, known: list[str]) -> str:
    """The user's shell among those known: the one that is set, else bash, else the first."""
    wanted = wanted_shell(settings)
    if wanted in known:
        return wanted
    return "bash" if "bash" in known else (known[0] if known else "")


def own_first(rows: list[ShellRow], known: list[str], settings: Settings) -> list[ShellRow]:
    """What shells know of a name, the user's own first."""
    own = own_shell(settings, known)
    return sorted(rows, key=lambda row: row.shell != own)
