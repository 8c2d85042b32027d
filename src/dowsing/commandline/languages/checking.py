"""Whether a program in an inner language is whole: brackets, quotes, the parts of a command."""

from __future__ import annotations

import re
from enum import Enum

from dowsing.model.told import Code, Told, told


class ProgramFault(Code):
    """What keeps a program from being read."""

    NOT_CLOSED = "not closed"  # the bracket or quote
    CLOSES_NOTHING = "closes nothing"  # the bracket
    PART_MISSING = "part missing"  # command, the sign that parts it
    UNKNOWN_FLAG = "unknown flag"  # flag, command
    UNKNOWN_COMMAND = "unknown command"  # the letter
    ENDS_IN_BACKSLASH = "ends in backslash"
    NO_SORT_KEY = "no sort key"


class Lexis(Enum):
    """How a language writes what must not be looked into."""

    AWK = "awk"
    JQ = "jq"


_CLOSERS = {"(": ")", "[": "]", "{": "}"}
#: Signs after which a slash begins a pattern of awk and is no division.
_BEFORE_PATTERN = frozenset("(,=!~&|{};\n")
_SED_COMMANDS = frozenset("dDgGhHlnNpPqQxzF=")
_SED_REST_OF_LINE = frozenset("aicrRwWe#")
_SED_LABELS = frozenset("btT:")
_SED_FLAGS = frozenset("gpiIeMmw0123456789")
_SORT_KEY = r"\d+(?:\.\d+)?[bdfgiMhnRrV]*(?:,\d+(?:\.\d+)?[bdfgiMhnRrV]*)?"
_SED_ADDRESS = re.compile(r"\s*(?:\d+(?:~\d+)?|\$|\+\d+|~\d+)")


def fault_in(language: str, program: str) -> Told | None:
    """What keeps a program from being read; None if nothing does, or the language is not known."""
    if language == "awk":
        return _balance(program, Lexis.AWK)
    if language == "jq":
        return _balance(program, Lexis.JQ)
    if language == "sed":
        return _SedReader(program).fault()
    if language == "sort-key":
        return None if re.fullmatch(_SORT_KEY, program) else told(ProgramFault.NO_SORT_KEY)
    if language.startswith("regex"):
        return _pattern_fault(program, language.partition("-")[2])
    return None


def _balance(program: str, lexis: Lexis) -> Told | None:
    """The first bracket or quote that is not closed, or closes nothing."""
    opened: list[str] = []
    at, last = 0, ""
    while at < len(program):
        char = program[at]
        if char == "#":
            end = program.find("\n", at)
            at = end if end >= 0 else len(program)
            continue
        if char == '"' or (lexis is Lexis.AWK and char == "/" and last in _BEFORE_PATTERN | {""}):
            end = _end_of_quoted(program, at, lexis)
            if end < 0:
                return told(ProgramFault.NOT_CLOSED, char)
            at, last = end, char
            continue
        if char in _CLOSERS:
            opened.append(char)
        elif char in ")]}":
            if not opened or _CLOSERS[opened.pop()] != char:
                return told(ProgramFault.CLOSES_NOTHING, char)
        if not char.isspace() or char == "\n":
            last = char
        at += 1
    return told(ProgramFault.NOT_CLOSED, opened[-1]) if opened else None


def _end_of_quoted(program: str, start: int, lexis: Lexis) -> int:
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
            at = _end_of_quoted(program, at, Lexis.JQ)
            if at < 0:
                return -1
            continue
        depth += {"(": 1, ")": -1}.get(program[at], 0)
        at += 1
    return at if not depth else -1


