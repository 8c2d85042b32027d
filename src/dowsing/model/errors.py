"""Everything that the program raises on purpose. The message of each is one line that a user can be
told.

    Trouble
    ├── Failure            a command cannot give its answer
    │   └── Unwritable     the answer cannot be written
    ├── BadSettings        config.toml
    ├── BadDescription     the description of a kind of line
    ├── Unreadable         a file of documentation
    ├── Unusable           the index
    ├── CannotBuild        the index that is to be made
    ├── CannotKeep         a file of what the user keeps
    ├── ShellTrouble       a shell that was asked
    ├── EmptyScope         nothing of that name to look at
    ├── UnknownPart        a part that a page does not have
    ├── NotComposable      a line without a command to compose
    └── NoCharts           a library that charts need

What ends a loop or a macro within one reader is private to that reader and not of this tree.
"""

from __future__ import annotations


class Trouble(Exception):
    """What the program raises on purpose; its message is one line."""


class Failure(Trouble):
    """A command cannot give its answer.

    `says` is one line that says what to do; `status` the exit status: 1 nothing found, 2 wrong
    usage, 3 a needed file or program cannot be used. `nearest` are names that may have been meant.
    """

    def __init__(self, says: str, status: int = 1, nearest: list[str] | None = None) -> None:
        super().__init__(says)
        self.says = says
        self.status = status
        self.nearest = nearest or []


class Unwritable(Failure):
    """The answer cannot be written to stdout: whatever is wanted, that is told on stderr."""

    def __init__(self, reason: str) -> None:
        super().__init__(f"the answer cannot be written: {reason}", status=3)


class BadSettings(Trouble):
    """The settings file cannot be used; the message says what to do."""


class BadDescription(Trouble):
    """The description of a kind of line cannot be used; the message names the file and says why."""


class Unreadable(Trouble):
    """A file of documentation that cannot be read."""


class Unusable(Trouble):
    """There is no index that can be used: none, damaged, or of another version."""


class CannotBuild(Trouble):
    """The index cannot be built or written; the message says why and what to do."""


class CannotKeep(Trouble):
    """A file of the user's could not be read or written; it is as it was."""


class ShellTrouble(Trouble):
    """A shell could not be asked."""


class EmptyScope(Trouble):
    """There is nothing of that name to look at; the message says what there is."""


class UnknownPart(Trouble):
    """There is no such part; `says` completes a sentence that begins with the name, `titles` are
    what there is.
    """

    def __init__(self, says: str, titles: list[str]) -> None:
        super().__init__(says)
        self.says = says
        self.titles = titles


class NotComposable(Trouble):
    """There is nothing to compose; the message says why."""


class NoCharts(Trouble):
    """Charts need a library that is not installed."""
