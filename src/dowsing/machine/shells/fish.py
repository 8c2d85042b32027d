"""fish: `builtin --names` lists its names; each has a page in its own manual folder."""

from __future__ import annotations

import os

from dowsing.machine.shells.any_shell import Shell, ShellName
from dowsing.model.entry import EntryKind
from dowsing.model.quoting import fish_quoted

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.machine.sandbox.guard import Outcome

#: Names that the shell lists as builtins and that its language takes as keywords.
_KEYWORDS = frozenset(
    "and begin break builtin case command continue else end exec for function if not or return "
    "switch time while".split()
)


class Fish(Shell):
    """The friendly interactive shell."""

    print_alias = "alias | string match -r -- '^alias '(string escape --style=regex -- {name})' .*'"
    print_function = "functions -- {name} 2>/dev/null"

    def __init__(self, name: str, path: str, search_path: list[str]) -> None:
        super().__init__(name, path, search_path)
        prefix = os.path.dirname(os.path.dirname(os.path.realpath(path)))
        self.manual = (os.path.join(prefix, "share", "fish", "man", "man1"), "fish")

    def quoted(self, text: str) -> str:
        """A word as this shell takes it literally."""
        return fish_quoted(text)

    def help_for(self, name: str) -> Outcome | None:
        """Not asked: it would start another program to lay out its page."""
        return None

    def line(self, text: str) -> list[str]:
        """Without start-up files."""
        return [self.path, "--no-config", "-c", text]

    def names(self) -> list[ShellName]:
        """Its builtins; those that are part of the language are keywords."""
        names = self.ask(self.line("builtin --names")).split("\n")
        return [
            ShellName(n, EntryKind.KEYWORD if n in _KEYWORDS else EntryKind.BUILTIN)
            for n in names
            if n.strip() and n != "_"
        ]
