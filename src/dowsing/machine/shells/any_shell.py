"""What every shell can be asked, and how a question is put to it."""

from __future__ import annotations

import os

from dowsing.machine.sandbox.guard import Outcome, run_guarded
from dowsing.model.errors import ShellTrouble
from dowsing.model.quoting import quoted
from dowsing.model.record import Record

#: Builtins and reserved words that a shell of the POSIX kind may have; each is asked about, none is
#: assumed.
POSIX_BUILTINS = """
    . : [ alias bg break builtin cd chdir command continue declare dirs disown echo enable eval
    exec exit export false fc fg getopts hash help history jobs kill let limit local logout
    newgrp popd print printf pushd pwd read readonly return select set shift source suspend test
    times trap true type typeset ulimit umask unalias unset wait whence
""".split()
POSIX_KEYWORDS = (
    "! case do done elif else esac fi for function if in select then time until while { } [[ ]]"
).split()


class ShellName(Record):
    """A name that a shell knows itself. `kind`: `builtin` or `keyword`. `text`: its built-in help,
    "" without.
    """

    name: str
    kind: str
    summary: str = ""
    text: str = ""


class Shell:
    """A shell at `path`. The classes below it say how it is asked."""

    #: Pages of its manual that describe its builtins and keywords, or a folder (given from the
    #: root) with one for each.
    manual: tuple[str, ...] = ()

    #: What makes an interactive shell print the alias and the function `{name}`, "" if it cannot be
    #: asked.
    print_alias = ""
    print_function = ""

    def __init__(self, name: str, path: str, search_path: list[str]) -> None:
        self.name = name
        self.path = path
        self.search_path = search_path

    def names(self) -> list[ShellName]:
        """Its builtins and keywords with what it says of them. Raises ShellTrouble."""
        raise NotImplementedError

    def line(self, text: str) -> list[str]:
        """The arguments that make it run a command line without start-up files."""
        return [self.path, "-c", text]

    def quoted(self, text: str) -> str:
        """A word as this shell takes it literally."""
        return quoted(text)

    def help_for(self, name: str) -> Outcome | None:
        """What the builtin `name` prints for `--help`; None if the shell cannot be asked that."""
        return run_guarded(self.line(f"{self.quoted(name)} --help"), self.search_path, closed=False)

    def defined(self, name: str) -> list[tuple[str, str]]:
        """Alias and function of that name as (kind, text), from the user's start-up files, which
        run for it.
        """
        if not self.print_alias:
            return []
        from dowsing.machine.shells.interactive import ask_definitions

        word = self.quoted(name)
        return ask_definitions(
            self.path, self.print_alias.format(name=word), self.print_function.format(name=word)
        )

    def ask(self, arguments: list[str]) -> str:
        """What the shell prints. Raises ShellTrouble."""
        outcome = run_guarded(arguments, self.search_path, closed=False)
        if outcome.trouble:
            raise ShellTrouble(f"the shell {self.path} cannot be asked: {outcome.trouble}")
        return outcome.out


def on_path(name: str, search_path: list[str]) -> str | None:
    """The file of a shell: the first executable of that name."""
    for folder in search_path:
        file = os.path.join(folder, name)
        if os.path.isabs(folder) and os.path.isfile(file) and os.access(file, os.X_OK):
            return file
    return None
