"""What a line changes or destroys: from what the pages say, and a small table of what the trade knows (effects.toml)."""

from __future__ import annotations

import os
import re

from dowsing.commandline.pieces import Piece

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

#: First words of a text that say that something is lost.
_DESTROYS = (
    r"(?:forcibly |permanently |recursively )?(?:remove|delete|erase|destroy|overwrite|purge|wipe|discard|truncate|kill|drop)s?"
    r"\b(?!.*\beach line\b)(?:\W+\w+){0,6}?\W+(?:files?|director(?:y|ies)|folders?|entr(?:y|ies)|packages?|users?|groups?|"
    r"databases?|tables?|partitions?|disks?|devices?|data|branch(?:es)?|keys?|modules?|containers?|images?|volumes?|"
    r"accounts?|history|process(?:es)?|contents?|archive|members?|repositor(?:y|ies)|commits?|changes)\b"
)
_FETCHES = frozenset(("curl", "wget"))
_SHELLS = frozenset(("sh", "bash", "dash", "zsh", "ksh", "python", "python3", "perl"))


def effects(pieces: list[Piece], table: dict[str, Any]) -> list[str]:
    """What the line changes, a line for each effect; [] if nothing is known to change. `table`: that of effects.toml."""
    found: list[str] = []
    for command, own in commands_of(pieces):
        found += _of_command(command, own, table)
    for piece in pieces:
        if piece.role == "redirection":
            says = piece.says or ""
            if says.endswith("whose contents are replaced"):
                target = re.sub(r"^[\d&]*>\|?\s*", "", piece.text)
                found.append(f"{piece.text}: replaces the contents of {target}, if there is such a file")
    found += _fetched_and_run(pieces)
    return list(dict.fromkeys(found))


def commands_of(pieces: list[Piece]) -> list[tuple[Piece, list[Piece]]]:
    """Each command with its own pieces, in order."""
    found: list[tuple[Piece, list[Piece]]] = []
    open_at: dict[int, list[Piece]] = {}
    for piece in pieces:
        if piece.role == "command":
            own: list[Piece] = []
            found.append((piece, own))
            open_at[piece.depth] = own
        elif piece.role in ("operator", "keyword") and piece.of is None and piece.page is None:
            open_at.pop(piece.depth, None)
        elif piece.depth in open_at:
            open_at[piece.depth].append(piece)
    return found


def _of_command(command: Piece, own: list[Piece], table: dict[str, Any]) -> list[str]:
    name = os.path.basename(command.text)
    words = [piece.text for piece in own if piece.role == "subcommand"]
    row = table.get("-".join([name, *words[:1]])) or table.get(name) or {}
    spellings = {flag for piece in own for flag in [*(piece.flags or []), piece.text]}
    line = " ".join([command.text, *words])
    found: list[str] = []
    if row.get("always") and not spellings & set(row.get("unless", ())) and any(p.role != "option" for p in own):
        found.append(f"{line}: {row['always']}")
    for flag, says in row.get("options", {}).items():
        piece = next((p for p in own if flag in (p.flags or []) or flag == p.text), None)
        if piece is not None:
            found.append(f"{line}{'' if piece.role == 'subcommand' else ' ' + piece.text}: {says}")
    if not row:
        found += _told_by_pages(command, own, line)
    if found and row.get("look"):
        found[-1] += f" (to look first: {row['look']})"
    return found


def _told_by_pages(command: Piece, own: list[Piece], line: str) -> list[str]:
    """What the texts of the pieces begin with."""
    found = []
    says = next((p.says for p in reversed(own) if p.role == "subcommand" and p.says), command.says) or ""
    if re.match(_DESTROYS, says, re.IGNORECASE):
        found.append(f"{line}: {_first(says)}")
    for piece in own:
        if piece.role == "option" and piece.says and re.match(_DESTROYS, piece.says, re.IGNORECASE):
            found.append(f"{line} {piece.text}: {_first(piece.says)}")
    return found


def _first(text: str) -> str:
    return re.split(r"(?<=[a-z)])[.;:](?:\s|\Z)", text, maxsplit=1)[0]


def _fetched_and_run(pieces: list[Piece]) -> list[str]:
    """`curl … | sh`: what comes from elsewhere is run unseen."""
    names = [
        os.path.basename(p.text) if p.role == "command" else p.text
        for p in pieces
        if p.role in ("command", "operator")
    ]
    for first, pipe, second in zip(names, names[1:], names[2:], strict=False):
        if first in _FETCHES and pipe == "|" and second in _SHELLS:
            return [f"{first} | {second}: runs what comes from elsewhere without a look at it"]
    return []
