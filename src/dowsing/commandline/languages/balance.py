"""Whether the brackets and quotes of a program are closed, each by its own."""

from __future__ import annotations

from enum import Enum

from dowsing.commandline.languages.reading import Fault, LanguageFault, fault

_CLOSERS = {"(": ")", "[": "]", "{": "}"}
#: Signs after which a slash begins a pattern of awk and is no division.
BEFORE_PATTERN = frozenset("(,=!~&|{};\n")


class Lexis(Enum):
    """How a language writes what must not be looked into."""

    AWK = "awk"
    JQ = "jq"


def imbalance(program: str, lexis: Lexis) -> Fault | None:
    """The first bracket or quote that is not closed, or closes nothing."""
    opened: list[tuple[str, int]] = []
    at, last = 0, ""
    while at < len(program):
        char = program[at]
        if char == "#":
            end = program.find("\n", at)
            at = end if end >= 0 else len(program)
            continue
        if _opens_quoted(char, last, lexis):
            end = end_of_quoted(program, at, lexis)
            if end < 0:
                return fault(at, at + 1, LanguageFault.NOT_CLOSED, char)
            at, last = end, char
            continue
        if char in _CLOSERS:
            opened.append((char, at))
        elif char in ")]}" and (not opened or _CLOSERS[opened.pop()[0]] != char):
            return fault(at, at + 1, LanguageFault.CLOSES_NOTHING, char)
        if not char.isspace() or char == "\n":
            last = char
        at += 1
    if not opened:
        return None
    char, at = opened[-1]
    return fault(at, at + 1, LanguageFault.NOT_CLOSED, char)


def _opens_quoted(char: str, last: str, lexis: Lexis) -> bool:
    return char == '"' or (
        lexis is Lexis.AWK and char == "/" and (not last or last in BEFORE_PATTERN)
    )


def end_of_quoted(program: str, start: int, lexis: Lexis) -> int:
    """The place behind what `start` opens; -1 if nothing closes it. In strings of jq `\\(…)` is a
    program again.
    """
    closer, at, in_set = program[start], start + 1, False
    while at < len(program):
        char = program[at]
        if char == "\\":
            if lexis is Lexis.JQ and program[at + 1 : at + 2] == "(":
                end = _end_of_inner(program, at + 2)
                if end < 0:
                    return -1
                at = end
                continue
            at += 2
            continue
        if closer == "/" and char == "[" and not in_set:
            in_set = True
            at += 1 + (program[at + 1 : at + 2] in ("]", "^"))
        elif char == "]":
            in_set = False
        elif char == closer and not in_set:
            return at + 1
        at += 1
    return -1


def _end_of_inner(program: str, at: int) -> int:
    """The place behind the bracket that closes an expression within a string of jq."""
    depth = 1
    while at < len(program) and depth:
        if program[at] == '"':
            at = end_of_quoted(program, at, Lexis.JQ)
            if at < 0:
                return -1
            continue
        depth += {"(": 1, ")": -1}.get(program[at], 0)
        at += 1
    return at if not depth else -1
