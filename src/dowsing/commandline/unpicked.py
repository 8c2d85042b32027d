"""A line taken apart, as those who answer get it."""

from __future__ import annotations

from dowsing.commandline.grammar.sayings import Grade
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.problems import Problem
    from dowsing.commandline.meaning.meaning import Meaning
    from dowsing.commandline.model.effect import Effect
    from dowsing.commandline.model.tree import CommandNode, Line


class Unpicked(Record):
    """A line as a tree, with its `meaning`; `commands`: all that are in it, the outer before the
    inner.

    `problem` is what the shell cannot read; `at_words`: what is wrong with words, found as they
    were read; `judged`: what a judge finds wrong with what stands beside each other. `verbs`: the
    words that the summaries of commands here may begin with, for those who make a sentence of the
    line. `unnamed`: the words of the line in the place of a command's name that are only known
    when it runs.
    """

    line: str
    tree: Line
    commands: list[CommandNode]
    meaning: Meaning
    problem: Problem | None = None
    at_words: list[Problem] = []  # noqa: RUF012 - a record is immutable
    judged: list[Problem] = []  # noqa: RUF012
    changes: list[Effect] = []  # noqa: RUF012
    verbs: frozenset[str] = frozenset()
    unnamed: list[str] = []  # noqa: RUF012

    @property
    def problems(self) -> list[Problem]:
        """All that is wrong, in the order of the line, each word once; what the shell cannot read
        is the last.
        """
        told = {(one.start, one.end) for one in self.at_words}
        judged = [one for one in self.judged if (one.start, one.end) not in told]
        found = sorted([*self.at_words, *judged], key=lambda one: one.start)
        return [*found, *([self.problem] if self.problem is not None else [])]

    @property
    def mistaken(self) -> bool:
        """Whether there surely is a mistake in the line."""
        return any(one.grade is Grade.ERROR for one in self.problems)
