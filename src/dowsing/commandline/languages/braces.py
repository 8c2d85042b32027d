"""Brace expansion: `{a,b}.txt`, `{1..5}` (bash), with the words that it becomes."""

from __future__ import annotations

import itertools
import re

_MOST = 500  # words that are made
SHOWN = 8  # words that are told
_RANGE = re.compile(
    r"(-?\d+)\.\.(-?\d+)(?:\.\.(-?\d+))?\Z|([A-Za-z])\.\.([A-Za-z])(?:\.\.(-?\d+))?\Z"
)


def expanded(text: str) -> list[str]:
    """The words that a word without quotes becomes; [] if nothing is expanded, or too much."""
    found = _expand(text)
    return found if len(found) > 1 and found != [text] else []


def words_shown(found: list[str]) -> str:
    """The words, or the first of them and the last."""
    if len(found) <= SHOWN:
        return " ".join(found)
    return f"{' '.join(found[: SHOWN - 3])} … {found[-1]} ({len(found)} words)"


def _expand(text: str) -> list[str]:
    place = _first_braces(text)
    if place is None:
        return [text]
    start, end = place
    before, inside, after = text[:start], text[start + 1 : end], text[end + 1 :]
    choices = _range(inside) or [one for part in _split(inside) for one in _expand(part)]
    rest = _expand(after)
    if len(choices) * len(rest) > _MOST:
        return [text]
    return [before + one + tail for one, tail in itertools.product(choices, rest)]


def _first_braces(text: str) -> tuple[int, int] | None:
    """The first pair of braces that the shell expands."""
    at = 0
    while at < len(text):
        if text[at] == "\\":
            at += 2
            continue
        if text[at] == "{" and (not at or text[at - 1] != "$"):
            end = _closing(text, at)
            inside = text[at + 1 : end] if end > 0 else ""
            if end > 0 and (len(_split(inside)) > 1 or _RANGE.match(inside)):
                return at, end
        at += 1
    return None


def _closing(text: str, start: int) -> int:
    depth = 0
    for at in range(start, len(text)):
        depth += (text[at] == "{") - (text[at] == "}")
        if not depth:
            return at
    return -1


def _split(inside: str) -> list[str]:
    found, depth = [""], 0
    for char in inside:
        depth += (char == "{") - (char == "}")
        if char == "," and not depth:
            found.append("")
        else:
            found[-1] += char
    return found


def _range(inside: str) -> list[str]:
    match = _RANGE.match(inside)
    if not match:
        return []
    step = abs(int(match[3] or match[6] or 1)) or 1
    if match[4]:
        low, high = ord(match[4]), ord(match[5])
        numbers = range(low, high + 1, step) if low <= high else range(low, high - 1, -step)
        return [chr(n) for n in numbers]
    low, high = int(match[1]), int(match[2])
    if abs(high - low) // step > _MOST:
        return []
    numbers = range(low, high + 1, step) if low <= high else range(low, high - 1, -step)
    padded = any(re.match(r"-?0\d", one) for one in (match[1], match[2]))
    width = max(len(match[1]), len(match[2])) if padded else 0
    return [f"{n:0{width}d}" if width else str(n) for n in numbers]
