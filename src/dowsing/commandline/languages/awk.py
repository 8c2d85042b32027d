"""Programs of awk (POSIX.1-2017, awk): each rule with when it is done and what it does."""

from __future__ import annotations

import re

from dowsing.commandline.languages.awk_words import (
    ALWAYS,
    Condition,
    When,
    condition_of,
    statement_words,
)
from dowsing.commandline.languages.balance import (
    BEFORE_PATTERN,
    Lexis,
    end_of_quoted,
    imbalance,
)
from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading
from dowsing.model.record import Record

_OPENERS = "([{"
_CLOSERS = ")]}"
MOST_RULES = 3  # of a program that is put into one phrase
_COMPOUND = re.compile(r"\s*(if|while|for|else|do)\b\s*")


def read(value: str, dialect: str = "") -> Reading:
    """Each pattern and each statement."""
    wrong = imbalance(value, Lexis.AWK)
    if wrong is not None:
        return Reading([], "", wrong)
    if not value.strip():
        return NOTHING
    program = _Program(value)
    program.read()
    return program.cutter.finish(program.phrase())


class _Statement(Record):
    """What a statement does. `is_head`: others stand under it, as under `if`."""

    says: str
    is_head: bool = False


class _Program:
    """Reads the rules of a program. `rules`: each with its condition and what it does."""

    def __init__(self, text: str) -> None:
        self.text = text
        self.cutter = Cutter(text)
        self.rules: list[tuple[Condition, list[_Statement]]] = []

    def read(self) -> None:
        """All rules in order."""
        while self.cutter.at < len(self.text):
            blank = re.compile(r"[\s;]+|#[^\n]*").match(self.text, self.cutter.at)
            if blank:
                self.cutter.cut(blank.end())
                continue
            self.rule()

    def rule(self) -> None:
        """A pattern, an action, or both."""
        start = self.cutter.at
        end = self.scan(start, "{\n")
        pattern = self.text[start:end].rstrip()
        condition = condition_of(pattern) if pattern else ALWAYS
        self.cutter.cut(start + len(pattern), condition.words)
        self.cutter.cut(end)
        does: list[_Statement] = []
        if self.text[end : end + 1] == "{":
            close = self.scan(end + 1, "}")
            self.cutter.cut(end + 1)
            does = self.statements(close, condition.when is When.AFTER)
            self.cutter.cut(min(close + 1, len(self.text)))
        self.rules.append((condition, does))

    def statements(self, end: int, is_after: bool) -> list[_Statement]:
        """The statements up to `end`, each a part; those within braces too. `is_after`: all lines
        were read.
        """
        does: list[_Statement] = []
        while self.cutter.at < end:
            start = self.cutter.at
            blank = re.compile(r"[\s;{}]+|#[^\n]*").match(self.text, start, end)
            if blank:
                self.cutter.cut(blank.end())
                continue
            head = _COMPOUND.match(self.text, start, end)
            stop = self.head_end(head, end) if head else self.scan(start, ";\n}", end)
            text = self.text[start:stop].strip()
            self.cutter.cut(max(stop, start + 1), statement_words(text))
            does.append(_Statement(statement_words(text, is_after), head is not None))
        return does

    def head_end(self, head: re.Match[str], end: int) -> int:
        """Where the head of an `if`, a loop or an `else` ends."""
        at = head.end()
        if head[1] in ("else", "do") or self.text[at : at + 1] != "(":
            return at
        return min(self.scan(at + 1, ")", end) + 1, end)

    def scan(self, at: int, stops: str, end: int | None = None) -> int:
        """The next of the signs that is not within brackets or quotes, or the end."""
        end = len(self.text) if end is None else end
        depth, last = 0, ""
        while at < end:
            char = self.text[at]
            if not depth and char in stops:
                return at
            if char == '"' or (char == "/" and (not last or last in BEFORE_PATTERN)):
                closed = end_of_quoted(self.text, at, Lexis.AWK)
                at, last = (closed if closed > 0 else end), char
                continue
            if char in _OPENERS:
                depth += 1
            elif char in _CLOSERS:
                depth -= 1
            if not char.isspace() or char == "\n":
                last = char
            at += 1
        return end

    def phrase(self) -> str:
        """What the whole does, where that is short."""
        if len(self.rules) > MOST_RULES or self.parts_without_words():
            return ""
        if len(self.rules) == 1:
            condition, does = self.rules[0]
            if not does:
                return _printed_when(condition)
            if len(does) == 1 and condition.when not in (When.BEFORE, When.AFTER):
                return f"{does[0].says} {condition.words}".strip()
        return "; ".join(_rule_words(*rule) for rule in self.rules)

    def parts_without_words(self) -> bool:
        """Whether a part that is more than signs says nothing."""
        return any(not part.says and re.search(r"\w", part.text) for part in self.cutter.parts)


def _rule_words(condition: Condition, does: list[_Statement]) -> str:
    """A rule among others: `after the last line: prints n`."""
    told = ""
    for n, one in enumerate(does or [_Statement("prints the line")]):
        joint = ", " if n and does[n - 1].is_head else " and "
        told += (joint if n else "") + one.says
    return f"{condition.words}: {told}" if condition.words else told


def _printed_when(condition: Condition) -> str:
    """What a rule without an action does."""
    if condition.when is When.NEW_LINE:
        return "prints each line the first time that it comes up"
    if condition.when is When.NEW_VALUE:
        return f"prints the line {condition.words}"
    if condition.when is When.RANGE:
        return f"prints the lines {condition.words}"
    return f"prints {condition.what}" if condition.when is When.LINES else ""
