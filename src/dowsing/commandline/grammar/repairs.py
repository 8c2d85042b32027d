"""A line that ends too early, read as if what is missing stood at its end."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.problems import Problem
from dowsing.commandline.grammar.sayings import ProblemCode
from dowsing.model.record import Record
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable
    from typing import Any

MOST_REPAIRED = 8_000  # characters; a longer line is read as it stands


def repaired(line: str, parse: Callable[[str], Any]) -> tuple[Any, str, Problem | None]:
    """The tree of the line, the text that was read, and what is missing in the line."""
    tree = parse(line)
    if not tree.root_node.has_error or len(line) > MOST_REPAIRED:
        return tree, line, None
    for ending, problem in _endings(line):
        tried = parse(line + ending)
        if not tried.root_node.has_error:
            return tried, line + ending, problem
    return tree, line, None


def _endings(line: str) -> list[tuple[str, Problem | None]]:
    """What may be missing, the likeliest first, with what is then said of the line."""
    closers, start = _open(line)
    found: list[tuple[str, Problem | None]] = []
    last = len(line.rstrip())
    operator = re.search(r"(\|&?|&&|\|\||[<>]{1,2}&?|<<<)\s*\Z", line)
    if operator and not closers:
        code = ProblemCode.FILE_MISSING if operator[1][0] in "<>" else ProblemCode.COMMAND_MISSING
        found.append((" x", Problem(operator.start(), last, told(code, operator[1]))))
    here = re.search(r"<<-?\s*(['\"\\]?)([\w.-]+)", line)
    if here:
        problem = Problem(here.start(), here.end(), told(ProblemCode.NO_TERMINATOR, here[2]))
        found += [(f"\n{here[2]}\n", problem), (f"\nx\n{here[2]}\n", None)]
    if closers:
        text = line[start : start + 1] if line[start] in "'\"`" else line[start : start + 2].strip()
        problem = Problem(start, start + len(text), told(ProblemCode.NOT_CLOSED, text))
        for ending in (closers, "x" + closers, " x" + closers, closers + " x"):
            found.append((ending, problem))
    for word, needs, endings in (
        (
            "if",
            "fi",
            ("; fi", " ]; then x; fi", "; then x; fi", " x; fi", " then x; fi", " x ]; then x; fi"),
        ),
        ("for", "done", ("; done", " x; done", " do x; done", "; do x; done", " in x; do x; done")),
        ("while", "done", ("; done", " x; done", "; do x; done", " do x; done")),
        ("until", "done", ("; done", " x; done", "; do x; done")),
        ("select", "done", ("; done", "; do x; done")),
        ("case", "esac", (" esac", ";; esac", " in x) x;; esac", " x;; esac")),
        ("{", "}", ("; }", " x; }")),
        ("[[", "]]", (" ]]", " x ]]")),
        ("[", "]", (" ]", " x ]")),
    ):
        at = re.search(rf"(?<![\w$.{{]){re.escape(word)}(?=\s|\Z)", line)
        if at:
            problem = Problem(at.start(), at.end(), told(ProblemCode.NEEDS_CLOSER, word, needs))
            found += [(closers + ending, problem) for ending in endings]
    return found


def _open(line: str) -> tuple[str, int]:
    """What closes all that is open at the end of the line, and where the last of it was opened."""
    stack = open_at_end(line)
    closers = "".join(opened.closer for opened in reversed(stack))
    return closers, stack[-1].place if stack else 0


class OpenBracket(Record):
    """Something that is open: what closes it, the place where it was opened, how wide that is."""

    closer: str
    place: int
    width: int


def open_at_end(line: str) -> list[OpenBracket]:
    """What is still open at the end of the line, the outermost first."""
    stack: list[OpenBracket] = []
    at = 0
    while at < len(line):
        inside = stack[-1].closer if stack else ""
        char = line[at]
        if inside == "'":
            if char == "'":
                stack.pop()
            at += 1
        elif char == "\\":
            at += 2
        elif inside and char == inside:
            stack.pop()
            at += 1
        elif char == "#" and not inside and (at == 0 or line[at - 1] in " \t;"):
            end = line.find("\n", at)
            at = end + 1 if end >= 0 else len(line)
        else:
            found = _opened(line, at, in_quotes=inside == '"')
            if found is not None:
                stack.append(found)
            at += found.width if found is not None else 1
    return stack


def _opened(line: str, at: int, in_quotes: bool) -> OpenBracket | None:
    """What is opened at that place; within double quotes only substitutions are."""
    if line.startswith("$(", at) or (not in_quotes and line.startswith(("<(", ">("), at)):
        return OpenBracket(")", at, 2)
    if line.startswith("${", at):
        return OpenBracket("}", at, 2)
    char = line[at]
    if char == "`" or (not in_quotes and char in "'\""):
        return OpenBracket(char, at, 1)
    if char == "(" and not in_quotes and (at == 0 or line[at - 1] in " ;&|("):
        return OpenBracket(")", at, 1)
    return None
