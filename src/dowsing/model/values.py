"""What an option or an operand takes, beyond what its placeholder tells: see Value."""

from __future__ import annotations

from enum import StrEnum

from dowsing.model.record import Record
from dowsing.model.value_kinds import ValueKind


class OperandRole(StrEnum):
    """What a command does with an operand."""

    SOURCE = "source"
    TARGET = "target"
    SUBJECT = "subject"  # what it works on
    PATTERN = "pattern"
    PROGRAM = "program"  # a program in a language of the command: sed, awk, jq
    COMMAND = "command"
    HOST = "host"
    PROCESS = "process"
    UNIT = "unit"
    PACKAGE = "package"
    REVISION = "revision"
    BRANCH = "branch"
    REMOTE = "remote"
    CONTAINER = "container"
    IMAGE = "image"
    VOLUME = "volume"
    DATABASE = "database"
    USER = "user"
    GROUP = "group"
    MODE = "mode"
    NAME = "name"
    TEXT = "text"
    FILTER = "filter"


class Value(Record):
    """A value. `kind`: what it may be. `choices`: the words there are, [] if any will do; `closed`:
    there are no others. `separator` parts several choices in one value, "" if there is only one.
    `optional`: it may be left out. `placeholder`: what to call it, "" where the page's own will do.
    `again`: it may be given again.
    `units`: the letters that may follow the number of a size, "" for the usual ones. `loose`: it
    may be left out although it would be the next word.
    """

    kind: ValueKind = ValueKind.TEXT
    choices: list[str] = []  # noqa: RUF012 - a record is immutable
    closed: bool = False
    separator: str = ""
    optional: bool = False
    placeholder: str = ""
    again: bool = False
    units: str = ""
    loose: bool = False
