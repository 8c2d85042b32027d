"""What a line changes or destroys: from what the pages say, and a small table of what the trade
knows (effects.toml).
"""

from __future__ import annotations

import os
import re

from dowsing.commandline.pieces import Effect, Piece
from dowsing.commandline.sayings import EffectCode, Meaning
from dowsing.model.roles import Role
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

#: First words of a text that say that something is lost.
_DESTROYS = (
    r"(?:forcibly |permanently |recursively )?(?:remove|delete|erase|destroy|overwrite|purge|wipe"
    r"|discard|truncate|kill|drop)s?"
    r"\b(?!.*\beach line\b)(?:\W+\w+){0,6}?\W+(?:files?|director(?:y|ies)|folders?|entr(?:y|ies)"
    r"|packages?|users?|groups?|"
    r"databases?|tables?|partitions?|disks?|devices?|data|branch(?:es)?|keys?|modules?|containers?"
    r"|images?|volumes?|"
    r"accounts?|history|process(?:es)?|contents?|archive|members?|repositor(?:y|ies)|commits?"
    r"|changes)\b"
)
#: Targets of a redirection that hold nothing.
SAFE_TARGETS = frozenset(("/dev/null", "/dev/stderr", "/dev/tty"))
_FETCHES = frozenset(("curl", "wget"))
_SHELLS = frozenset(("sh", "bash", "dash", "zsh", "ksh", "python", "python3", "perl"))


def effects(pieces: list[Piece], table: dict[str, Any]) -> list[Effect]:
    """What the line changes; [] if nothing is known to change. `table`: that of effects.toml."""
    found: list[Effect] = []
    for command, own in commands_of(pieces):
        found += _of_command(command, own, table)
    for piece in pieces:
        if piece.role == Role.REDIRECTION and _empties_its_target(piece):
            target = re.sub(r"^[\d&]*>\|?\s*", "", piece.text)
            found.append(Effect(piece.text, told(EffectCode.REPLACES_CONTENTS, target)))
    found += _fetched_and_run(pieces)
    return list({(one.words, one.does, one.look): one for one in found}.values())


def _empties_its_target(piece: Piece) -> bool:
    """Whether what stands in the file that a redirection names is lost."""
    if piece.meaning is None or piece.meaning.code is not Meaning.REDIRECTION:
        return False
    operator, target = (str(one) for one in piece.meaning.arguments)
    return re.fullmatch(r"[\d&]*>\|?", operator) is not None and target not in SAFE_TARGETS


def commands_of(pieces: list[Piece]) -> list[tuple[Piece, list[Piece]]]:
    """Each command with its own pieces, in order."""
    found: list[tuple[Piece, list[Piece]]] = []
    open_at: dict[int, list[Piece]] = {}
    for piece in pieces:
        if piece.role == Role.COMMAND:
            own: list[Piece] = []
            found.append((piece, own))
            open_at[piece.depth] = own
        elif (
            piece.role in (Role.OPERATOR, Role.KEYWORD) and piece.of is None and piece.page is None
        ):
            open_at.pop(piece.depth, None)
        elif piece.depth in open_at:
            open_at[piece.depth].append(piece)
    return found


def _of_command(command: Piece, own: list[Piece], table: dict[str, Any]) -> list[Effect]:
    name = os.path.basename(command.text)
    words = [piece.text for piece in own if piece.role == Role.SUBCOMMAND]
    row = table.get("-".join([name, *words[:1]])) or table.get(name) or {}
    spellings = {flag for piece in own for flag in [*(piece.flags or []), piece.text]}
    line = " ".join([command.text, *words])
    found: list[Effect] = []
    if (
        row.get("always")
        and not spellings & set(row.get("unless", ()))
        and any(p.role != Role.OPTION for p in own)
    ):
        found.append(Effect(line, str(row["always"])))
    for flag, says in row.get("options", {}).items():
        piece = next((p for p in own if flag in (p.flags or []) or flag == p.text), None)
        if piece is not None:
            is_subcommand = piece.role == Role.SUBCOMMAND
            found.append(Effect(line if is_subcommand else f"{line} {piece.text}", str(says)))
    if not row:
        found += _told_by_pages(command, own, line)
    if found and row.get("look"):
        found[-1] = found[-1].changed(look=str(row["look"]))
    return found


def _told_by_pages(command: Piece, own: list[Piece], line: str) -> list[Effect]:
    """What the texts of the pieces begin with."""
    found = []
    says = (
        next((p.says for p in reversed(own) if p.role == Role.SUBCOMMAND and p.says), command.says)
        or ""
    )
    if re.match(_DESTROYS, says, re.IGNORECASE):
        found.append(Effect(line, _first(says)))
    for piece in own:
        if (
            piece.role == Role.OPTION
            and piece.says
            and re.match(_DESTROYS, piece.says, re.IGNORECASE)
        ):
            found.append(Effect(f"{line} {piece.text}", _first(piece.says)))
    return found


def _first(text: str) -> str:
    return re.split(r"(?<=[a-z)])[.;:](?:\s|\Z)", text, maxsplit=1)[0]


def _fetched_and_run(pieces: list[Piece]) -> list[Effect]:
    """`curl … | sh`: what comes from elsewhere is run unseen."""
    names = [
        os.path.basename(p.text) if p.role == Role.COMMAND else p.text
        for p in pieces
        if p.role in (Role.COMMAND, Role.OPERATOR)
    ]
    for first, pipe, second in zip(names, names[1:], names[2:], strict=False):
        if first in _FETCHES and pipe == "|" and second in _SHELLS:
            return [Effect(f"{first} | {second}", told(EffectCode.RUNS_UNSEEN))]
    return []
