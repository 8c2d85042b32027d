"""Adds to pieces what their values mean, where a value is written in a small language of its
own.
"""

from __future__ import annotations

import os
import re

from dowsing.commandline.command_pieces import commands_of
from dowsing.commandline.languages import notation_parts
from dowsing.model.roles import Role
from dowsing.model.value_kinds import ValueKind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.pieces import Piece

_REGEX = r"\bregular expressions?\b|\bregex(?:es|p|ps)?\b"
_GREPS = {
    "grep": "basic",
    "egrep": "extended",
    "zgrep": "basic",
    "pgrep": "extended",
    "pkill": "extended",
    "expr": "basic",
}
_SCHEDULE = re.compile(r"schedule|cron", re.IGNORECASE)


def annotate(pieces: list[Piece]) -> list[Piece]:
    """The pieces, those with the parts of their values whose kind has such."""
    told: dict[int, list[list[str]]] = {}
    for command, own in commands_of(pieces):
        name = os.path.basename(command.text)
        flags = {flag for one in own for flag in (one.flags or ())}
        options = {
            flag: one
            for one in reversed(own)
            if one.role == Role.OPTION
            for flag in (one.flags or ())
        }
        for piece in own:
            value = _value_of(piece)
            if value is None or ("$" in value and piece.inside):
                continue
            notation = _notation(name, piece, flags, options.get(piece.of or "", piece))
            parts = notation_parts(notation, value) if notation else []
            if parts:
                told[id(piece)] = [list(part) for part in parts]
    return [
        piece.changed(parts=told[id(piece)]) if id(piece) in told else piece for piece in pieces
    ]


def _value_of(piece: Piece) -> str | None:
    """The value that a piece stands for: its own, or the one that an option has in its own word."""
    if piece.role == Role.VALUE or piece.role == Role.OPERAND:
        return piece.plain if piece.plain is not None else piece.text
    if piece.role == Role.OPTION and piece.value is not None and piece.word:
        return piece.value
    return piece.value if piece.role == Role.OPTION and piece.kind == ValueKind.SIGNAL else None


def _notation(command: str, piece: Piece, flags: set[str], told: Piece) -> str:
    """The notation that a piece's value is written in, "" if in none.

    `flags`: all options of its command; `told`: the option that has it as its value, else the piece
    itself.
    """
    says = told.says or ""
    names = " ".join(told.flags or [])
    if (
        piece.role == Role.OPTION
        and piece.value is not None
        and not piece.word
        and piece.kind != ValueKind.SIGNAL
    ):
        return ""
    if piece.kind == ValueKind.MODE:
        return "mode"
    if piece.kind == ValueKind.SIGNAL:
        return "signal"
    if piece.role == Role.OPERAND and piece.text[:1] in "+'\"" and command == "date":
        return "dates"
    if "strftime" in says or ("date" in names and "format" in names):
        return "dates"
    if command == "printf" and piece.role == Role.OPERAND and piece.what == "FORMAT":
        return "printf"
    if command == "sed" and (
        (piece.role == Role.OPERAND and "script" in piece.what) or "--expression" in names
    ):
        return "sed" if not (piece.role == Role.OPERAND and {"-e", "-f"} & flags) else ""
    if command == "find" and re.fullmatch(r"[-+]\d+\w?", piece.text) and piece.role == Role.VALUE:
        return "amount"
    if _SCHEDULE.search(names):
        return "schedule"
    return _regex(command, piece, told, flags)


def _regex(command: str, piece: Piece, told: Piece, flags: set[str]) -> str:
    if command in _GREPS:
        wanted = (piece.role == Role.OPERAND and piece.kind == ValueKind.PATTERN) or "--regexp" in (
            told.flags or []
        )
        if not wanted or {"-F", "--fixed-strings"} & flags or command == "fgrep":
            return ""
        if {"-P", "--perl-regexp"} & flags:
            return "regex-perl"
        return (
            "regex-extended" if {"-E", "--extended-regexp"} & flags else f"regex-{_GREPS[command]}"
        )
    if (
        piece.kind == ValueKind.PATTERN
        and piece.role in (Role.VALUE, Role.OPTION)
        and re.search(_REGEX, told.says or "", re.IGNORECASE)
    ):
        return "regex-extended" if re.search(r"\bextended\b", told.says or "") else "regex-basic"
    return ""
