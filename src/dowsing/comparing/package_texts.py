"""Whether the texts of a package name a command: only then are they documentation of it."""

from __future__ import annotations

import functools
import re

from dowsing.comparing.said import Said
from dowsing.model.document import document_text
from dowsing.model.errors import Unreadable
from dowsing.sources import catalogue
from dowsing.sources.source import Availability, Subject

_LEAST_LETTERS = 3
_OPEN, _CLOSE = "[`'‘“\"]", "['`’”\"]"
_KINDS = "builtin|built-in|command|utility|program|keyword|reserved word"


def package_names(subject: Subject, held: Availability) -> bool:
    """Whether the package's texts name the command: in quotes, as `name(1)`, as “the name command”;
    a name that is no ordinary word also without.
    """
    said = _said(subject, held)
    return said is not None and names(said, subject.name)


def names(said: Said, name: str) -> bool:
    """Whether a text names a command, and does not merely use its name as a word."""
    if not said.has_name(name):
        return False
    if re.fullmatch(r"\w+", name) and len(name) >= _LEAST_LETTERS and not _is_ordinary(name):
        return True
    one = re.escape(name)
    return (
        re.search(
            rf"{_OPEN}{one}(?:\s[^'`’”\"\n]{{0,60}})?{_CLOSE}|(?<![\w-]){one}\([1-8]\)"
            rf"|\b[Tt]he {one} (?:{_KINDS})\b",
            said.text,
        )
        is not None
    )


@functools.cache
def _ordinary() -> frozenset[str]:
    from dowsing.knowledge.recipe_terms import words_of_language
    from dowsing.knowledge.stems import EMPTY

    return words_of_language() | EMPTY | {"then", "true", "false", "builtin"}


def _is_ordinary(name: str) -> bool:
    return name.casefold() in _ordinary()


def _said(subject: Subject, held: Availability) -> Said | None:
    """The words of the package's texts, kept for the next name that is of it."""
    kept: dict[str, Said | None] = subject.store.memory.setdefault("texts of packages", {})
    if held.path not in kept:
        try:
            kept[held.path] = Said(document_text(catalogue.read(subject, held).sections))
        except Unreadable:
            kept[held.path] = None
    return kept[held.path]
