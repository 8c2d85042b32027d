"""Conditions of `.if`, `.ie` and `.while`, and the blocks they govern."""

from __future__ import annotations

from dowsing.readers.roff import escapes
from dowsing.readers.roff.characters import glyph
from dowsing.readers.roff.numbers import evaluate

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.readers.roff.machine import Machine

#: Conditions of one letter: this is a typewriter-like device (`n`), not a typesetter (`t`).
_LETTERS = {"n": True, "t": False, "o": True, "e": False, "v": False}


def condition(machine: Machine, text: str) -> tuple[bool, str]:
    """Whether the condition at the beginning of `text` holds, and the rest of the line."""
    text = text.lstrip(" \t")
    negated = False
    while text.startswith("!"):
        negated, text = not negated, text[1:].lstrip(" \t")
    holds, rest = _simple(machine, text)
    return holds != negated, rest


def _simple(machine: Machine, text: str) -> tuple[bool, str]:
    char, following = text[:1], text[1:2]
    if char in _LETTERS and not following.isalnum():
        return _LETTERS[char], text[1:]
    if char and char in "drcFmS" and following in (" ", "\t"):
        name, rest = _word(text[1:].lstrip(" \t"))
        return _named(machine, char, machine.expand(name)), rest
    if char and char in "dr" and following:
        name, rest = _word(text[1:])
        return _named(machine, char, machine.expand(name)), rest
    if char and (
        char in "'\"\x07\x15/" or (char not in "(\\+-" and not char.isalnum() and char not in "{.")
    ):
        return _same(machine, text, char)
    return _numeric(machine, text)


def _word(text: str) -> tuple[str, str]:
    stop = 0
    while stop < len(text) and text[stop] not in " \t":
        if text.startswith("\\{", stop):
            break
        stop += 1
    return text[:stop], text[stop:]


def _named(machine: Machine, kind: str, name: str) -> bool:
    if kind == "d":
        if name in machine.macros:
            return machine.macros[name] is not None
        return name in machine.strings or name in machine.plain or name in machine.raw
    if kind == "r":
        return name in machine.registers
    if kind == "c":
        return len(name) == 1 or glyph(name.lstrip("\\([").rstrip("]")) is not None
    return kind == "F"


def _same(machine: Machine, text: str, delimiter: str) -> tuple[bool, str]:
    """`'one'other'`: the same text."""
    if "\\" in text:  # strings may hold anything but the delimiter written on the line
        head = text.split("\\{", 1)
        parts = head[0].split(delimiter)
        if len(parts) >= 4:
            rest = delimiter.join(parts[3:]) + ("\\{" + head[1] if len(head) > 1 else "")
            return machine.expand(parts[1]) == machine.expand(parts[2]), rest
    parts = text.split(delimiter, 3)
    if len(parts) < 4:
        return False, ""
    return parts[1] == parts[2], parts[3]


def _numeric(machine: Machine, text: str) -> tuple[bool, str]:
    stop, depth = 0, 0
    while stop < len(text):
        char = text[stop]
        if char == "\\":
            if text[stop + 1 : stop + 2] in ("{", "}"):
                break
            if text[stop + 1 : stop + 2] in ("w", "A", "B") and stop + 2 < len(text):
                end = text.find(text[stop + 2], stop + 3)
                stop = end if end > 0 else stop + 1
            else:
                _, end = escapes.read_name(text, stop + 2)
                stop = max(end - 1, stop + 1)
        elif char == "(":
            depth += 1
        elif char == ")":
            depth -= 1
        elif char in " \t" and depth <= 0:
            break
        stop += 1
    value, _ = evaluate(machine.expand(text[:stop]))
    rest = text[stop:]
    if not stop:  # nothing that could be a condition: leave the line out
        rest = ""
    return bool(value is not None and value > 0), rest


def skip_block(machine: Machine, body: str) -> list[str]:
    r"""Take the lines that belong to `body`, the part of a line that a condition governs.

    Returned are the lines of the block without its braces; a body without a brace is one line.
    """
    depth = body.count("\\{") - body.count("\\}")
    lines = [body.replace("\\{", "").strip(" \t")]
    if lines[0] in ("", "\\}"):
        lines = []
    if depth <= 0:
        return [line.replace("\\}", "") for line in lines]
    for line in machine.lines:
        before = depth
        depth += line.count("\\{") - line.count("\\}")
        if depth <= 0:
            cut = line.rfind("\\}")
            rest = line[:cut] if before else line
            if rest.strip(" \t.'"):
                lines.append(rest)
            break
        lines.append(line)
    return lines
