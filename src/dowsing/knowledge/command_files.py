"""Reads and checks what we know of commands: knowledge/commands/<command>.toml, a table for each
command and subcommand in it with the keys of command_facts.py and conventions.py, and `[[recipe]]`
blocks (recipes.py); <command>.wordings and <command>.asks beside it; classes.toml with what several
commands share.

A class is a table of the same keys. A command that names it in `is` has what the class has, unless
it says otherwise; `members` are names of programs of that class of which nothing else is known,
`pm-*` for all that begin so.
"""

from __future__ import annotations

import os
import tomllib

from dowsing.knowledge.act_checks import faults_of_acts
from dowsing.knowledge.asks import faults_of_asks
from dowsing.knowledge.command_classes import CommandClass
from dowsing.knowledge.command_facts import KEYS, facts_of
from dowsing.knowledge.conventions import BY_COMMAND, assembled
from dowsing.knowledge.recipes import make_recipe
from dowsing.knowledge.wordings import parse_wordings
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any

CLASSES = "classes.toml"
#: What programs given on the line do, by their language.
PROGRAMS = "programs.toml"
_RECIPE = "recipe"
_MEMBERS = "members"
#: Keys for programs that are asked or run, and the tables by their name alone that these make.
_OF_NAMES = {
    "never_asked": "never_asked",
    "asked_with": "asked_with",
    "parts_asked_with": "parts_asked_with",
    "interpreter": "interpreters",
    "saves": "saves",
}
_ALL = KEYS | BY_COMMAND | {"is", *_OF_NAMES}


class CommandFiles(Record):
    """All files: `rows` the tables of commands by their words, what their classes have put in;
    `recipes` the blocks, each with the file it is `where`; `wordings` by the line of their recipe;
    `asks` what is added to lines, by command; `programs` what is looked for in those given on the
    line; `faults` what is wrong, a text each.
    """

    rows: dict[str, dict[str, Any]]
    recipes: list[dict[str, Any]]
    wordings: dict[str, list[str]]
    asks: dict[str, Any]
    programs: dict[str, Any]
    faults: list[str]

    def facts(self) -> dict[str, dict[str, Any]]:
        """What facts are made of, by the words of commands."""
        found = {
            words: {key: value for key, value in row.items() if key in KEYS}
            for words, row in self.rows.items()
        }
        return {words: row for words, row in found.items() if row}

    def conventions(self) -> dict[str, Any]:
        """How commands take their words, as Conventions reads it."""
        return assembled(self.rows)

    def asked_phrases(self) -> list[str]:
        """All phrases that ask for additions."""
        rows = (row for additions in self.asks.values() for row in additions.values())
        return [phrase for row in rows for phrase in row["asks"]]

    def names(self) -> dict[str, dict[str, Any]]:
        """What is known of programs by their name alone."""
        found: dict[str, dict[str, Any]] = {
            table: {words: row[key] for words, row in self.rows.items() if key in row}
            for key, table in _OF_NAMES.items()
        }
        found["programs"] = self.programs
        found["classes"] = {
            one: [words for words, row in self.rows.items() if one in row.get("is", [])]
            for one in CommandClass
        }
        return found


def read_command_files(folder: str) -> CommandFiles:
    """All files of a folder, in the order of their names."""
    rows: dict[str, dict[str, Any]] = {}
    recipes: list[dict[str, Any]] = []
    wordings: dict[str, list[str]] = {}
    asks: dict[str, Any] = {}
    faults: list[str] = []
    classes = _toml(os.path.join(folder, CLASSES))
    for name in sorted(os.listdir(folder)):
        path = os.path.join(folder, name)
        if name.endswith(".wordings"):
            with open(path, encoding="utf-8") as file:
                wordings |= parse_wordings(file.read())
        elif name.endswith(".asks"):
            table = _toml(path)
            faults += faults_of_asks(name, table)
            asks |= table
        elif name.endswith(".toml") and name not in (CLASSES, PROGRAMS):
            table = _toml(path)
            recipes += [{**row, "where": name} for row in table.pop(_RECIPE, [])]
            faults += [f"{name}: {words} stands in two files" for words in table if words in rows]
            rows |= table
    faults += _put_classes_in(rows, classes)
    faults += _faults_of_rows(rows) + _faults_of_recipes(recipes, wordings)
    programs = _toml(os.path.join(folder, PROGRAMS))
    return CommandFiles(rows, recipes, wordings, asks, programs, faults)


def _toml(path: str) -> dict[str, Any]:
    with open(path, "rb") as file:
        return tomllib.load(file)


def _put_classes_in(
    rows: dict[str, dict[str, Any]], classes: dict[str, dict[str, Any]]
) -> list[str]:
    """Give each command what its classes have, and each member of a class its row; what is wrong
    with the names of classes.
    """
    faults = []
    for name, one in classes.items():
        for member in one.pop(_MEMBERS, []):
            rows.setdefault(member, {}).setdefault("is", []).append(name)
    for words, row in rows.items():
        for name in row.get("is", []):
            if name not in classes:
                faults.append(f"{words}: there is no class {name}")
                continue
            for key, value in classes[name].items():
                row.setdefault(key, value)
    return faults


def _faults_of_rows(rows: dict[str, dict[str, Any]]) -> list[str]:
    faults = []
    for words, row in rows.items():
        unknown = sorted(set(row) - _ALL)
        if unknown:
            faults.append(f"{words}: unknown key {', '.join(unknown)}")
            continue
        try:
            facts = facts_of({key: value for key, value in row.items() if key in KEYS})
        except (TypeError, ValueError, KeyError) as error:
            faults.append(f"{words}: {error}")
            continue
        spellings = [one for key in row.get("options", {}) for one in key.split("|")]
        twice = sorted({one for one in spellings if spellings.count(one) > 1})
        faults += [f"{words}: the option {one} stands twice" for one in twice]
        faults += [f"{words}: {says}" for says in faults_of_acts(facts)]
    return faults


def _faults_of_recipes(recipes: list[dict[str, Any]], wordings: dict[str, list[str]]) -> list[str]:
    faults = []
    lines = set()
    for row in recipes:
        line = row.get("line", "")
        try:
            make_recipe({key: value for key, value in row.items() if key != "where"}, "", "")
        except ValueError as error:
            faults.append(f"{row['where']}: {line}: {error}")
        if line in lines:
            faults.append(f"{row['where']}: the line {line} stands twice")
        lines.add(line)
    faults += [
        f"no recipe has the line {line}, which has wordings"
        for line in wordings
        if line not in lines
    ]
    return faults
