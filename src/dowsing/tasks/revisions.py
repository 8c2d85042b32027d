"""What is said again about a task: most of it changes or adds something; some takes back what was
said before, refuses the line that came of it or its tool, or leaves a value open.
"""

from __future__ import annotations

import re
from enum import StrEnum

from dowsing.model.record import Record
from dowsing.tasks.patterns import Pattern

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.values import Value

_LEAD = r"^\s*(?:no|nope|oh|ah|hm+|ok|okay|sorry|please|well)?[,.! ]*"
_TAIL = r"(?: (?:please|again|then|now|after all))?\s*[.!]*\s*$"
_TAKES_BACK = Pattern(
    _LEAD + r"(?:undo(?: (?:that|it|this|the last (?:one|change|thing)))?"
    r"|(?:take|put) (?:that|it|this) back|forget (?:that|it|the last one)|never ?mind(?: that)?"
    r"|(?:back )?(?:as|like) (?:it was )?before|go back|revert(?: that| it)?)" + _TAIL
)
_NOT_THAT = Pattern(
    _LEAD
    + r"(?:not (?:that|this)(?: (?:one|line|command))?|(?:that|this)(?: is|['’]s) (?:not (?:it"
    r"|right|what i (?:meant?|want(?:ed)?))|wrong)|(?:that|this|it) isn['’]t (?:it|right)|wrong"
    r"(?: one)?|something else|another (?:one|way|line)|(?:the )?next(?: one)?"
    r"|i meant? something else|no)" + _TAIL
)
_OTHER_TOOL = Pattern(
    _LEAD + r"(?:(?:with|by|using|use|try) )?(?:the other|another|a different|some other)"
    r" (?:tool|command|program|utility)" + _TAIL
)
#: What begins a correction and says nothing of it.
_WORDS = r"(?:no|nope|oh|ah|sorry|actually|wait|stop|hm+|h[ao](?:ng|ld) on)"
_INTERJECTION = re.compile(rf"^\s*(?:{_WORDS}[,.!:]?\s+){{0,3}}{_WORDS}[,.!:]\s+", re.IGNORECASE)
_ANOTHER = Pattern(
    r"\b(?:another|a different|some other|not that) (port|folder|directory|file|user|host|machine"
    r"|server|name|date|time|size)\b"
)


class StepKind(StrEnum):
    """What a revision does: it says something, refuses the line that came first, or its tool."""

    SAYS = "says"
    NOT_THAT = "not that"
    OTHER_TOOL = "other tool"


class Step(Record):
    """A revision that holds."""

    kind: StepKind
    text: str


def steps_of(again: list[str]) -> list[Step]:
    """The revisions that hold, in their order: those that were taken back are gone."""
    found: list[Step] = []
    for text in again:
        if _TAKES_BACK.match(text):
            found = found[:-1]
        elif _OTHER_TOOL.match(text):
            found.append(Step(StepKind.OTHER_TOOL, text))
        elif _NOT_THAT.match(text):
            found.append(Step(StepKind.NOT_THAT, text))
        else:
            found.append(Step(StepKind.SAYS, _INTERJECTION.sub("", text)))
    return found


def left_open(text: str) -> list[str]:
    """The nouns of what is to be another one, which is not said: `on another port`."""
    return [match[1].lower() for match in _ANOTHER.finditer(text)]


#: What tells that a value is one of a noun: its kinds, and words beside it.
_KINDS_OF = {
    "port": ((), ("port",)),
    "folder": (("path",), ("folder", "directory")),
    "directory": (("path",), ("folder", "directory")),
    "file": (("file",), ("file",)),
    "user": ((), ("user", "as")),
    "host": (("host", "remote"), ("host", "machine", "server")),
    "machine": (("host", "remote"), ("host", "machine", "server")),
    "server": (("host", "remote"), ("host", "machine", "server")),
    "name": ((), ("named", "called", "name", "as")),
    "date": (("date",), ()),
    "time": (("time",), ()),
    "size": (("size",), ()),
}


def is_one_of(value: Value, noun: str) -> bool:
    """Whether a value is what a noun says."""
    kinds, words = _KINDS_OF[noun]
    return value.kind in kinds or value.noun in words or value.before in words or value.unit == noun
