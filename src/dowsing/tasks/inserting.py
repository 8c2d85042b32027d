"""Puts what is asked for beside a line into it: an option behind its command, a test of an
expression, a pipe behind the whole.
"""

from __future__ import annotations

import re

from dowsing.knowledge.asks import LINE
from dowsing.knowledge.command_classes import CommandClass, members_of
from dowsing.model.record import Record

#: Where a command of a line ends; what is quoted is passed over.
_SIGNS = re.compile(r"'[^']*'|\"(?:\\.|[^\"\\])*\"|\\.|\|\|?|(?<![<>])&&?(?![<>])|;")
#: Words before a command that run it as it stands.
_BEFORE = re.compile(r"(?:(?:sudo|time|nohup|then|do|\w+=\S*) )*")
_WORD = re.compile(r"(?:'[^']*'|\"[^\"]*\"|\\.|[^\s'\"\\])+")
#: What an expression does with what it found stands behind its tests.
_ACTIONS = ("-exec", "-print", "-ls", "-delete", "-ok", "-quit", "-fprint")
_MOST_WORDS = 3  # of a command and its subcommands
#: What ends a line so that nothing can be put behind it.
_ENDED = re.compile(r"\bdone\b|\bfi\b|>|&\s*\Z")
#: A line of one command, which another may run.
_PLAIN = re.compile(r"[^|&;<>()$`]*\Z")


class CommandPlace(Record):
    """A command of a line: its words, where it ends, and where its words end (in characters)."""

    words: str
    end: int
    behind: int

    @property
    def program(self) -> str:
        """Its name, without the subcommands."""
        return self.words.partition(" ")[0]

    def is_of(self, which: CommandClass) -> bool:
        """Whether its program is of that class."""
        return self.program in members_of(which)


def command_places(line: str, known: frozenset[str]) -> list[CommandPlace]:
    """The commands of a line of which additions are known, by the most words that are known."""
    found = []
    for words, end in _heads(line):
        for count in range(len(words), 0, -1):
            text = " ".join(one[0] for one in words[:count])
            if text in known:
                found.append(CommandPlace(text, end, words[count - 1].end()))
                break
    return found


def command_names(line: str) -> list[str]:
    """What may be a command with its subcommands in a line."""
    return [
        " ".join(one[0] for one in words[:count])
        for words, _ in _heads(line)
        for count in range(1, len(words) + 1)
    ]


def _heads(line: str) -> list[tuple[list[re.Match[str]], int]]:
    """The first words of each command of a line, and where it ends."""
    found = []
    for start, end in _segments(line):
        head = _BEFORE.match(line, start, end)
        words = _WORD.finditer(line, head.end() if head else start, end)
        found.append((list(words)[:_MOST_WORDS], end))
    return found


def _segments(line: str) -> list[tuple[int, int]]:
    """Where the commands of a line begin and end."""
    found: list[tuple[int, int]] = []
    start = 0
    for match in _SIGNS.finditer(line):
        if match[0][0] in "|&;":
            found.append((start, match.start()))
            start = match.end()
    found.append((start, len(line)))
    return [(_skipped(line, first, last), last) for first, last in found]


def _skipped(line: str, start: int, end: int) -> int:
    while start < end and line[start] == " ":
        start += 1
    return start


def stands_in(line: str, place: CommandPlace, text: str) -> bool:
    """Whether a command has an option, in whatever spelling: alone, or among letters."""
    flag, _, value = text.partition(" ")
    words = _WORD.findall(line, place.behind, place.end)
    if not flag.startswith("-"):
        return flag.partition("=")[0] in {one.partition("=")[0] for one in words}
    if value and not set(value) & set("<,"):  # `-type f`: the option with this value
        return text in line[place.behind : place.end]
    name = re.split(r"[=<]", flag)[0]
    letters = re.fullmatch(r"-\w", name) and not place.is_of(CommandClass.LETTERS_MAKE_WORDS)
    return any(
        one == name
        or (name.startswith("--") and one.startswith(f"{name}="))
        or bool(letters and re.match(rf"-\w*{re.escape(name[1])}", one))
        for one in words
    )


def inserted(line: str, place: CommandPlace, text: str) -> str:
    """The line with an addition to one of its commands."""
    at = place.behind
    if place.is_of(CommandClass.SETTINGS_LAST):
        at += len(line[at : place.end].rstrip())
    elif place.is_of(CommandClass.OPTIONS_BEFORE_TARGET):
        words = list(_WORD.finditer(line, place.behind, place.end))
        at = words[-1].start() - 1 if words else at
    elif place.program == "find":
        at = _in_expression(line, place, text)
    return f"{line[:at]} {text}{line[at:]}"


def _in_expression(line: str, place: CommandPlace, text: str) -> int:
    """Where a test or an action of an expression stands: tests before all others, actions behind
    them.
    """
    words = list(_WORD.finditer(line, place.behind, place.end))
    if text.startswith(_ACTIONS):
        return words[-1].end() if words else place.behind
    first = next((one for one in words if one[0][0] in "-\\!("), None)
    if first is not None:
        return first.start() - 1
    return words[-1].end() if words else place.behind


def replaced(line: str, place: CommandPlace, instead: dict[str, str]) -> str:
    """The line with other words in the place of some of a command."""
    words = line[place.behind :].split(" ")
    end = next((n for n, one in enumerate(words) if one in ("|", "&&", ";")), len(words))
    kept = [instead.get(one, one) for one in words[:end]]
    return line[: place.behind] + " ".join(
        [one for n, one in enumerate(kept) if one or not n] + words[end:]
    )


def around(line: str, text: str) -> str | None:
    """The line with what every line may get; None if it cannot get it."""
    before, _, behind = text.partition(LINE)
    if before and (behind or not _PLAIN.match(line)):
        return None
    if behind and _ENDED.search(line):
        return None
    return f"{before}{line}{behind}"
