"""Whether a value, or a spelling, can be right, and what may be meant."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import ProblemCode
from dowsing.commandline.judging.certainty import has_slot
from dowsing.model.nearness import distance, nearest_words
from dowsing.model.told import Told, told
from dowsing.model.value_kinds import ValueKind, WrongValue, kind_of_placeholder

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.command import Spelling
    from dowsing.model.document import Option

#: What is filled in later, by the shell or by the command that carries this one.
_OPEN = ("$", "{}")
#: Texts that say what the value is, and not what the option does: `number of archives to keep`.
_NAMES_ITS_VALUE = (
    r"(?:an? |the )?(?:\w+ )?(?:number|name|path|file|folder|directory|program|filter|prefix|suffix"
    r"|size|date|time|list|pattern|address|host|port|user|group|url|level|mode|type|interval|id)\b"
)
_SHORT = 5  # letters of a word that may well be another one
_TWO_VALUES = re.compile(r"<?([A-Za-z-]+)>?\s+<?([A-Za-z-]+)>?\Z")


def wrong_value(spelling: Spelling, value: str, dynamic: bool) -> tuple[Told | None, list[str]]:
    """Why the value of an option cannot be right, and what may be meant."""
    if dynamic or not value or value == "-" or _is_open(value):
        return None, []
    if spelling.choices and spelling.kind == ValueKind.CHOICE:
        return _not_among(value, spelling)
    if spelling.fact is None and " " in (spelling.option.argument or ""):
        return None, []  # several values, of which this is one
    from dowsing.machine.known_values import wrong_here

    units = spelling.fact.units if spelling.fact is not None else ""
    if units and not re.fullmatch(rf"[-+]?\d+[{units}]?", value):
        return told(ProblemCode.WRONG_VALUE, told(WrongValue.NO_UNIT)), []
    reason = wrong_here(spelling.kind, value, spelling.option.text)
    return told(ProblemCode.WRONG_VALUE, told(reason)) if reason else None, []


def _is_open(value: str) -> bool:
    """Whether something else takes the place of a value, or of a part of it."""
    return any(mark in value for mark in _OPEN) or has_slot(value)


def _not_among(value: str, spelling: Spelling) -> tuple[Told | None, list[str]]:
    """Why a value is none of the words there are. What a page lists is taken to be all of them only
    where the word is spelled like one, or the placeholder itself is the list.
    """
    fact, choices = spelling.fact, spelling.choices
    if fact is not None:
        parts = value.split(fact.separator) if fact.separator else [value]
        wrong = [
            part
            for part in parts
            if part not in choices and (fact.closed or is_misspelled(part, choices))
        ]
        part = wrong[0] if wrong else ""
        return (_not_allowed(choices), nearest_words(part, choices)) if wrong else (None, [])
    if set(value) & set("/:="):  # more than a word of a list
        return None, []
    for part in [part for part in value.split(",") if part]:
        if _allowed(part, spelling.option):
            continue
        near = nearest_words(part, choices)
        strict = bool(re.search(r"[|{]|\bWHEN\b", spelling.option.argument or ""))
        letters = len(part) == 1 and sum(len(value) == 1 for value in choices) > 3
        if (near or strict or letters) and re.fullmatch(r"[A-Za-z][\w-]*", part):
            return _not_allowed(choices), near
    return None, []


def is_misspelled(word: str, choices: list[str]) -> bool:
    """Whether a word is so nearly one of those that are known that it must be meant, though there
    may be others: two letters that changed places, or one of a long word that is wrong.
    """
    for choice in choices:
        long = min(len(word), len(choice)) > _SHORT
        if sorted(word) == sorted(choice) or (long and distance(word, choice) == 1):
            return word != choice and not any(char.isdecimal() for char in word)
    return False


def _not_allowed(choices: list[str]) -> Told:
    some = ", ".join(choices[:6]) + (", …" if len(choices) > 6 else "")
    return told(ProblemCode.NOT_ALLOWED, some)


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


def _allowed(part: str, option: Option) -> bool:
    """Whether a word is one of the values, or the text speaks of it."""
    values = option.values or []
    low = part.lower()
    return any(value.lower().startswith(low) for value in values) or bool(
        re.search(r"(?<![\w-])" + re.escape(part) + r"(?![\w-])", option.text, re.IGNORECASE)
    )


def may_take(option: Option, value: str) -> bool:
    """Whether a value may be given though the tag shows none: the text lets it, or it is one that
    makers of command lines in general take for a switch.
    """
    if value in ("true", "false") or re.match(_NAMES_ITS_VALUE, option.text, re.IGNORECASE):
        return True
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
