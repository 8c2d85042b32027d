"""bash: `compgen` lists its names, `help` says what they do."""

from __future__ import annotations

from dowsing.machine.shells.any_shell import Shell, ShellName
from dowsing.machine.shells.records import bare, records

_SCRIPT = r"""
set -f
ask() {
    printf '%s\037%s\037' "$1" "$2"
    help -d -- "$1" 2>/dev/null
    printf '\037'
    help -- "$1" 2>/dev/null
    printf '\036'
}
for name in $(compgen -k); do ask "$name" keyword; done
for name in $(compgen -b); do ask "$name" builtin; done
"""


class Bash(Shell):
    """The GNU shell."""

    print_alias = "alias -- {name} 2>/dev/null"
    print_function = "declare -f -- {name} 2>/dev/null"

    manual = ("bash",)

    def line(self, text: str) -> list[str]:
        """Without start-up files."""
        return [self.path, "--norc", "--noprofile", "-c", text]

    def names(self) -> list[ShellName]:
        """Keywords before builtins, as the shell looks for them."""
        found: dict[str, ShellName] = {}
        for fields in records(self.ask(self.line(_SCRIPT))):
            if len(fields) != 4 or not fields[0] or fields[0] in found:
                continue
            name, kind, short, text = fields
            summary = bare(short).partition(" - ")[2].strip().rstrip(".")
            found[name] = ShellName(name, kind, summary, bare(text))
        return list(found.values())
