"""zsh: its parameters `builtins` and `reswords` list its names; what they do is in its manual."""

from __future__ import annotations

from dowsing.core.shells.bash import ask_interactive
from dowsing.core.shells.shell import Shell, ShellName, quoted, records

_SCRIPT = r"""
zmodload zsh/parameter
for name in ${(ok)reswords}; do printf '%s\037keyword\036' "$name"; done
for name in ${(ok)builtins}; do printf '%s\037builtin\036' "$name"; done
"""

_DEFINED = r"""
printf '\036'
alias -- %(name)s 2>/dev/null
printf '\037'
typeset -f -- %(name)s 2>/dev/null
printf '\036'
"""


class Zsh(Shell):
    """The Z shell."""

    manual = ("zshbuiltins", "zshmisc", "zshmodules", "zshcompwid", "zshzle")

    def line(self, text: str) -> list[str]:
        """Without start-up files."""
        return [self.path, "-f", "-c", text]

    def names(self) -> list[ShellName]:
        """Reserved words before builtins."""
        found = [fields for fields in records(self.ask(self.line(_SCRIPT))) if len(fields) == 2 and fields[0]]
        return list({name: ShellName(name, kind) for name, kind in reversed(found)}.values())[::-1]

    def defined(self, name: str) -> list[tuple[str, str]]:
        """From an interactive shell with the user's own environment."""
        return ask_interactive([self.path, "-i", "-c", _DEFINED % {"name": quoted(name)}])
