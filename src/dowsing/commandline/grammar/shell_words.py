"""A line of the shell in its parts: simple commands with their words, and what stands between."""

from __future__ import annotations

import re

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.grammar.problems import Problem
    from dowsing.model.roles import Role
    from dowsing.model.told import Code

#: Operators of redirections that empty a file, in which `>>` does not count.
_EMPTIES = re.compile(r"(?:\d*|&)>\|?\Z")


class Inner:
    """A substitution in a word: its text from `start` to `end`, and what stands in it."""

    def __init__(self, text: str, start: int, end: int, items: list[Item]) -> None:
        self.text, self.start, self.end, self.items = text, start, end, items


class Word:
    """A word as it stands (`text`) and as the command gets it, as far as that is known (`value`).

    `dynamic`: the shell puts something in its place; `quoted`: some of it is in quotes; `glob`: it
    is a pattern of names; `variables`: those that it names; `placed`: it stands at its place of the
    line just so, which a word of an alias or of a line within quotes of quotes does not; `source`:
    the word as it stands, of one that the shell puts in its place.
    """

    def __init__(self, text: str, value: str, start: int, end: int) -> None:
        self.text, self.value, self.start, self.end = text, value, start, end
        self.placed = True
        self.dynamic = self.quoted = self.glob = False
        self.variables: list[str] = []
        self.inner: list[Inner] = []
        self.source: Word | None = None

    @property
    def is_substitution(self) -> bool:
        """Whether it is nothing but a substitution."""
        return any(inner.text == self.text for inner in self.inner)


class SimpleCommand:
    """A simple command: its words, the name first."""

    def __init__(self, words: list[Word]) -> None:
        self.words = words


class Mark:
    """What is no word of a command: an operator, a keyword, a redirection, an assignment, a
    comment, a name.
    """

    def __init__(
        self,
        role: Role,
        text: str,
        place: tuple[int, int],
        code: Code | None = None,
        word: Word | None = None,
        operator: str = "",
    ) -> None:
        self.role, self.text, self.code, self.word, self.operator = role, text, code, word, operator
        self.in_test = False  # a redirection within `[ ]`, where a comparison may be meant
        self.start, self.end = place

    @property
    def emptied(self) -> str:
        """The file that a redirection empties before anything runs, "" if it is none such."""
        if self.word is None or not _EMPTIES.fullmatch(self.operator):
            return ""
        target = self.word.value
        return "" if target.startswith("&") or target.isdecimal() else target


Item = SimpleCommand | Mark


class Place:
    """Where a line stands that is a part of another: `offset` characters behind its beginning, or
    only somewhere between `start` and `end`, if `offset` is None.
    """

    def __init__(self, start: int, end: int, offset: int | None) -> None:
        self.start, self.end, self.offset = start, end, offset

    def of(self, start: int, end: int) -> tuple[int, int]:
        """The place in the outer line of what stands from `start` to `end` of the inner."""
        if self.offset is None:
            return self.start, self.end
        return start + self.offset, end + self.offset

    def put(self, items: list[Item]) -> None:
        """Give items of the inner line their places in the outer one."""
        for item in items:
            if isinstance(item, SimpleCommand):
                for word in item.words:
                    self._word(word)
                continue
            item.start, item.end = self.of(item.start, item.end)
            if item.word is not None:
                self._word(item.word)

    def _word(self, word: Word) -> None:
        word.start, word.end = self.of(word.start, word.end)
        word.placed = self.offset is not None
        for inner in word.inner:
            inner.start, inner.end = self.of(inner.start, inner.end)
            self.put(inner.items)


class ShellLine:
    """A line taken apart: its items in order, and what is wrong with it."""

    def __init__(self, items: list[Item], problem: Problem | None) -> None:
        self.items = items
        self.problem = problem
