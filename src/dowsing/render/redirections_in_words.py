"""Where the output of a command goes, as an end to its clause."""

from __future__ import annotations

import re

from dowsing.commandline.grammar.sayings import Meaning
from dowsing.commandline.grammar.shell_words import Mark
from dowsing.commandline.model.mark_meanings import mark_meaning
from dowsing.render.clause_text import shown
from dowsing.render.phrases import words
from dowsing.render.told_clauses import Clause, Shape

_NOWHERE = "/dev/null"


def redirected(said: Clause, marks: list[Mark], source: str, is_elevated: bool = False) -> Clause:
    """A clause with its redirections. `source`: what it reads in the place of its input;
    `is_elevated`: it is done with other rights than the redirections.
    """
    thrown = next((n for n, mark in enumerate(marks) if _is_nowhere(mark)), len(marks))
    joined = [mark for mark in marks[thrown:] if _joins_errors(mark)]
    for mark in marks:
        if mark.code in (Meaning.HERE_TEXT, Meaning.HERE_END) or mark in joined:
            continue
        if said.shape is Shape.TESTS and mark.word is not None and mark.word.value == _NOWHERE:
            continue  # a condition shows nothing anyway
        if joined and _is_nowhere(mark):
            said = said.followed(", without showing anything")
        else:
            said = _with(said, mark, source, is_elevated)
    return said


def _is_nowhere(mark: Mark) -> bool:
    """Whether what a command prints is thrown away."""
    target = mark.word.value if mark.word is not None else ""
    return target == _NOWHERE and mark.operator in (">", "1>", ">>", "1>>")


def _joins_errors(mark: Mark) -> bool:
    """`2>&1`."""
    return mark.operator == "2>&" and mark.word is not None and mark.word.value == "1"


def _with(said: Clause, mark: Mark, source: str, is_elevated: bool) -> Clause:
    match = re.match(r"(\d*|&)(<<<|<<-?|<>|<&|<|>\||>>|>&|>)", mark.operator)
    target = shown(mark.word) if mark.word is not None else ""
    if not match:
        return said
    number, sign = match.groups()
    if mark.in_test:
        return said.followed(f" (and empties {target})" if sign == ">" else f" (reading {target})")
    if sign in ("<", "<<", "<<-", "<<<"):
        return said if said.has_source else said.followed(f", reading {source or target}")
    if sign in (">&", "<&"):
        return _to_stream(said, mark, number, target)
    if sign == "<>":
        return said.followed(f", with {target} open for reading and writing")
    if is_elevated and number in ("", "1") and target != _NOWHERE:
        verb = "adds" if sign == ">>" else "writes"
        return said.followed(f", and your own shell {verb} that to {target}")
    return _to_file(said, number, sign, target)


def _to_file(said: Clause, number: str, sign: str, target: str) -> Clause:
    if target == _NOWHERE:
        nothing = {"2": ", without its errors", "&": ", without showing anything"}
        return said.followed(nothing.get(number, ", without showing what it prints"))
    if number == "2":
        verb = "added to" if sign == ">>" else "written to"
        return said.followed(f", with its errors {verb} {target}")
    if number not in ("", "1", "&"):
        return said.followed(f", with stream {number} going to {target}")
    errors = ", errors too" if number == "&" else ""
    verb = "adds" if sign == ">>" else "writes"
    if not said.words or said.shape is Shape.NOTHING:
        made = f"empties {target}" if verb == "writes" else f"makes {target} if it is not there"
        return Clause(made)
    if said.shape is Shape.PRINTS and said.is_bare:
        return Clause(f"{verb} {said.text} to {target}{errors}")
    return said.followed(f", and {verb} that to {target}{errors}")


def _to_stream(said: Clause, mark: Mark, number: str, target: str) -> Clause:
    if number == "2" and target == "1":
        return said.followed(", errors too")
    if number in ("", "1") and target == "2":
        is_printed = said.shape is Shape.PRINTS
        return said.followed(" as an error" if is_printed else ", with its output among the errors")
    return said.followed(f", and {words(mark_meaning(mark))}")
