"""What the project around a folder lets one run: targets of its makefile, scripts of its
`package.json` or `pyproject.toml`. The files are read; nothing of them is run.
"""

from __future__ import annotations

import os
import re

from dowsing.model.markup import clean_line
from dowsing.model.plainfile import plain_only
from dowsing.model.value_kinds import ValueKind

MOST_NAMES = 200
MOST_BYTES = 1 << 20
_MAKEFILES = ("GNUmakefile", "makefile", "Makefile")
#: `all clean: deps  ## remark`, and no assignment.
_RULE = re.compile(
    r"(?P<names>[A-Za-z0-9][\w./+-]*(?: +[A-Za-z0-9][\w./+-]*)*) *::?(?![=:])(?P<rest>.*)"
)
_REMARK = re.compile(r"##?\s*(.+)")
#: Tables of `pyproject.toml` whose keys are what tools run by name.
_TABLES = (
    ("project", "scripts"),
    ("tool", "poetry", "scripts"),
    ("tool", "poe", "tasks"),
    ("tool", "pdm", "scripts"),
    ("tool", "taskipy", "tasks"),
    ("tool", "hatch", "envs", "default", "scripts"),
)


def names_of_project(kind: str, folder: str = ".") -> dict[str, str]:
    """The names of a kind, TARGET or SCRIPT, with what the project says of each; of a Node project
    that is the line that would run. {} where there is no such project.
    """
    if kind == ValueKind.TARGET:
        return _targets(folder)
    found = _of_package(folder)
    return found or _of_python(folder)


def _text(folder: str, name: str) -> str:
    path = os.path.join(folder, name)
    try:
        with open(path, encoding="utf-8", errors="replace", opener=plain_only) as file:
            return file.read(MOST_BYTES)
    except OSError:
        return ""


def _targets(folder: str) -> dict[str, str]:
    """The targets that stand in the makefile, in its order, with the remark beside or above."""
    text = next((text for name in _MAKEFILES if (text := _text(folder, name))), "")
    found: dict[str, str] = {}
    above = ""
    for line in text.split("\n"):
        if line.startswith("#"):
            match = _REMARK.match(line)
            above = match[1] if match else ""
            continue
        rule = _RULE.match(line)
        if rule:
            beside = _REMARK.search(rule["rest"])
            says = clean_line((beside[1] if beside else above).strip())
            for name in rule["names"].split():
                found[clean_line(name)] = found.get(name) or says
        above = ""
    return dict(list(found.items())[:MOST_NAMES])


def _of_package(folder: str) -> dict[str, str]:
    """The scripts of a Node project."""
    import json

    try:
        data = json.loads(_text(folder, "package.json") or "{}")
    except ValueError:
        return {}
    return _lines(data.get("scripts") if isinstance(data, dict) else None)


def _of_python(folder: str) -> dict[str, str]:
    """The scripts and tasks of a Python project."""
    import tomllib

    try:
        data = tomllib.loads(_text(folder, "pyproject.toml"))
    except (tomllib.TOMLDecodeError, RecursionError):
        return {}
    found: dict[str, str] = {}
    for keys in _TABLES:
        table: object = data
        for key in keys:
            table = table.get(key) if isinstance(table, dict) else None
        for name, says in _lines(table).items():
            found.setdefault(name, says)
    return found


def _lines(table: object) -> dict[str, str]:
    """Names with the line, or the remark, that a table has for each."""
    if not isinstance(table, dict):
        return {}
    found: dict[str, str] = {}
    for name, value in list(table.items())[:MOST_NAMES]:
        says = value
        if isinstance(value, dict):
            says = next((value[key] for key in ("help", "cmd", "shell") if key in value), "")
        found[clean_line(str(name))] = clean_line(str(says)) if isinstance(says, str) else ""
    return found
