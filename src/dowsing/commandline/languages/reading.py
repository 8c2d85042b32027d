"""What a value in a small language of its own says, read by one of the modules beside this one."""

from __future__ import annotations

from dowsing.model.record import Record
from dowsing.model.told import Code, Told, told


class Part(Record):
    """A part of a value: its text as it stands, and what it does; "" where it only parts others.
    `inside` are the parts of a part that is written in another language again.
    """

    text: str
    says: str = ""
    inside: list[Part] = []  # noqa: RUF012 - a record is immutable


class LanguageFault(Code):
    """What keeps a value from being read."""

    NOT_CLOSED = "not closed"  # the bracket or quote
    CLOSES_NOTHING = "closes nothing"  # the bracket
    PART_MISSING = "part missing"  # command, the sign that parts it
    UNKNOWN_FLAG = "unknown flag"  # flag, command
    UNKNOWN_COMMAND = "unknown command"  # the letter
    ENDS_IN_BACKSLASH = "ends in backslash"
    NO_SORT_KEY = "no sort key"
    NO_SUCH_LABEL = "no such label"  # the label


class Fault(Record):
    """Where in a value, in characters, its reader stops, and why."""

    start: int
    end: int
    reason: Told


class Reading(Record):
    """A value that was read. The texts of its parts, put together, are the value; [] if nothing is
    to be said of them. `says` is the whole in a phrase, "" if the parts say it, `contrary` what is
    so where that is not; `fault` is what is wrong with it, None if nothing is.
    """

    parts: list[Part] = []  # noqa: RUF012 - a record is immutable
    says: str = ""
    fault: Fault | None = None
    contrary: str = ""

    @property
    def rows(self) -> list[tuple[str, str]]:
        """The parts that say something, with those inside them after them."""
        return _rows(self.parts)


#: Of a value that is not written in the language, or too plain to need it.
NOTHING = Reading()


def _rows(parts: list[Part]) -> list[tuple[str, str]]:
    found: list[tuple[str, str]] = []
    for part in parts:
        if part.says:
            found.append((part.text, part.says))
        found += _rows(part.inside)
    return found


def fault(start: int, end: int, code: LanguageFault, *arguments: str) -> Fault:
    """A fault at a place."""
    return Fault(start, end, told(code, *arguments))


class Cutter:
    """Cuts a value into parts from its beginning to its end, so that none of it is lost."""

    def __init__(self, value: str) -> None:
        self.value = value
        self.at = 0
        self.parts: list[Part] = []

    def cut(self, end: int, says: str = "", inside: list[Part] | None = None) -> None:
        """The next part, up to `end`; what says nothing goes with what said nothing before it."""
        text = self.value[self.at : end]
        self.at = max(end, self.at)
        if not text:
            return
        last = self.parts[-1] if self.parts else None
        if not says and not inside and last is not None and not last.says and not last.inside:
            self.parts[-1] = Part(last.text + text)
        else:
            self.parts.append(Part(text, says, inside or []))

    def finish(self, says: str = "", fault: Fault | None = None) -> Reading:
        """All of it; nothing if no part says anything."""
        self.cut(len(self.value))
        told_any = any(part.says or part.inside for part in self.parts)
        if not told_any and not says and fault is None:
            return NOTHING
        return Reading(self.parts if told_any else [], says, fault)


def listed(words: list[str], joint: str = "and") -> str:
    """Words in a row: `a, b and c`."""
    if len(words) < 2:
        return "".join(words)
    return f"{', '.join(words[:-1])} {joint} {words[-1]}"


def counted(number: str, noun: str) -> str:
    """`1 day`, `3 days`."""
    return f"{number} {noun}" if number == "1" else f"{number} {noun}s"


_ORDINALS = (
    "zeroth",
    "first",
    "second",
    "third",
    "fourth",
    "fifth",
    "sixth",
    "seventh",
    "eighth",
    "ninth",
)


def ordinal(number: str) -> str:
    """`second`, `11th`."""
    n = int(number)
    if n < len(_ORDINALS):
        return _ORDINALS[n]
    ending = "th" if n // 10 % 10 == 1 else {1: "st", 2: "nd", 3: "rd"}.get(n % 10, "th")
    return f"{n}{ending}"
