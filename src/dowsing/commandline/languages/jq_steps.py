"""Where a filter of jq is parted into steps."""

from __future__ import annotations

import re

from dowsing.commandline.languages.balance import Lexis, end_of_quoted


def steps(program: str, signs: str = "|") -> list[tuple[int, int, str]]:
    """The texts between signs that are in no brackets and quotes, with their places."""
    found: list[tuple[int, int, str]] = []
    depth, at, start = 0, 0, 0
    end = len(program)
    while at < end:
        char = program[at]
        if char == '"':
            closed = end_of_quoted(program, at, Lexis.JQ)
            at = closed if closed > 0 else end
            continue
        word = re.compile(r"(?:if|reduce|foreach|try|def)\b|end\b").match(program, at)
        if word and (not at or not (program[at - 1].isalnum() or program[at - 1] in "_.$")):
            depth += {"if": 1, "end": -1}.get(word[0], 0)
            at = word.end()
            continue
        depth += char in "([{"
        depth -= char in ")]}"
        is_sign = char in signs and not depth and program[at + 1 : at + 2] != "="
        if is_sign:
            found.append((start, at, program[start:at]))
            start = at + 1
        at += 1
    found.append((start, end, program[start:]))
    return [_trimmed(*one) for one in found if one[2].strip()]


def _trimmed(start: int, end: int, text: str) -> tuple[int, int, str]:
    bare = text.strip()
    begin = start + text.index(bare)
    return begin, begin + len(bare), bare
