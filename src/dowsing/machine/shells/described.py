"""A shell that the settings describe: how it lists its names, gives help and runs a line.

[shell.loam]
path = "/opt/loam/bin/loam"
list = ["--names"]            # prints NAME, KIND and SUMMARY on each line, tabs between
help = ["--explain", "{name}"]
line = ["-c", "{line}"]
manual = ["loam"]
"""

from __future__ import annotations

import re

from dowsing.machine.sandbox.guard import Outcome, run_guarded
from dowsing.machine.shells.any_shell import Shell, ShellName
from dowsing.machine.shells.records import bare
from dowsing.model.entry import EntryKind
from dowsing.model.errors import ShellTrouble


class DescribedShell(Shell):
    """A shell known from the settings alone."""

    def __init__(self, name: str, description: dict[str, object], search_path: list[str]) -> None:
        super().__init__(name, str(description.get("path", "")), search_path)
        self._list = _words(description.get("list"))
        self._help = _words(description.get("help"))
        self._line = _words(description.get("line"))
        self.manual = tuple(_words(description.get("manual")))

    def names(self) -> list[ShellName]:
        """The names it lists, each with its help."""
        if not self._list:
            raise ShellTrouble(
                f"the settings do not say how the shell {self.name} lists its names (list = [...])"
            )
        found = []
        for line in self.ask([self.path, *self._list]).split("\n"):
            fields = [bare(field) for field in line.split("\t")]
            if fields[0]:
                kind = (
                    EntryKind.KEYWORD
                    if len(fields) > 1 and fields[1] == EntryKind.KEYWORD
                    else "builtin"
                )
                found.append(
                    ShellName(
                        fields[0], kind, fields[2] if len(fields) > 2 else "", self._text(fields[0])
                    )
                )
        return found

    def _text(self, name: str) -> str:
        if not self._help:
            return ""
        outcome = run_guarded(
            [self.path, *(word.replace("{name}", name) for word in self._help)],
            self.search_path,
            False,
        )
        return bare(outcome.out) if outcome.ended == "exit" and outcome.code == 0 else ""

    def line(self, text: str) -> list[str]:
        """The arguments that make it run a line."""
        return [
            self.path,
            *(word.replace("{line}", text) for word in self._line or ["-c", "{line}"]),
        ]

    def help_for(self, name: str) -> Outcome | None:
        """What the builtin prints for `--help`; None if the settings do not say how a line is run.

        How such a shell quotes is not known: a name that would need it is not asked about.
        """
        if not self._line or not re.fullmatch(r"[\w.:+-]+", name):
            return None
        return run_guarded(self.line(f"{name} --help"), self.search_path, closed=False)


def _words(value: object) -> list[str]:
    return (
        [str(word) for word in value] if isinstance(value, list) else [str(value)] if value else []
    )
