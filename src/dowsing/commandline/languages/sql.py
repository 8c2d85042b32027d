"""Statements of SQL: the first words, which say what is done to which tables."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_NAME = r"[`\"\[]?([\w.$]+)[`\"\]]?"
#: Statement -> what it does; `{0}` is what it does it to, `{rows}` all rows or some.
_STATEMENTS = [
    (rf"select\b.*?\bfrom\s+{_NAME}", "reads from {0}{where}"),
    (r"select\b", "computes and shows values"),
    (rf"insert\s+(?:or\s+\w+\s+)?into\s+{_NAME}", "adds rows to {0}"),
    (rf"replace\s+into\s+{_NAME}", "adds rows to {0} or replaces them"),
    (rf"update\s+{_NAME}\s+set\b", "changes {rows} of {0}{which}"),
    (rf"delete\s+from\s+{_NAME}", "removes {rows} from {0}{which}"),
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
_SHOW = re.compile(r"show\s", re.IGNORECASE)
_LONGEST = 60  # characters of a condition


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
            if len(given) > 1 or _SHOW.match(text):  # the kind of thing, and its name
                given[0] = given[0].lower()
            return says.format(*given, **_limits(text))
    return ""


def _limits(text: str) -> dict[str, str]:
    """Which rows a statement is for: `rows` with what they must be like, all of them where it does
    not say, and the `where` of one that only reads.
    """
    stated = re.search(r"\bwhere\b\s*(.+)", text, re.IGNORECASE | re.DOTALL)
    read = re.search(
        r"\bwhere\b\s*(.+?)(?=\bgroup\s+by\b|\border\s+by\b|\blimit\b|\Z)",
        text,
        re.IGNORECASE | re.DOTALL,
    )
    is_limited = re.search(r"\bwhere\b", text, re.IGNORECASE) is not None
    return {
        "rows": "rows" if is_limited else "all rows",
        "where": _where(read[1] if read else ""),
        "which": _where(stated[1] if stated else ""),
    }


def _where(text: str) -> str:
    """A condition as it stands, if it is short."""
    return f" where {' '.join(text.split())}" if 0 < len(text) < _LONGEST else ""
