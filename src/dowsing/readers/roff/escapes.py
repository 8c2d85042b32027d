"""Escapes that need the state of the page: strings, registers, arguments, widths, fonts by name,
motions.
"""

from __future__ import annotations

from dowsing.model.markup import BOLD, ROMAN, plain
from dowsing.readers.roff.characters import code_point, glyph
from dowsing.readers.roff.marks import BACKSLASH, JOIN, PAD, PREVIOUS, QUOTE, ZERO
from dowsing.readers.roff.numbers import UNITS, evaluate, formatted
from dowsing.readers.roff.prepare import FONTS, fixed_escape

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.readers.roff.interpreter import Interpreter

MOST_EXPANSIONS = 3000
MOST_LENGTH = 200_000

#: Strings that the man and mdoc macros define for pages.
STRINGS = {
    "R": "®",
    "Tm": "™",
    "lq": "“",
    "rq": "”",
    "S": "",
    "HF": BOLD,
    "Lq": "“",
    "Rq": "”",
    "Le": "≤",
    "Ge": "≥",
    "Lt": "<",
    "Gt": ">",
    "Ne": "≠",
    "Pm": "±",
    "If": "∞",
    "Na": "NaN",
    "Ba": "|",
    "Am": "&",
    "q": QUOTE,
    "Pi": "π",
    "left-singlequote": "‘",
    "right-singlequote": "’",
    "ua": "↑",
    "aa": "´",
    "ga": "`",
    "left-bracket": "[",
    "right-bracket": "]",
    "lp": "(",
    "rp": ")",
    ".T": "utf8",
    "<=": "≤",
    ">=": "≥",
    "an-extra1": "",
    "Lb": "",
    'L"': QUOTE,
    'R"': QUOTE,
}

#: Read-only and usual registers: a typewriter-like output device 80 columns wide.
REGISTERS = {
    ".g": 1,
    ".x": 1,
    ".y": 22,
    ".l": 1872,
    ".ll": 1872,
    ".i": 0,
    ".in": 0,
    ".s": 10,
    ".v": 40,
    ".H": 24,
    ".V": 40,
    ".f": 1,
    ".j": 0,
    ".u": 1,
    ".p": 100000,
    ".t": 100000,
    ".k": 0,
    ".C": 0,
    ".o": 0,
    ".ft": 1,
    ".fam": 0,
    "LL": 1872,
    "IN": 168,
    "an-margin": 168,
    "nl": 0,
    "dw": 2,
    "dy": 1,
    "mo": 1,
    "yr": 126,
    "year": 2026,
    ".nn": 0,
    ".z": 0,
    ".hy": 0,
    ".ad": 0,
    ".c": 1,
    ".U": 0,
    ".W": 0,
    ".color": 0,
    ".cp": 0,
}


def read_name(text: str, at: int) -> tuple[str, int]:
    r"""The name at `at` (`x`, `(xx` or `[xxx]`) and where it ends."""
    char = text[at : at + 1]
    if char == "(":
        return text[at + 1 : at + 3], at + 3
    if char == "[":
        end = text.find("]", at)
        if end < 0:
            return text[at + 1 :], len(text)
        return text[at + 1 : end], end + 1
    return char, at + 1


def _quoted(text: str, at: int) -> tuple[str, int]:
    """The argument between delimiters at `at` and where it ends; escapes inside may hold the
    delimiter.
    """
    delimiter = text[at : at + 1]
    if not delimiter:
        return "", at
    stop = at + 1
    while stop < len(text):
        if text[stop] == delimiter:
            return text[at + 1 : stop], stop + 1
        if (
            text[stop] == "\\"
            and text[stop + 1 : stop + 2] in ("w", "h", "v")
            and text[stop + 2 : stop + 3]
        ):
            inner = text.find(text[stop + 2], stop + 3)
            stop = inner + 1 if inner > 0 else stop + 2
        else:
            stop += 1
    return text[at + 1 :], len(text)


