"""The option table of a name, and the options in it that words are about."""

from __future__ import annotations

import os
import re

from dowsing.facts.command_table import form_options
from dowsing.knowledge.stems import stems
from dowsing.model.plainfile import plain_only
from dowsing.model.record import Record
from dowsing.model.source_name import SourceName

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.document import Document, Option

#: How pages spell an option that stands for any number.
_ANY_NUMBER = ("-#", "-NUM", "-<n>", "-number", "-NUMBER", "-<number>")
MOST_READ = 8_000_000  # bytes of a program that are looked through


class Listed(Record):
    """An option as `options` answers it; `abbreviation` is the shortest that its long spelling may
    be cut to.
    """

    flags: list[str]
    argument: str | None
    argument_optional: bool
    text: str
    section: str
    default: str | None
    values: list[str] | None
    repeatable: bool
    bare: list[str] = []  # noqa: RUF012 - a record is immutable
    assumed: str | None = None
    written: list[str] = []  # noqa: RUF012
    abbreviation: str | None = None


class Options(Record):
    """The options of a name: those asked for, and how many there are in all."""

    name: str
    section: str
    page: str
    options: list[Listed]
    total: int


def options_in(document: Document) -> list[Option]:
    """The options of a document, those that only its forms show after the others."""
    options = document.options
    return (
        options + form_options(document, options)
        if document.source == SourceName.MANUAL
        else options
    )


def option_table(
    name: str,
    section: str,
    page: str,
    options: list[Option],
    asked: list[str],
    executable: str = "",
) -> Options:
    """The options that `asked` is about: a spelling, or words of their texts; all without any.

    `executable` is the program's file, which tells whether long options may be shortened.
    """
    shortest = shortest_abbreviations(options) if executable and shortens(executable) else {}
    spoken = [one for word in asked for one in _apart(word, options)]
    found = [option for option in options if _is_asked(option, spoken)]
    if asked and not any(word.startswith("-") for word in asked):
        found += [option for option in _by_words(options, asked) if option not in found]
    listed = [
        Listed(
            **option.__dict__,
            abbreviation=next((shortest[flag] for flag in option.flags if flag in shortest), None),
        )
        for option in found
    ]
    return Options(name, section, page, listed, len(options))


def _apart(word: str, options: list[Option]) -> list[str]:
    """The spellings that a word stands for: letters in one word each for itself, a number for the
    option that takes any.
    """
    flags = {flag for option in options for flag in option.flags}
    if word in flags or not re.fullmatch(r"-\w+", word):
        return [word]
    if word[1:].isdecimal():
        return [flag for flag in _ANY_NUMBER if flag in flags] or [word]
    letters = ["-" + letter for letter in word[1:]]
    return letters if all(letter in flags for letter in letters) else [word]


def _is_asked(option: Option, asked: list[str]) -> bool:
    """Whether one of the words is a spelling of the option, as it is or with its dashes left
    out.
    """
    if not asked:
        return True
    bare = {flag.lstrip("-") for flag in option.flags}
    return any(
        word in option.flags
        or (len(word) > 1 and word.lstrip("-") in bare)
        or (
            word.startswith("--")
            and len(word) > 3
            and any(flag.startswith(word) for flag in option.flags)
        )
        for word in asked
    )


def _by_words(options: list[Option], asked: list[str]) -> list[Option]:
    """The options with all the words in their flags or texts; those with them in the flags
    first.
    """
    wanted = stems(" ".join(asked))
    if not wanted:
        return []
    found: list[tuple[int, Option]] = []
    for option in options:
        in_flags = set(stems(" ".join(option.flags).replace("-", " ")))
        in_text = set(
            stems(f"{option.text} {option.argument or ''} {' '.join(option.values or [])}")
        )
        if all(term in in_flags or term in in_text for term in wanted):
            found.append((sum(term not in in_flags for term in wanted), option))
    return [option for _, option in sorted(found, key=lambda pair: pair[0])]


def shortest_abbreviations(options: list[Option]) -> dict[str, str]:
    """Long option -> the shortest beginning that no other option has, where that is shorter."""
    owner = {
        flag: n
        for n, option in enumerate(options)
        for flag in option.flags
        if flag.startswith("--")
    }
    found: dict[str, str] = {}
    for flag, number in owner.items():
        for size in range(3, len(flag)):
            if all(owner[other] == number for other in owner if other.startswith(flag[:size])):
                found[flag] = flag[:size]
                break
    return found


def shortens(path: str) -> bool:
    """Whether a program takes shortened long options: it calls getopt_long or argp of the C
    library.
    """
    try:
        with open(os.path.realpath(path), "rb", opener=plain_only) as file:
            data = file.read(MOST_READ)
    except OSError:
        return False
    return data.startswith(b"\x7fELF") and bool(
        re.search(rb"\x00(?:getopt_long|argp_parse)\x00", data)
    )
