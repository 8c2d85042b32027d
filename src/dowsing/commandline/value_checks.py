"""Whether a value, or a spelling, can be right, and what may be meant."""

from __future__ import annotations

import re

from dowsing.commandline.sayings import ProblemCode
from dowsing.model.nearness import nearest_words
from dowsing.model.told import Told, told
from dowsing.model.value_kinds import ValueKind, kind_of_placeholder, value_kind

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Option

_TWO_VALUES = re.compile(r"<?([A-Za-z-]+)>?\s+<?([A-Za-z-]+)>?\Z")


def wrong_value(
    option: Option, kind: str, value: str, dynamic: bool
) -> tuple[Told | None, list[str]]:
    """Why a value cannot be right, and what may be meant."""
    if (
        dynamic
        or "$" in value
        or not value
        or value in ("-", "{}")
        or "{}" in value
        or value[0] == "<"
    ):
        return None, []
    if option.values and kind == ValueKind.CHOICE:
        parts = [part for part in value.split(",") if part]
        for part in parts:
            if _allowed(part, option):
                continue
            near = nearest_words(part, option.values)
            strict = bool(re.search(r"[|{]|\bWHEN\b", option.argument or ""))
            letters = len(part) == 1 and sum(len(value) == 1 for value in option.values) > 3
            if (near or strict or letters) and re.fullmatch(r"[A-Za-z][\w-]*", part):
                some = ", ".join(option.values[:6]) + (", …" if len(option.values) > 6 else "")
                return told(ProblemCode.NOT_ALLOWED, some), near
        return None, []
    from dowsing.machine.known_values import wrong_here

    reason = wrong_here(kind, value, option.text)
    return told(ProblemCode.WRONG_VALUE, told(reason)) if reason else None, []


def nearest_flags(flag: str, flags: list[str]) -> list[str]:
    """The spellings that are written like `flag`, the nearest first."""
    if len(flag) < 3:
        other = flag.swapcase()
        return [other] if other in flags else []
    long = [one for one in dict.fromkeys(flags) if len(one) > 2]
    close = nearest_words(flag, long)
    first_part = flag.rpartition("-")[0]
    if not close and len(first_part) > 3:  # `--colour-auto`: a value joined by a dash
        close = nearest_words(first_part, long)
    dashed = [
        one for one in (f"-{flag}", flag[1:] if flag.startswith("--") else "") if one in flags
    ]
    return list(dict.fromkeys([*dashed, *close]))[:3]


def kind_of(option: Option) -> ValueKind:
    """The kind of the value that an option takes."""
    return value_kind(option.argument or "", option.text, option.values)


def _allowed(part: str, option: Option) -> bool:
    """Whether a word is one of the values, or the text speaks of it."""
    values = option.values or []
    low = part.lower()
    return any(value.lower().startswith(low) for value in values) or bool(
        re.search(r"(?<![\w-])" + re.escape(part) + r"(?![\w-])", option.text, re.IGNORECASE)
    )


def may_take(option: Option) -> bool:
    """Whether the text lets a value be given though the tag shows none."""
    return bool(
        re.search(r"\b(?:set to|values?|argument|format|one of|specify|specified)\b|=", option.text)
    )


def takes_two(option: Option) -> bool:
    """Whether the placeholder stands for two values, as in `--arg name value`."""
    if not _TWO_VALUES.match(option.argument or ""):
        return False
    words = [
        word.split("-")[-1]
        for word in (option.argument or "").replace("<", "").replace(">", "").split()
    ]
    told = (
        "name",
        "value",
        "format",
        "string",
        "file",
        "key",
        "old",
        "new",
        "variable",
        "source",
        "destination",
    )
    return all(word in told or kind_of_placeholder(word) != ValueKind.TEXT for word in words)
