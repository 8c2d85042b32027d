"""What command lines destroy, overwrite, change, stop, send or run, and what is known of programs
that may not simply be asked or run.

An act's `effect` (knowledge/commands/*.toml) has

    does     destroys, overwrites, changes, stops, sends, runs
    says     what it does; {words} stands for what it happens to as far as the line names it, else
             for `words`
    role     the role of the operands that it happens to; all operands without it
    when     options or subcommand words of which one must be there
    unless   options with which it is harmless; those that only show always are
    operand  a pattern that one of the operands must match, then only those are named
    value    the option whose value it happens to
    least    so many operands must be there (1)
    look     what to run instead, to see what would be done
"""

from __future__ import annotations

from enum import StrEnum
from functools import cache

from dowsing.knowledge.compiled import Part, part
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any


class EffectKind(StrEnum):
    """What is done, the worst first."""

    DESTROYS = "destroys"
    OVERWRITES = "overwrites"
    STOPS = "stops"
    CHANGES = "changes"
    RUNS = "runs"
    SENDS = "sends"


#: What a line must not do unless it is asked for.
HARMS = frozenset((EffectKind.DESTROYS, EffectKind.STOPS))
#: What is no longer there afterwards.
LOSES = frozenset((EffectKind.DESTROYS, EffectKind.OVERWRITES))


class Interpreter(Record):
    """How a program that runs programs is told what to run (`interpreter` of a command). `code`:
    letters of options by which it stands in the line or is named otherwise, `long` the long ones;
    `checks`: those with which nothing is run; `reads`: those with which it is read from the input
    whatever else stands in the line; `ends`: behind `--` there is no name of a program.
    """

    code: str
    checks: str = ""
    reads: str = ""
    ends: bool = False
    long: list[str] = []  # noqa: RUF012 - a record is immutable


class Saving(Record):
    """How a program that fetches saves what it got (`saves` of a command). `named`: the options
    whose value names the file; with one of the `letters` or of the long ones of `kept` it has the
    name that it has there, `always` if no other is given.
    """

    named: list[str]
    letters: str = ""
    kept: list[str] = []  # noqa: RUF012 - a record is immutable
    always: bool = False


class EffectFact(Record):
    """The effect of an act: see the head of this module."""

    does: EffectKind
    says: str
    role: str = ""
    when: list[str] = []  # noqa: RUF012 - a record is immutable
    unless: list[str] = []  # noqa: RUF012
    operand: str = ""
    value: str = ""
    least: int = 1
    look: str = ""


class ProgramEffect(Record):
    """What a program given on the line does if the `pattern` is found in its text, what stands in
    quotes left out where `outside_quotes` (commands/programs.toml).
    """

    pattern: str
    does: EffectKind
    says: str
    outside_quotes: bool = False


def program_effects(language: str) -> list[ProgramEffect]:
    """What programs of a language may do, in the order in which it counts."""
    rows = _names()["programs"].get(language, [])
    return [ProgramEffect(**{**row, "does": EffectKind(row["does"])}) for row in rows]


def effect_fact(row: dict[str, Any]) -> EffectFact:
    """The effect that a table tells. Raises TypeError and ValueError for what is not of the
    format.
    """
    return EffectFact(**{**row, "does": EffectKind(row["does"])})


@cache
def _names() -> dict[str, Any]:
    found: dict[str, Any] = part(Part.NAMES)
    return found


def interpreter(name: str) -> Interpreter | None:
    """How a program of that name, its version left out, is told what to run; None if it runs no
    programs.
    """
    row = _names()["interpreters"].get(name)
    return Interpreter(**row) if row else None


def saving_of(name: str) -> Saving:
    """How a program of that name saves what it fetches."""
    return Saving(**_names()["saves"].get(name, {"named": []}))


def reason_never_asked(name: str) -> str:
    """Why a program of that name is never asked for its usage, for its slip cannot be undone; "" if
    it may be.
    """
    never: dict[str, str] = _names()["never_asked"]
    if name in never:
        return never[name]
    starred = (key for key in never if key.endswith("*") and name.startswith(key[:-1]))
    return next((never[key] for key in starred), "")


def asked_with(name: str) -> str:
    """The word that asks a program of that name for its usage."""
    word: str = _names()["asked_with"].get(name, "--help")
    return word


def part_asked_with(name: str) -> str:
    """The word that asks a subcommand of that program for its usage."""
    word: str = _names()["parts_asked_with"].get(name, asked_with(name))
    return word if word.startswith("-") else "--help"