class _SedReader:
    """Reads a script of sed as far as its commands are known."""

    def __init__(self, script: str) -> None:
        self.script = script
        self.at = 0
        self.groups = 0

    def fault(self) -> Told | None:
        """The first thing that sed would refuse."""
        while self.at < len(self.script):
            if self.script[self.at] in " \t\n;":
                self.at += 1
                continue
            fault = self._addresses() or self._command()
            if fault is not None:
                return fault
        return told(ProgramFault.NOT_CLOSED, "{") if self.groups else None

    def _addresses(self) -> Told | None:
        fault = self._address()
        if fault is None and self._peek() == ",":
            self.at += 1
            fault = self._address()
        while self._peek() in ("!", " "):
            self.at += 1
        return fault

    def _address(self) -> Told | None:
        number = _SED_ADDRESS.match(self.script, self.at)
        if number:
            self.at = number.end()
            return None
        self._blanks()
        sign = self._peek()
        if sign == "\\" and self.at + 1 < len(self.script):
            self.at += 1
            sign = self._peek()
        elif sign != "/":
            return None
        if not self._past(sign):
            return told(ProgramFault.NOT_CLOSED, sign)
        while self._peek() in ("I", "M"):
            self.at += 1
        self._blanks()
        return None

    def _command(self) -> Told | None:
        letter = self._peek()
        self.at += 1
        if letter in ("s", "y"):
            return self._substitution(letter)
        if letter == "{":
            self.groups += 1
        elif letter == "}":
            self.groups -= 1
            if self.groups < 0:
                return told(ProgramFault.CLOSES_NOTHING, letter)
        elif letter in _SED_REST_OF_LINE and letter:
            self._rest_of_line(letter)
        elif letter in _SED_LABELS and letter:
            end = re.compile(r"[;\n}]").search(self.script, self.at)
            self.at = end.start() if end else len(self.script)
        elif letter in _SED_COMMANDS and letter:
            while self._peek().isdecimal() or self._peek() == " ":
                self.at += 1
        elif letter:
            return told(ProgramFault.UNKNOWN_COMMAND, letter)
        return None

    def _rest_of_line(self, letter: str) -> None:
        """The text of a command that goes on to the end of the line, over escaped line ends."""
        while self.at < len(self.script) and self.script[self.at] != "\n":
            self.at += 2 if self.script[self.at] == "\\" and letter in "aic" else 1

    def _substitution(self, letter: str) -> Told | None:
        sign = self._peek()
        if not sign or not self._past(sign):
            return told(ProgramFault.PART_MISSING, letter, sign or "/")
        self.at -= 1
        if not self._past(sign, in_pattern=False):
            return told(ProgramFault.PART_MISSING, letter, sign)
        while self.at < len(self.script) and self.script[self.at] not in " ;}\n#":
            flag = self.script[self.at]
            if flag not in _SED_FLAGS:
                return told(ProgramFault.UNKNOWN_FLAG, flag, letter)
            if flag == "w":
                self._rest_of_line(flag)
                return None
            self.at += 1
        return None

    def _past(self, sign: str, in_pattern: bool = True) -> bool:
        """Go past the next `sign` that is not escaped, the one here left out; False without one."""
        at, in_set = self.at + 1, False
        while at < len(self.script):
            char = self.script[at]
            if char == "\\":
                at += 2
                continue
            if in_pattern and char == "[" and not in_set:
                in_set = True
                at += 1 + (self.script[at + 1 : at + 2] in ("]", "^"))
            elif char == "]":
                in_set = False
            elif char == sign and not in_set:
                self.at = at + 1
                return True
            at += 1
        return False

    def _peek(self) -> str:
        return self.script[self.at : self.at + 1]

    def _blanks(self) -> None:
        while self._peek() in (" ", "\t"):
            self.at += 1


def _pattern_fault(pattern: str, dialect: str) -> Told | None:
    """A set or a group of a regular expression that is not closed."""
    at, groups = 0, 0
    opens, closes = ("\\(", "\\)") if dialect == "basic" else ("(", ")")
    while at < len(pattern):
        pair = pattern[at : at + 2]
        if opens in (pair, pattern[at]):
            groups += 1
        elif closes in (pair, pattern[at]):
            groups -= 1
            if groups < 0:
                return told(ProgramFault.CLOSES_NOTHING, closes) if dialect != "extended" else None
        if pattern[at] == "\\":
            if at + 1 == len(pattern):
                return told(ProgramFault.ENDS_IN_BACKSLASH)
            at += 2
            continue
        if pattern[at] == "[":
            end = _end_of_set(pattern, at)
            if end < 0:
                return told(ProgramFault.NOT_CLOSED, "[")
            at = end
            continue
        at += 1
    return told(ProgramFault.NOT_CLOSED, opens) if groups else None


def _end_of_set(pattern: str, start: int) -> int:
    """The place behind a set, `[]a]` and `[[:alpha:]]` read rightly; -1 if it is not closed."""
    at = start + 1
    if pattern[at : at + 1] == "^":
        at += 1
    if pattern[at : at + 1] == "]":
        at += 1
    while at < len(pattern):
        inner = re.compile(r"\[([:.=]).*?\1\]").match(pattern, at)
        if inner:
            at = inner.end()
        elif pattern[at] == "]":
            return at + 1
        else:
            at += 1
    return -1
