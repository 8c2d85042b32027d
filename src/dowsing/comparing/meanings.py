"""Whether two texts mean the same by an option: its meaning, its argument, its default."""

from __future__ import annotations

import re

from dowsing.knowledge.stems import telling_stems
from dowsing.model.document import Option

#: So many telling words must each text have before their meanings are set against each other.
LEAST_WORDS = 2
_LEAST_LETTERS = 4
_REFERS = re.compile(
    r"\b(?:synonym|same as|like|equivalent|alias|as if|implies|see|opposite|reverse|also"
    r"|default)\b",
    re.IGNORECASE,
)
_VALUE = re.compile(r"[\w.:/%+-]+\Z")


def contradicting(options: dict[str, Option]) -> list[str]:
    """The sources of two texts that mean two things by one letter, [] if none do.

    Two long spellings without a part in common say so, if what is told of them has no word in
    common either.
    """
    sources = [source for source, option in options.items() if option.text]
    for n, one in enumerate(sources):
        for other in sources[n + 1 :]:
            if _opposed(options[one], options[other]):
                return [one, other]
    return []


def _opposed(one: Option, other: Option) -> bool:
    first, second = _long(one), _long(other)
    if not first or not second or first & second:
        return False
    if _REFERS.search(one.text) or _REFERS.search(other.text):
        return False
    mine, yours = _words(one, first), _words(other, second)
    if min(len(mine), len(yours)) < LEAST_WORDS:
        return False
    return not any(_near(word, theirs) for word in mine for theirs in yours)


def _long(option: Option) -> set[str]:
    return {flag.split("=")[0].split("[")[0] for flag in option.flags if flag.startswith("--")}


def _words(option: Option, spelled: set[str]) -> set[str]:
    return set(telling_stems(option.text)) | set(telling_stems(" ".join(spelled).replace("-", " ")))


def _near(one: str, other: str) -> bool:
    """One stem within the other (`link`, `symlink`), or the same beginning."""
    if one == other:
        return True
    shorter = min(len(one), len(other))
    if shorter < _LEAST_LETTERS:
        return False
    return one in other or other in one or one[:_LEAST_LETTERS] == other[:_LEAST_LETTERS]


def gives_value(option: Option, flag: str) -> bool:
    """Whether the option's own tag writes this spelling with a value."""
    if not option.written:
        return option.argument is not None and len(option.flags) == 1
    return any(
        written != flag and re.match(rf"{re.escape(flag)}(?:[=\[<{{ ]|\w)", written)
        for written in option.written
    )


def takes_value(text: str, flag: str) -> bool:
    """Whether the text anywhere writes the flag with a value: `--x=Y`, `-xY`, `-x <y>`, `-x N`."""
    joined = r"\w|" if not flag.startswith("--") else ""
    return (
        re.search(
            rf"(?<![\w-]){re.escape(flag)}(?:{joined}[=\[<]| ?[\[<{{]| [A-Z]+\b| \w+\]|=)", text
        )
        is not None
    )


def may_take_value(text: str, flag: str) -> bool:
    """Whether the text anywhere has a word right behind the flag that may be its value."""
    if takes_value(text, flag):
        return True
    return re.search(rf"(?<![\w-]){re.escape(flag)} \w", text) is not None


def default_values(options: dict[str, Option]) -> dict[str, str]:
    """The default that each text gives, by source, where two plainly differ; else {}."""
    values = {
        source: option.default.strip(" .'\"`‘’“”")
        for source, option in options.items()
        if option.default
    }
    told = {source: value for source, value in values.items() if _VALUE.match(value)}
    if len({_same(value) for value in told.values()}) < len("ab"):
        return {}
    texts = {source: options[source].text.casefold() for source in told}
    for value in told.values():
        others = [text for one, text in texts.items() if _same(told[one]) != _same(value)]
        if any(re.search(rf"(?<![\w.]){re.escape(value.casefold())}\b", text) for text in others):
            return {}  # the other text knows that value too, in other words
    return told


def _same(value: str) -> str:
    try:
        return str(float(value))
    except ValueError:
        return value.casefold()
