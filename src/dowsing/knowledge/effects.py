"""What command lines destroy, overwrite, change, stop, send or run: effects.toml, whose head tells
the format.
"""

from __future__ import annotations

from enum import StrEnum
from functools import cache

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


class Interpreter(Record):
    """How a program that runs programs is told what to run (interpreters.json). `code`: letters of
    options by which it stands in the line or is named otherwise, `long` the long ones; `checks`:
    those with which nothing is run; `reads`: those with which it is read from the input whatever
    else stands in the line; `ends`: behind `--` there is no name of a program.
    """

    code: str
    checks: str = ""
    reads: str = ""
    ends: bool = False
    long: list[str] = []  # noqa: RUF012 - a record is immutable


class EffectFact(Record):
    """A row of effects.toml; the head of that file tells its fields."""

    does: EffectKind
    says: str
    role: str = ""
    when: list[str] = []  # noqa: RUF012 - a record is immutable
    unless: list[str] = []  # noqa: RUF012
    operand: str = ""
    value: str = ""
    least: int = 1
    look: str = ""


def read_effects() -> dict[str, Any]:
    """The tables of effects.toml."""
    import os
    import tomllib

    path = os.path.join(os.path.dirname(__file__), "commands", "effects.toml")
    with open(path, "rb") as file:
        return tomllib.load(file)


def _read_json(name: str) -> dict[str, Any]:
    """A file of names in JSON, which is read quicker than TOML: a card looks into it."""
    import json
    import os

    path = os.path.join(os.path.dirname(__file__), "commands", name)
    with open(path, encoding="utf-8") as file:
        found: dict[str, Any] = json.load(file)
    return found


@cache
def _never_asked() -> dict[str, list[str]]:
    """Reasons with the programs that are never asked for their usage, for their slip cannot be
    undone.
    """
    return _read_json("never_asked.json")


@cache
def _asked_with() -> dict[str, str]:
    """The word that asks for usage, for the programs that have another than --help."""
    found = _read_json("asked_with.json")
    return {name: word for word, names in found.items() for name in names}


@cache
def _interpreters() -> dict[str, Interpreter]:
    found = _read_json("interpreters.json")
    return {name: Interpreter(**row) for names, row in found.items() for name in names.split()}


def interpreter(name: str) -> Interpreter | None:
    """How a program of that name, its version left out, is told what to run; None if it runs no
    programs.
    """
    return _interpreters().get(name)


def effect_facts(rows: list[dict[str, Any]]) -> list[EffectFact]:
    """The facts that rows tell. Raises TypeError and ValueError for what is not of the format."""
    return [EffectFact(**{**row, "does": EffectKind(row["does"])}) for row in rows]


def matching(table: dict[str, Any], words: str) -> list[EffectFact]:
    """The facts of a command by its words; those of names that end in `*` where there are none of
    its own.
    """
    rows = table.get(words)
    if rows is None:
        stars = [key for key in table if key.endswith("*") and words.startswith(key[:-1])]
        rows = table[max(stars, key=len)] if stars else []
    return effect_facts(rows)


def reason_never_asked(name: str) -> str:
    """Why a program of that name is never asked for its usage; "" if it may be."""
    for reason, names in _never_asked().items():
        for pattern in names:
            if name == pattern or (pattern.endswith("*") and name.startswith(pattern[:-1])):
                return reason
    return ""


def asked_with(name: str) -> str:
    """The word that asks a program of that name for its usage."""
    return _asked_with().get(name, "--help")
