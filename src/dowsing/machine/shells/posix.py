"""Shells that list nothing: each name that such a shell may have is asked about with `type`."""

from __future__ import annotations

from dowsing.machine.shells.any_shell import POSIX_BUILTINS, POSIX_KEYWORDS, Shell, ShellName
from dowsing.machine.shells.records import records
from dowsing.model.entry import EntryKind
from dowsing.model.quoting import quoted


class PosixShell(Shell):
    """dash, ksh and their like."""

    def __init__(self, name: str, path: str, search_path: list[str]) -> None:
        super().__init__(name, path, search_path)
        self.manual = (name,)

    def names(self) -> list[ShellName]:
        """The names that `type` calls a builtin or a keyword."""
        asked = [*POSIX_KEYWORDS, *POSIX_BUILTINS]
        script = "".join(
            f"printf '%s\\037' {quoted(name)}; (type {quoted(name)}) 2>/dev/null; printf '\\036';\n"
            for name in dict.fromkeys(asked)
        )
        found = []
        for fields in records(self.ask(self.line(script))):
            if len(fields) != 2:
                continue
            says = fields[1].strip().removeprefix(fields[0])
            if "keyword" in says or "reserved word" in says:
                found.append(ShellName(fields[0], EntryKind.KEYWORD))
            elif "builtin" in says:
                found.append(ShellName(fields[0], EntryKind.BUILTIN))
        return found
