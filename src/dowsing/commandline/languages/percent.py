"""Formats of other programs made of a percent sign and a letter or a name: find's -printf, stat,
git's pretty formats, time, curl's report.
"""

from __future__ import annotations

import re

from dowsing.commandline.languages.percent_words import TABLES
from dowsing.commandline.languages.printf import escape_words
from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading, listed

_TOKENS = {
    "find": r"%[-+ 0#]*\d*(?:\.\d+)?([ACTB].|[A-Za-z%])",
    "stat": r"%[-+ 0#']*\d*(?:\.\d+)?([HL]?[A-Za-z%])",
    "git": r"%[-+ ]?([acg][A-Za-z?]|C\([^)]*\)|C[a-z]+|[a-zA-Z%]|x[0-9a-f]{2}"
    r"|[<>|]+\([^)]*\)|\([^)]*\))",
    "time": r"%([A-Za-z%])",
    "curl": r"%(\{[^}]*\}|%)",
}
_TIMES = {
    "A": "time it was last read",
    "C": "time its status last changed",
    "T": "time its contents last changed",
    "B": "time it was made",
}
_SIGNS = ("%", "n", "x00", "x09")  # that stand for a character
MOST_TOLD = 4  # conversions that are put into a phrase
_ESCAPE = r"\\(?:[abefnrtv0\\]|[0-7]{1,3}|c)"
#: Words before a format of git's that say that it is one.
_PREFIX = re.compile(r"t?format:")
_NAMED_FORMATS = {
    "oneline": "each commit on one line",
    "short": "each commit with its author and title",
    "medium": "each commit with author, date and message",
    "full": "each commit with author, committer and message",
    "fuller": "each commit with all names and dates",
    "raw": "each commit as it is stored",
    "reference": "each commit as one refers to it",
    "email": "each commit as a mail",
}


def read(value: str, dialect: str = "") -> Reading:
    """Each conversion, escape and the text between."""
    cutter = Cutter(value)
    if dialect == "git":
        if value in _NAMED_FORMATS:
            return Reading([], _NAMED_FORMATS[value])
        prefix = _PREFIX.match(value)
        cutter.cut(prefix.end() if prefix else 0)
    table = TABLES[dialect]
    told_any = False
    said: list[str] = []
    pattern = re.compile(f"{_TOKENS[dialect]}|{_ESCAPE}|(?:(?!%|\\\\).)+|.", re.DOTALL)
    for match in pattern.finditer(value, cutter.at):
        token = match[0]
        if match[1]:
            says = _conversion(match[1], dialect, table)
            told_any = told_any or bool(says)
            said += [says] if says and match[1] not in _SIGNS else []
        elif token[0] == "\\" and len(token) > 1:
            says, told_any = escape_words(token), True
        else:
            says = "as it stands" if token.strip("-:/. _,") else ""
        cutter.cut(match.end(), says)
    return cutter.finish(listed(said) if len(said) <= MOST_TOLD else "") if told_any else NOTHING


def _conversion(name: str, dialect: str, table: dict[str, str]) -> str:
    if dialect == "find" and len(name) == 2:
        from dowsing.commandline.languages.dates import read as read_dates

        form = read_dates(f"%{name[1]}")
        how = form.parts[0].says if form.parts else ""
        return f"{_TIMES[name[0]]}: {how}" if how else _TIMES[name[0]]
    if dialect == "git" and name[0] == "C":
        return f"goes on in {name[1:].strip('()')}" if "reset" not in name else "ends the colour"
    if dialect == "curl":
        return table.get(name.strip("{}"), name.strip("{}").replace("_", " "))
    return table.get(name, "")
