"""Reads the files of messages (knowledge/messages) and makes the one file of them that look-ups
read: in its first line how the messages are found, then a message a line.

    [[message]]
    match = 'cannot find -l\\w+'       a pattern, in any case; or, beside it:
    number = 13                        in errno.toml, signals.toml and statuses.toml: its number
    code = "EACCES"                    and its name in errno(3) or signal(7)
    says = "…"                         what it means
    causes = ["…"]                     what usually causes it, the likeliest first
    remedies = ["COMMAND: what it does", "…"]
    see = ["COMMAND"]                  lines that look further
    like = ["…"]                       whole messages as they are pasted: each must lead here
    general = true                     it counts only where no other message is found
    closing = true                     the last line of a failure, whose reason is another: it
                                       counts only where nothing else at all is found
    needs_program = true               it counts only where the text names the program

A file is named by the program whose messages it has; `any.toml` has those of any program. Of the
messages of one file the first that matches counts, so the special stands before the general.
"""

from __future__ import annotations

import os
import re
import tomllib

from dowsing.knowledge.messages import FILE, NUMBERED, NumberedKind, Weight
from dowsing.knowledge.packs import write_pack
from dowsing.knowledge.pattern_words import needed_words

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

SOURCES = os.path.join(os.path.dirname(FILE), "messages")
_KEYS = frozenset(
    ("match", "number", "code", "says", "causes", "remedies", "see", "like", "general")
    + ("closing", "needs_program")
)
_LISTS = ("causes", "remedies", "see", "like")


def read_message_files(folder: str = SOURCES) -> dict[str, list[dict[str, Any]]]:
    """The messages of each program. Raises ValueError, which says all that is wrong with them."""
    found: dict[str, list[dict[str, Any]]] = {}
    faults: list[str] = []
    for file in sorted(os.listdir(folder)):
        program = file.removesuffix(".toml")
        with open(os.path.join(folder, file), "rb") as source:
            found[program] = tomllib.load(source).get("message", [])
        for number, row in enumerate(found[program], 1):
            faults += [f"{file}, message {number}: {fault}" for fault in _faults(program, row)]
    if faults:
        raise ValueError("\n".join(faults))
    return found


def _faults(program: str, row: dict[str, Any]) -> list[str]:
    faults = [f"there is no key {key}" for key in row if key not in _KEYS]
    if not isinstance(row.get("says"), str):
        faults.append("it does not say what it means")
    if "match" not in row and (program not in NUMBERED or "number" not in row):
        faults.append("it has neither a pattern nor a number")
    for key in _LISTS:
        if not all(isinstance(one, str) for one in row.get(key, [])):
            faults.append(f"{key} is no list of texts")
    try:
        re.compile(row.get("match", ""))
    except re.error as error:
        faults.append(f"the pattern is wrong: {error}")
    return faults


def _weight(program: str, row: dict[str, Any]) -> Weight:
    if row.get("closing"):
        return Weight.CLOSING
    if program == "errno":
        return Weight.SYSTEM
    return Weight.GENERAL if row.get("general") else Weight.SPECIAL


def write_messages() -> None:
    """Make the file. Raises ValueError if a file of messages is not of the format."""
    rows = [(program, row) for program, all_ in read_message_files().items() for row in all_]
    outline: dict[str, Any] = {"patterns": [], "codes": {}}
    for kind in NumberedKind:
        outline[kind] = {}
    lines = []
    for number, (program, row) in enumerate(rows):
        if "match" in row:
            needs = bool(row.get("needs_program"))
            outline["patterns"].append(
                [
                    number,
                    program,
                    row["match"],
                    _weight(program, row),
                    needs,
                    needed_words(row["match"]),
                ]
            )
        if "number" in row:
            outline[NUMBERED[program]][str(row["number"])] = number
        if "code" in row:
            outline["codes"][row["code"]] = number
        told = {
            key: row[key] for key in ("says", "code", "causes", "remedies", "see") if row.get(key)
        }
        lines.append({"program": "" if program in (*NUMBERED, "any") else program, **told})
    write_pack(FILE, [outline, *lines])
