"""bash: `compgen` lists its names, `help` says what they do."""

from __future__ import annotations

import os
import subprocess

from dowsing.core.shells.shell import RECORD_END, SEPARATOR, Shell, ShellName, bare, quoted, records

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

_DEFINED = r"""
printf '\036'
alias -- %(name)s 2>/dev/null
printf '\037'
declare -f -- %(name)s 2>/dev/null
printf '\036'
"""
STARTUP_SECONDS = 10


class Bash(Shell):
    """The GNU shell."""

    manual = ("bash",)
    has_help = True

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

    def defined(self, name: str) -> list[tuple[str, str]]:
        """From an interactive shell with the user's own environment."""
        return ask_interactive([self.path, "-i", "-c", _DEFINED % {"name": quoted(name)}])


def ask_interactive(command: list[str]) -> list[tuple[str, str]]:
    """Alias and function as an interactive shell prints them, fields apart.

    It is the user's own shell with the user's own files, which is what was asked for: no guard.
    """
    try:
        run = subprocess.run(
            command,
            stdin=subprocess.DEVNULL,
            capture_output=True,
            timeout=STARTUP_SECONDS,
            start_new_session=True,
            env={**os.environ, "TERM": "dumb"},
            check=False,
        )
    except (OSError, subprocess.TimeoutExpired):
        return []
    output = run.stdout.decode("utf-8", "replace")
    parts = output.split(RECORD_END)  # what start-up files print comes before
    if len(parts) < 3 or SEPARATOR not in parts[-2]:
        return []
    alias, _, function = parts[-2].partition(SEPARATOR)
    found = [("alias", bare(alias.strip("\n"))), ("function", bare(function.strip("\n")))]
    return [(kind, text) for kind, text in found if text.strip()]
