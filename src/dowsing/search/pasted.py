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
    from dowsing.knowledge.messages import MessageFact
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


class Pasted(Record):
    """What was pasted. `says` is what it means ("" where a page will say it), `causes` what usually
    causes it, `remedies` what helps, `look` lines that look further, `program` the one that says a
    message ("" for any), `code` its name in errno(3) or signal(7); `see` names to look at, the best
    first; `defined`: the pages that define it, of a variable, a file or a path.
    """

    kind: PastedKind
    text: str
    says: str = ""
    causes: list[str] = []  # noqa: RUF012 - a record is immutable
    remedies: list[str] = []  # noqa: RUF012
    look: list[str] = []  # noqa: RUF012
    program: str = ""
    code: str = ""
    see: list[str] = []  # noqa: RUF012
    defined: list[Definition] = []  # noqa: RUF012


_STATUS = re.compile(
    r"(?:exit(?:ed)?|return(?:ed)?)?\s*(?:with\s+)?(?:exit\s+)?(?:(?:status|code)\s*:?\s*)?(\d{1,3})",
    re.IGNORECASE,
)
_SIGNAL = re.compile(r"SIG[A-Z]+\d?|signal\s+(\d{1,2})", re.IGNORECASE)
_ERROR = re.compile(r"E[A-Z0-9]{3,}|(?:error|errno)\s+-?(\d{1,3})", re.IGNORECASE)
_DIFFERENCE = re.compile(
    r"(?:what(?:'s| is) the )?difference between\s+(\S+)\s+and\s+(\S+)\??"
    r"|(\S+)\s+(?:vs\.?|versus)\s+(\S+)",
    re.IGNORECASE,
)
_WHAT_IS = re.compile(
    r"(?:what(?:'s| is| does)|explain)\s+(?:an?\s+|the\s+)?(\S+?)(?:\s+(?:do|mean|for))?\??",
    re.IGNORECASE,
)
OPERATORS = frozenset("| |& && || ; ;; & ( ) { } > >> < << <<< >| <> [[ ]] (( )) [ ] !".split())
_REDIRECTION = re.compile(r"(?:\d|&)?(?:>>?\|?|<{1,3}|<>)(?:&\d?-?)?|\d?>&\d")
_EXPANSION = re.compile(r"\$(?:[@*#?$!_-]|\d|[A-Za-z_]\w*|\{.*\}|\(\(.*\)\)|\()")
_SIGNALLED, MOST_SIGNALS = 128, 65  # an exit status above the first is a signal's
IN_SHELLS = ["bash(1)", "dash(1)", "zsh(1)"]


def pasted_sign(words: list[str]) -> Pasted | None:
    """What the words are if their shape tells that they are no name; None if they may be one."""
    text = " ".join(words).strip()
    for read in (_sign, _signal, _status, _error, _difference, _path):
        found = read(text)
        if found is not None:
            return found
    return None


def pasted_text(text: str) -> Pasted | None:
    """What words that are no name and no line are, if they are nothing to search for; None if they
    may well be.
    """
    text = text.strip()
    if len(text.split()) < 2:
        return _message(text) if text[:1].isupper() else None  # `Killed`
    return _message(text) or _what_is(text)


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
        see = ["environ(7)"] if kind is PastedKind.VARIABLE else IN_SHELLS
        return Pasted(kind, text, says, see=see)
    if text in OPERATORS or _REDIRECTION.fullmatch(text):
        return Pasted(PastedKind.SIGN, text, see=IN_SHELLS)
    if is_well_known(text):
        return Pasted(PastedKind.VARIABLE, text, name_words(text), see=["environ(7)"])
    return None


def _signal(text: str) -> Pasted | None:
    """`SIGHUP`, `signal 9`."""
    from dowsing.knowledge.messages import NumberedKind, coded_fact, numbered_fact

    found = _SIGNAL.fullmatch(text)
    if not found or (found[1] is None and not text.isupper()):
        return None
    fact = numbered_fact(NumberedKind.SIGNAL, found[1]) if found[1] else coded_fact(text)
    says = _signal_words(fact.code if fact is not None else text) or (fact.says if fact else "")
    about = _told(PastedKind.SIGNAL, text, fact).changed(says=says)
    return about.changed(see=["signal(7)", "kill"]) if says else None


def _signal_words(name: str) -> str:
    """What a signal asks for, as it is told on command lines."""
    from dowsing.commandline.languages import read_value

    reading = read_value("signal", name)
    return reading.parts[0].says if reading.parts else ""


def _status(text: str) -> Pasted | None:
    """`exit status 137`, `127`."""
    from dowsing.knowledge.messages import NumberedKind, numbered_fact

    found = _STATUS.fullmatch(text)
    if not found:
        return None
    fact = numbered_fact(NumberedKind.STATUS, found[1])
    signal = int(found[1]) - _SIGNALLED
    if fact is not None:
        return _told(PastedKind.STATUS, text, fact).changed(see=_of_status(signal))
    if text.isdecimal() or not 0 < signal < MOST_SIGNALS:
        return None
    return Pasted(PastedKind.STATUS, text, f"ended by signal {signal}", see=_of_status(signal))


def _of_status(signal: int) -> list[str]:
    """The pages about an exit status. `signal`: the one that it stands for, none below 1."""
    return ["bash(1)", "signal(7)"] if signal > 0 else ["bash(1)"]


def _error(text: str) -> Pasted | None:
    """`EACCES`, `error 13`."""
    from dowsing.knowledge.messages import NumberedKind, coded_fact, numbered_fact

    found = _ERROR.fullmatch(text)
    if not found or (found[1] is None and not text.isupper()):
        return None
    fact = numbered_fact(NumberedKind.ERROR, found[1]) if found[1] else coded_fact(text)
    return _told(PastedKind.MESSAGE, text, fact) if fact is not None else None


def _told(kind: PastedKind, text: str, fact: MessageFact | None) -> Pasted:
    """What is known of a message, or of a number that stands for one. Its name is its text."""
    if fact is None:
        return Pasted(kind, text)
    see = [fact.program] if fact.program else []
    see += ["errno(3)"] if fact.code.startswith("E") else []
    see += [name for line in fact.see if (name := _first_name(line))]
    return Pasted(
        kind, text, fact.says, fact.causes, fact.remedies, fact.see, fact.program, fact.code,
        list(dict.fromkeys(see)),
    )  # fmt: skip


def _first_name(line: str) -> str:
    """The command of a line that looks further, or the page that it opens."""
    words = [word for word in line.split() if word != "sudo" and "=" not in word]
    if words[:1] == ["dowsing"] and len(words) > 1:
        return words[1].strip("'")
    return words[0] if words else ""


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
    return None if fact is None else _told(PastedKind.MESSAGE, text, fact)


def has_sign_of_a_line(words: list[str]) -> bool:
    """Whether a flag or a sign of the shell stands behind the first word."""
    parts = " ".join(words).split()[1:]
    return any((one[:1] == "-" and len(one) > 1) or one in OPERATORS for one in parts)


def _what_is(text: str) -> Pasted | None:
    found = _WHAT_IS.fullmatch(text)
    return Pasted(PastedKind.NAME, text, see=[found[1]]) if found else None
