"""zsh: its parameters `builtins` and `reswords` list its names; what they do is in its manual."""

from __future__ import annotations

from dowsing.machine.shells.any_shell import Shell, ShellName
from dowsing.machine.shells.records import records

_SCRIPT = r"""
zmodload zsh/parameter
for name in ${(ok)reswords}; do printf '%s\037keyword\036' "$name"; done
for name in ${(ok)builtins}; do printf '%s\037builtin\036' "$name"; done
"""


class Zsh(Shell):
    """The Z shell."""

    print_alias = "alias -- {name} 2>/dev/null"
    print_function = "typeset -f -- {name} 2>/dev/null"

    manual = ("zshbuiltins", "zshmisc", "zshmodules", "zshcompwid", "zshzle")

    def line(self, text: str) -> list[str]:
        """Without start-up files."""
        return [self.path, "-f", "-c", text]

    def names(self) -> list[ShellName]:
        """Reserved words before builtins."""
        found = [
            fields
            for fields in records(self.ask(self.line(_SCRIPT)))
            if len(fields) == 2 and fields[0]
        ]
        return list({name: ShellName(name, kind) for name, kind in reversed(found)}.values())[::-1]
