"""What can come of asking a program for its usage."""

from __future__ import annotations

from enum import StrEnum


class UsageKind(StrEnum):
    """What came of it."""

    USAGE = "usage"
    ECHO = "echo"  # what it was given, printed again
    ERROR = "error"
    EFFECT = "effect"  # it did something else
    NOTHING = "nothing"
    REFUSED = "refused"  # it is not asked
    TROUBLE = "trouble"  # it was ended
    START = "start"  # it did not even start
