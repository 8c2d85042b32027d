"""Messages of the system, of shells and of programs with what they mean. Their files are in
knowledge/messages (see message_files.py); what is read here is made of them.
"""

from __future__ import annotations

import os
import re
from enum import IntEnum, StrEnum

from dowsing.knowledge.packs import pack_line
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

FILE = os.path.join(os.path.dirname(os.path.abspath(__file__)), "messages.pack")


class NumberedKind(StrEnum):
    """What a number says that stands for a message."""

    ERROR = "errors"  # errno(3)
    SIGNAL = "signals"
    STATUS = "statuses"  # an exit status


#: The files whose messages have numbers.
NUMBERED = {
    "errno": NumberedKind.ERROR,
    "signals": NumberedKind.SIGNAL,
    "statuses": NumberedKind.STATUS,
}


class Weight(IntEnum):
    """Which of several messages that a text holds counts: the first of these."""

    SPECIAL = 0
    GENERAL = 1  # what shells say of whatever they run
    SYSTEM = 2  # what errno(3) has
    CLOSING = 3  # that something failed, whose reason is another line


class MessageFact(Record):
    """A message. `says`: what it means; `code`: its name in errno(3) or signal(7), "" without one;
    `causes` what usually causes it; `remedies` what helps, a command line mostly with what it does
    behind a colon; `see` lines that look further; `program` the one that says it, "" for any.
    """

    says: str
    code: str = ""
    causes: list[str] = []  # noqa: RUF012 - a record is immutable
    remedies: list[str] = []  # noqa: RUF012
    see: list[str] = []  # noqa: RUF012
    program: str = ""


MOST_TEXT = 8000  # characters of a message; what is behind tells nothing more

# How numbers and names stand in texts.
_STATUS = re.compile(
    r"\b(?:exit(?:ed|s)?|return(?:ed|s)?|quit|died|failed|terminated|finished)(?: with)?(?: an?)?"
    r"(?: non-?zero)?(?: exit| return| error)?[ -]?(?:code|status|value)(?: is| was| of)?"
    r"[ :=(]{0,3}(\d{1,3})\b(?![./-]\d)"
    r"|\bcode=exited, status=(\d{1,3})\b|^(?:exit )?(?:status|code)[ :=]{1,2}(\d{1,3})$"
    r"|\bexit(?:ed|s)?(?: with)?[ (](\d{1,3})\b|\*\*\* .*\bError (\d{1,3})\b",
    re.IGNORECASE,
)
_SIGNAL = re.compile(
    r"\bsignal:? (\d{1,2})\b|\bstatus=(\d{1,2})/[A-Z]{3,4}\d?\b"
    r"|\b(?:return|exit) ?code[ :=]+-(\d{1,2})\b",
    re.IGNORECASE,
)
_ERROR = re.compile(
    r"\berr(?:no|code)[ :=]{0,3}-?(\d{1,3})\b|\bos error (\d{1,3})\b|\berror[ =]-(\d{1,3})\b"
    r"|\bmount error\((\d{1,3})\)|\bconnect to .{1,80}\((\d{1,3})\)|^error (\d{1,3})$",
    re.IGNORECASE,
)
_CODE = re.compile(r"\b(?:E[A-Z0-9]{3,}|SIG[A-Z]{3,}\d?)\b")


def message_fact(text: str) -> MessageFact | None:
    """What a message means that stands in a text, None if there is none that is known. What is said
    by a program that the text names comes first, then what says most of the text; what any program
    says, and what a number stands for, comes last.
    """
    outline = _outline()
    text = text[:MOST_TEXT]
    number = _by_pattern(outline["patterns"], text)
    if number is None:
        number = _by_number(outline, text)
    return None if number is None else _fact(number)


def numbered_fact(kind: NumberedKind, number: str) -> MessageFact | None:
    """What a number means, None if that depends on the program."""
    found = _outline()[kind].get(number)
    return None if found is None else _fact(found)


def coded_fact(code: str) -> MessageFact | None:
    """What a name of errno(3) or signal(7) means."""
    found = _outline()["codes"].get(code)
    return None if found is None else _fact(found)


def _by_pattern(rows: list[tuple[int, str, str, int, bool, list[str]]], text: str) -> int | None:
    """The message whose pattern a text has. Of one program the first counts."""
    small = text.lower()
    best: tuple[tuple[int, bool, int], int] | None = None
    seen: set[str] = set()
    for number, program, pattern, weight, needs_program, needed in rows:
        if program in seen or (needed and not any(word in small for word in needed)):
            continue
        is_named = _is_named(program, small)
        if needs_program and not is_named:
            continue
        found = re.search(pattern, text, re.IGNORECASE)
        if found is None:
            continue
        if weight < Weight.CLOSING:
            seen.add(program)
        key = (weight, not is_named, found.start() - found.end())
        if best is None or key < best[0]:
            best = (key, number)
    return None if best is None else best[1]


def _is_named(program: str, small: str) -> bool:
    if program not in small or program == "any" or program in NUMBERED:
        return False
    return re.search(rf"(?<![\w-]){re.escape(program)}(?![\w-])", small) is not None


def _by_number(outline: dict[str, Any], text: str) -> int | None:
    for kind, pattern in (
        (NumberedKind.STATUS, _STATUS),
        (NumberedKind.SIGNAL, _SIGNAL),
        (NumberedKind.ERROR, _ERROR),
    ):
        for match in pattern.finditer(text):
            said = next((one for one in match.groups() if one), "")
            if said in outline[kind]:
                return int(outline[kind][said])
    codes = [outline["codes"][one] for one in _CODE.findall(text) if one in outline["codes"]]
    return codes[0] if codes else None


def _outline() -> Any:
    return pack_line(FILE, 0)


def _fact(number: int) -> MessageFact:
    return MessageFact(**pack_line(FILE, number + 1))
