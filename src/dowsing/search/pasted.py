"""What people paste instead of a name or words: a message, an exit status, a signal, a variable, a
sign of the shell, a whole line, a path, a question about two names.
"""

from __future__ import annotations

import os
import re
from enum import StrEnum

from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Callable

    from dowsing.search.definitions import Definition


class PastedKind(StrEnum):
    """What it is."""

    MESSAGE = "message"
    STATUS = "exit status"
    SIGNAL = "signal"
    VARIABLE = "variable"
    FILE = "file"
    SIGN = "sign of the shell"
    LINE = "line"
    PATH = "path"
    DIFFERENCE = "difference"
    NAME = "name"  # asked for by `what is`
    ABSENT = "absent"  # a command that is known and not here


class Pasted(Record):
    """What was pasted. `says` is what it means ("" where a page will say it), `causes` what usually
    causes it, `see` names to look at, the best first; `defined`: the pages that define it, of a
    variable, a file or a path.
    """

    kind: PastedKind
    text: str
    says: str = ""
    causes: list[str] = []  # noqa: RUF012 - a record is immutable
    see: list[str] = []  # noqa: RUF012
    defined: list[Definition] = []  # noqa: RUF012


_STATUS = re.compile(
    r"(?:exit(?:ed)?|return(?:ed)?)?\s*(?:with\s+)?(?:exit\s+)?(?:status|code)\s*:?\s*(\d{1,3})",
    re.IGNORECASE,
)
_DIFFERENCE = re.compile(
    r"(?:what(?:'s| is) the )?difference between\s+(\S+)\s+and\s+(\S+)\??"
    r"|(\S+)\s+(?:vs\.?|versus)\s+(\S+)",
    re.IGNORECASE,
)
_WHAT_IS = re.compile(
    r"(?:what(?:'s| is| does)|explain)\s+(?:an?\s+|the\s+)?(\S+?)(?:\s+(?:do|mean|for))?\??",
    re.IGNORECASE,
)
_OPERATORS = frozenset("| |& && || ; ;; & ( ) { } > >> < << <<< >| <> [[ ]] (( )) [ ] !".split())
_REDIRECTION = re.compile(r"(?:\d|&)?(?:>>?\|?|<{1,3}|<>)(?:&\d?-?)?|\d?>&\d")
_EXPANSION = re.compile(r"\$(?:[@*#?$!_-]|\d|[A-Za-z_]\w*|\{.*\}|\(\(.*\)\)|\()")
_IN_SHELL = ["bash(1)", "dash(1)", "zsh(1)"]


def pasted_sign(words: list[str]) -> Pasted | None:
    """What the words are if their shape tells that they are no name; None if they may be one."""
    text = " ".join(words).strip()
    for read in (_sign, _signal, _status, _difference, _path):
        found = read(text)
        if found is not None:
            return found
    return None


def pasted_text(words: list[str], is_command: Callable[[str], bool]) -> Pasted | None:
    """What words that are no name are, if they are nothing to search for; None if they may well be.
    `is_command`: whether a word can be run here.
    """
    text = " ".join(words).strip()
    if len(text.split()) < 2:
        return None
    return _line(words, is_command) or _message(text) or _what_is(text)


def pasted_message(words: list[str]) -> Pasted | None:
    """The message that the words are, if it is known."""
    text = " ".join(words).strip()
    return _message(text) if len(text.split()) > 1 else None


def _sign(text: str) -> Pasted | None:
    """`$?`, `2>&1`, `&&`."""
    from dowsing.commandline.languages import read_value
    from dowsing.commandline.languages.expansion import is_well_known, name_words

    if _EXPANSION.fullmatch(text):
        says = read_value("expansion", text).says or read_value("arithmetic", text).says
        kind = PastedKind.VARIABLE if re.fullmatch(r"\$\w\w+", text) else PastedKind.SIGN
        see = ["environ(7)"] if kind is PastedKind.VARIABLE else _IN_SHELL
        return Pasted(kind, text, says, see=see)
    if text in _OPERATORS or _REDIRECTION.fullmatch(text):
        return Pasted(PastedKind.SIGN, text, see=_IN_SHELL)
    if is_well_known(text):
        return Pasted(PastedKind.VARIABLE, text, name_words(text), see=["environ(7)"])
    return None


def _signal(text: str) -> Pasted | None:
    from dowsing.commandline.languages import read_value

    if not re.fullmatch(r"SIG[A-Z]+\d?", text):
        return None
    reading = read_value("signal", text)
    says = reading.parts[0].says if reading.parts else ""
    return Pasted(PastedKind.SIGNAL, text, says, see=["signal(7)", "kill"])


def _status(text: str) -> Pasted | None:
    found = _STATUS.fullmatch(text)
    if not found:
        return None
    from dowsing.knowledge.messages import status_words

    says = status_words(found[1])
    return Pasted(PastedKind.STATUS, text, says, see=["bash(1)", "signal(7)"]) if says else None


def _difference(text: str) -> Pasted | None:
    found = _DIFFERENCE.fullmatch(text)
    if not found:
        return None
    first, last = (found[1], found[2]) if found[1] else (found[3], found[4])
    return Pasted(PastedKind.DIFFERENCE, text, see=[first, last.rstrip("?")])


def _path(text: str) -> Pasted | None:
    if not re.match(r"(?:/|~/|\.{1,2}/)\S+\Z", text):
        return None
    name = os.path.basename(text.rstrip("/"))
    return Pasted(PastedKind.PATH, text, see=[name] if name else [])


def _message(text: str) -> Pasted | None:
    from dowsing.knowledge.messages import message_fact

    fact = message_fact(text)
    if fact is None:
        return None
    return Pasted(PastedKind.MESSAGE, fact.code or text, fact.says, fact.causes, fact.see)


def _line(words: list[str], is_command: Callable[[str], bool]) -> Pasted | None:
    """A whole command line: a command with options or signs of the shell behind it."""
    text = words[0] if len(words) == 1 else " ".join(words)
    parts = text.split()
    if len(parts) < 2 or not is_command(parts[0]):
        return None
    is_line = any((one[:1] == "-" and len(one) > 1) or one in _OPERATORS for one in parts[1:])
    return Pasted(PastedKind.LINE, text) if is_line else None


def _what_is(text: str) -> Pasted | None:
    found = _WHAT_IS.fullmatch(text)
    return Pasted(PastedKind.NAME, text, see=[found[1]]) if found else None
