"""Where the output of a command goes, as an end to its clause."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Meaning
from dowsing.commandline.grammar.shell_words import Mark
from dowsing.commandline.reading.line_reader import meaning_of
from dowsing.render.clause_text import shown
from dowsing.render.phrases import words

_NOWHERE = "/dev/null"
_IN = ("<", "<<", "<<<")


def redirected(said: str, marks: list[Mark], source: str) -> str:
    """A clause with its redirections; what it reads is told in it already if it has `source` in
    it.
    """
    for mark in marks:
        if mark.code in (Meaning.HERE_TEXT, Meaning.HERE_END):
            continue
        said = _with(said, mark, source)
    return said


def _with(said: str, mark: Mark, source: str) -> str:
    match = re.match(r"(\d*|&)(<<<|<<-?|<>|<&|<|>\||>>|>&|>)", mark.operator)
    target = shown(mark.word) if mark.word is not None else ""
    if not match:
        return said
    number, sign = match.groups()
    if mark.in_test:
        return f"{said} (and empties {target})" if sign == ">" else f"{said} (reading {target})"
    if sign in ("<", "<<", "<<-", "<<<"):
        return said if source and source in said else f"{said}, reading {source or target}"
    if sign in (">&", "<&"):
        return _to_stream(said, mark, number, target)
    if sign == "<>":
        return f"{said}, with {target} open for reading and writing"
    return _to_file(said, number, sign, target)


def _to_file(said: str, number: str, sign: str, target: str) -> str:
    if target == _NOWHERE:
        return said + {
            "2": ", without its errors",
            "&": ", without showing anything",
        }.get(number, ", without showing what it prints")
    if number == "2":
        verb = "added to" if sign == ">>" else "written to"
        return f"{said}, with its errors {verb} {target}"
    if number not in ("", "1", "&"):
        return f"{said}, with stream {number} going to {target}"
    errors = ", errors too" if number == "&" else ""
    verb = "adds" if sign == ">>" else "writes"
    if not said:
        return f"empties {target}" if verb == "writes" else f"makes {target} if it is not there"
    if said.startswith("prints ") and ", " not in said:
        return f"{verb} {said.removeprefix('prints ')} to {target}{errors}"
    return f"{said}, and {verb} that to {target}{errors}"


def _to_stream(said: str, mark: Mark, number: str, target: str) -> str:
    if number == "2" and target == "1":
        if said.endswith(", without showing what it prints"):
            return said.replace(", without showing what it prints", ", without showing anything")
        return f"{said}, errors too"
    if number in ("", "1") and target == "2":
        if said.startswith("prints "):
            return f"{said} as an error"
        return f"{said}, with its output among the errors"
    return f"{said}, and {words(meaning_of(mark))}"
