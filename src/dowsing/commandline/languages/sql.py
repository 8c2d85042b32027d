"""Statements of SQL: the first words, which say what is done to which tables."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_NAME = r"[`\"\[]?([\w.$]+)[`\"\]]?"
#: Statement -> what it does; `{0}` is what it does it to.
_STATEMENTS = [
    (rf"select\b.*?\bfrom\s+{_NAME}", "reads from {0}"),
    (r"select\b", "computes and shows values"),
    (rf"insert\s+(?:or\s+\w+\s+)?into\s+{_NAME}", "adds rows to {0}"),
    (rf"replace\s+into\s+{_NAME}", "adds rows to {0} or replaces them"),
    (rf"update\s+{_NAME}\s+set\b", "changes rows of {0}"),
    (rf"delete\s+from\s+{_NAME}", "removes rows from {0}"),
    (rf"truncate\s+(?:table\s+)?{_NAME}", "removes all rows of {0}"),
    (rf"drop\s+(\w+)\s+(?:if\s+exists\s+)?{_NAME}", "removes the {0} {1} with all that is in it"),
    (
        rf"create\s+(?:temp(?:orary)?\s+|or\s+replace\s+|unique\s+)*(table|view|index|database|schema|user|role|function|trigger)\s+(?:if\s+not\s+exists\s+)?{_NAME}",
        "makes the {0} {1}",
    ),
    (rf"alter\s+(\w+)\s+{_NAME}", "changes the {0} {1}"),
    (r"grant\b", "lets users do more"),
    (r"revoke\b", "lets users do less"),
    (rf"vacuum(?:\s+(?:full|analyze))*(?:\s+{_NAME})?", "frees the space of removed rows"),
    (r"(?:explain|describe|desc)\b", "shows how it is built or would be done"),
    (r"show\s+(\w+)", "shows the {0}"),
    (r"(?:begin|start\s+transaction)\b", "begins a transaction"),
    (r"commit\b", "keeps what was changed"),
    (r"rollback\b", "takes back what was changed"),
    (rf"copy\s+{_NAME}", "copies between {0} and a file"),
    (r"set\b", "changes a setting"),
    (rf"use\s+{_NAME}", "goes on with the database {0}"),
    (r"with\b", "computes and shows values"),
]
_CLAUSES = re.compile(r"\b(where|group\s+by|order\s+by|limit|join)\b", re.IGNORECASE)


def read(value: str, dialect: str = "") -> Reading:
    """What each statement does."""
    cutter = Cutter(value)
    said = []
    for statement in re.findall(r"(?:'[^']*'|\"[^\"]*\"|[^;'\"]|['\"])+|;", value):
        says = _statement(statement.strip()) if statement != ";" else ""
        said += [says] if says else []
        cutter.cut(cutter.at + len(statement), says)
    return cutter.finish(", then ".join(said)) if said else NOTHING


def _statement(text: str) -> str:
    for pattern, says in _STATEMENTS:
        match = re.match(pattern, text, re.IGNORECASE | re.DOTALL)
        if match:
            given = [one if one is not None else "" for one in match.groups()]
            if len(given) > 1:  # the kind of thing, and its name
                given[0] = given[0].lower()
            told = says.format(*given) if given else says
            return told.lower() if says.startswith("shows the") else _limited(told, text)
    return ""


def _limited(told: str, text: str) -> str:
    """With what limits it; and that nothing does, where that is dangerous."""
    clauses = [re.sub(r"\s+", " ", one.lower()) for one in _CLAUSES.findall(text)]
    if "rows of" in told or "rows from" in told:
        where = re.search(r"\bwhere\b\s*(.+)", text, re.IGNORECASE | re.DOTALL)
        if where and len(where[1]) < 60:
            return f"{told} where {' '.join(where[1].split())}"
        if "where" not in clauses and "all rows" not in told:
            return re.sub(r"\brows\b", "all rows", told)
    if told.startswith("reads"):
        where = re.search(
            r"\bwhere\b\s*(.+?)(?=\bgroup\s+by\b|\border\s+by\b|\blimit\b|\Z)",
            text,
            re.IGNORECASE | re.DOTALL,
        )
        if where and len(where[1]) < 60:
            return f"{told} where {' '.join(where[1].split())}"
    return told
