"""Options as something to search by: which entries take an option, and what it says."""

from __future__ import annotations

import fnmatch

from dowsing.index.schema import COMMON_TEXT, HEADS, IN_OPTION, IS_FLAG
from dowsing.index.word_reader import options_of, postings, terms_like
from dowsing.knowledge.stems import stem, stems, words
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.index.store import Store

#: What it is worth that the flag itself has the word, and that only what is said of it has.
OF_FLAG, OF_TEXT = 10.0, 1.5
MOST_SHOWN = 2
MOST_ASKED = 12


class Taken(Record):
    """An option that an entry takes: its flags and the beginning of what is said of it."""

    flags: list[str]
    text: str


def takers(store: Store, asked: str) -> dict[int, float]:
    """The entries that take an option which `asked` (flags, patterns on flags, words) describes,
    with its worth.
    """
    found: dict[int, float] | None = None
    wanted = asked.split()[:MOST_ASKED]
    for one in wanted:
        worth: dict[int, float] = {}
        for term in _terms(store, one):
            for posting in postings(store, [term], COMMON_TEXT):
                if posting.part != HEADS:
                    for number, fields in zip(posting.entries, posting.fields, strict=True):
                        if fields & (IS_FLAG | IN_OPTION):
                            worth[number] = max(
                                worth.get(number, 0.0), OF_FLAG if fields & IS_FLAG else OF_TEXT
                            )
        found = (
            worth
            if found is None
            else {n: found[n] + worth[n] for n in found.keys() & worth.keys()}
        )
    if found and (
        len(wanted) > 1 or len(_words(wanted[0])) > 1
    ):  # all of them have to stand in one option
        taken = options_of(store, list(found))
        found = {
            n: worth
            for n, worth in found.items()
            if any(_has(option, wanted) for option in taken.get(n, ()))
        }
    return found or {}


def _terms(store: Store, asked: str) -> list[str]:
    pattern = _pattern(asked)
    if pattern:
        return terms_like(store, pattern)
    return [asked] if asked.startswith("-") else [stem(word) for word in _words(asked)]


def _pattern(asked: str) -> str:
    """The pattern on flags that is meant, "" if it is none."""
    if not any(sign in asked for sign in "*?["):
        return ""
    return asked if asked.startswith("-") else f"-*{asked.lstrip('*')}"


def _words(asked: str) -> list[str]:
    """The words that are meant; a flag or a pattern is none."""
    return [] if asked.startswith("-") or _pattern(asked) else words(asked)


def _has(option: tuple[list[str], str], wanted: list[str]) -> bool:
    flags, text = option
    said = {*stems(" ".join(flags)), *stems(text)}
    for one in wanted:
        pattern = _pattern(one)
        if pattern:
            if not any(fnmatch.fnmatchcase(flag, pattern) for flag in flags):
                return False
        elif one.startswith("-"):
            if one not in flags:
                return False
        elif not said.issuperset(stems(one)):
            return False
    return True


def options_taken(store: Store, numbers: list[int], asked: str) -> dict[int, list[Taken]]:
    """The options of each entry that `asked` describes, those whose flags have the words first."""
    wanted = asked.split()[:MOST_ASKED]
    terms = {term for one in wanted for term in stems(one)}
    found = {}
    for number, options in options_of(store, numbers).items():
        fitting = [option for option in options if _has(option, wanted)]
        fitting.sort(key=lambda option: not terms & set(stems(" ".join(option[0]))))
        found[number] = [Taken(*option) for option in fitting[:MOST_SHOWN]]
    return found