def expand(  # noqa: C901, PLR0912 - read for every line of a page: calls would cost more than branches
    machine: Interpreter, text: str, copy: bool = False
) -> str:
    """`text` with its escapes replaced.

    With `copy`, as a definition is read: only strings, registers and arguments are replaced and a
    doubled escape character loses one.
    """
    mark = machine.escape
    if not mark or mark not in text:
        return text if mark == "\\" else text.replace("\\", BACKSLASH)
    if mark != "\\":
        text = text.replace("\\", BACKSLASH).replace(mark, "\\")
    done: list[str] = []
    budget = MOST_EXPANSIONS
    at = 0
    while True:
        here = text.find("\\", at)
        if here < 0:
            done.append(text[at:])
            return "".join(done)
        if here > at:
            done.append(text[at:here])
        char = text[here + 1 : here + 2]
        at = here + 2
        if char == "*" or char == "n" or char == "$":
            bracket = at + 1 if text[at : at + 1] in ("+", "-") else at
            if text[bracket : bracket + 1] in ("[", "("):
                text = _with_inner_name(machine, text, bracket)
            value, at = _interpolated(machine, char, text, at)
            budget -= 1
            machine.spend(len(value) + len(text) // 50)
            if budget < 0 or len(text) > MOST_LENGTH:
                done.append(value)
            elif value:
                text, at = value + text[at:], 0
        elif copy:
            if char == "\\":
                done.append("\\")
            elif char == "\n" or char == "":
                pass
            else:
                done.append("\\" + char)
        elif char == "\\":
            done.append(BACKSLASH)
        else:
            fixed = fixed_escape(char)
            if fixed is not None:
                done.append(fixed)
            else:
                value, at = _other(machine, char, text, at)
                done.append(value)


def _interpolated(machine: Interpreter, kind: str, text: str, at: int) -> tuple[str, int]:
    """The value of a string, register or argument."""
    step = ""
    if kind == "n" and text[at : at + 1] in ("+", "-"):
        step, at = text[at], at + 1
    if kind == "$" and text[at : at + 1] not in ("(", "["):
        name, at = text[at : at + 1], at + 1
    else:
        name, end = read_name(text, at)
        at = end
    if kind == "n":
        return _register(machine, name, step), at
    if kind == "$":
        return _argument(machine, name), at
    base = name.split(" ", 1)[0]
    if base == ".T" and machine.escape != "\\":
        return "utf8", at
    return machine.strings.get(base, ""), at


def _with_inner_name(machine: Interpreter, text: str, at: int) -> str:
    r"""`text` with the escapes inside the name that opens at `at` replaced: `[a\n[b]]`, `(\*xy`."""
    if text[at] == "(":
        stop = at + 3 if "\\" in text[at : at + 3] else at
        if stop > at:
            _, stop = read_name(text, text.find("\\", at) + 2)
    else:
        depth, stop = 0, at
        while stop < len(text):
            depth += {"[": 1, "]": -1}.get(text[stop], 0)
            if not depth:
                break
            stop += 1
    inside = text[at + 1 : stop]
    if "\\" not in inside:
        return text
    machine.step()
    if machine.depth > 20:
        return text[: at + 1] + text[stop:]
    machine.depth += 1
    try:
        return text[: at + 1] + expand(machine, inside) + text[stop:]
    finally:
        machine.depth -= 1


def _register(machine: Interpreter, name: str, step: str) -> str:
    if step:
        change = machine.steps_of.get(name, 0)
        machine.registers[name] = machine.registers.get(name, 0) + (
            change if step == "+" else -change
        )
    if name == ".$":
        return str(max(len(machine.arguments) - 1, 0))
    value = machine.registers.get(name, 0)
    style = machine.formats.get(name)
    return formatted(value, style) if style else str(value)


def _argument(machine: Interpreter, name: str) -> str:
    arguments = machine.arguments
    if name == "*":
        return " ".join(arguments[1:])
    if name == "@":
        return " ".join(f'"{argument}"' for argument in arguments[1:])
    if name.isdecimal() and int(name) < len(arguments):
        return arguments[int(name)]
    return ""


# escapes of one character without an argument
_LONE = {"c": JOIN, "z": "", "E": "\\", "{": "", "}": ""}


def _other(machine: Interpreter, char: str, text: str, at: int) -> tuple[str, int]:
    """An escape that is none of the common ones: what it is replaced by, and where to go on."""
    if char == "(" or char == "[":
        name, at = read_name(text, at - 1)
        found = glyph(name)
        if found is None:
            found = machine.strings.get("char:" + name, "")
        return found, at
    if char == "f":
        name, at = read_name(text, at)
        return FONTS.get(name.strip(), PREVIOUS if name == "P" else ROMAN), at
    if char == "s":
        return "", _after_size(text, at)
    if char in "FmMgkVY":
        return "", read_name(text, at)[1]
    if char in "hvwlLDXZRSHBACNob":
        inside, at = _quoted(text, at)
        return _with_argument(machine, char, inside), at
    if char == "x":
        return "", _quoted(text, at)[1]
    if char == "#":
        return "", len(text)
    return _LONE.get(char, char), at


def _after_size(text: str, at: int) -> int:
    """Where a size change ends: `\\s-1`, `\\s10`, `\\s(12`, `\\s[+2]`, `\\s'1'`."""
    char = text[at : at + 1]
    if char in ("(", "["):
        return read_name(text, at)[1]
    if char == "'":
        return _quoted(text, at)[1]
    if char in ("+", "-"):
        at += 1
        if text[at : at + 1] in ("(", "[", "'"):
            return _after_size(text, at)
        return at + 1
    if char in ("1", "2", "3") and text[at + 1 : at + 2].isdigit():
        return at + 2
    return at + 1 if char.isdigit() else at


def _with_argument(machine: Interpreter, kind: str, inside: str) -> str:
    if kind == "w":
        shown = plain(
            expand(machine, inside).replace(ZERO, "").replace(PAD, " ").replace(BACKSLASH, "b")
        )
        return str(len(shown) * 24)
    if kind == "h":
        distance, _ = evaluate(expand(machine, inside), "m")
        return PAD * min(max(round((distance or 0) / UNITS["m"]), 0), 40)
    if kind == "N":
        return code_point(int(inside)) if inside.isdecimal() else ""
    if kind == "C":
        return glyph(inside) or ""
    if kind == "o" or kind == "b":
        shown = expand(machine, inside)
        return shown if kind == "b" else plain(shown.replace(ZERO, ""))[-1:]
    if kind == "Z":
        return expand(machine, inside)
    if kind == "l":
        return _ruled(machine, inside)
    if kind == "A" or kind == "B":
        return "1" if inside and (kind == "A" or evaluate(inside)[0] is not None) else "0"
    if kind == "R":
        name, _, value = inside.partition(" ")
        amount, _ = evaluate(expand(machine, value))
        machine.registers[name] = amount or 0
    return ""


def _ruled(machine: Interpreter, inside: str) -> str:
    """A drawn line: as many characters as it is wide."""
    inside = expand(machine, inside)
    distance, end = evaluate(inside, "m")
    char = plain(inside[end:].replace(ZERO, "")).strip()[:1] or "─"
    return char * min(max(round((distance or 0) / UNITS["m"]), 0), 120)
