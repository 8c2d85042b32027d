"""Names as people write them: `tar`, `printf(3)`, `printf.3`, `git commit`."""

from __future__ import annotations

import re

from dowsing.model.record import Record

_WITH_SECTION = r"(.+?)\s*\(([0-9a-zA-Z][0-9a-zA-Z+_-]*)\)"
_DOTTED = r"(.+)\.([0-9][a-zA-Z0-9]*|[nlo])"
_SECTION = r"[0-9][a-zA-Z]*|n|l|builtin"

#: Sections in the order in which a person at a prompt means them.
SECTION_ORDER = ("1", "8", "6", "builtin", "n", "l", "2", "3", "5", "7", "4", "9")

#: Beginnings of the sections whose names are typed at a prompt; builtins and commands without a
#: page are among them.
_TYPED = ("1", "6", "8", "b", "")


class Name(Record):
    """A name to look for; `section` is "" where none was said. Variants are tried in order."""

    text: str
    section: str = ""

    @property
    def label(self) -> str:
        """As it is shown: `printf(3)`."""
        return f"{self.text}({self.section})" if self.section else self.text


def is_typed(section: str) -> bool:
    """Whether names of a section are typed at a prompt."""
    return section[:1] in _TYPED


def spoken(name: str) -> str:
    """The name of a subcommand as it is typed: `git commit` for `git-commit`."""
    return name.replace("-", " ", 1)


def section_rank(section: str) -> tuple[int, str]:
    """Sorts sections by what a person at a prompt means first; suffixed ones after their
    section.
    """
    base = section if section in SECTION_ORDER else section[:1]
    place = SECTION_ORDER.index(base) if base in SECTION_ORDER else len(SECTION_ORDER)
    return place, section[len(base) :]


def readings(words: list[str]) -> list[Name]:
    """The ways to take what was written as a name, the likeliest first.

    `printf(3)` and `3 printf` say their section; `printf.3` may, if no name has the dot in it;
    several words are a command and its subcommands, whose pages are named with `-` or `_` between
    them.
    """
    words = [word.strip() for word in words if word.strip()]
    text = " ".join(" ".join(words).split())
    if not text:
        return []
    found: list[Name] = []
    parts = text.split(" ")
    if len(parts) > 1 and re.fullmatch(_SECTION, parts[0]):
        found += _spellings(parts[1:], parts[0])
    match = re.fullmatch(_WITH_SECTION, text)
    if match:
        found += _spellings(match[1].split(" "), match[2])
    else:
        found += _spellings(parts, "")
        dotted = re.fullmatch(_DOTTED, text)
        if dotted:
            found += _spellings(dotted[1].split(" "), dotted[2])
    return found


def _spellings(parts: list[str], section: str) -> list[Name]:
    spelled = [" ".join(parts)]
    if len(parts) > 1:
        spelled += ["-".join(parts), "_".join(parts), "".join(parts)]
    return [Name(text, section) for text in spelled]


def is_plausible(text: str) -> bool:
    """Whether the text can be a name at all: not empty, no control characters, no path, not too
    long.
    """
    return bool(text.strip()) and len(text) <= 255 and text.isprintable() and "/" not in text
