"""Crontabs: the line that is run at each time (crontab(5)); those of the system name a user."""

from __future__ import annotations

import re

from dowsing.commandline.scripts.fragments import Fragment, Where
from dowsing.model.told import told

_FIELD = r"[\d*][\d*,/A-Za-z-]*|[A-Za-z]{3}(?:[-,][A-Za-z]{3})*"
_JOB = re.compile(rf"\s*(@\w+|(?:{_FIELD})(?:\s+(?:{_FIELD}|[\d*,/-]+)){{4}})\s+(.+)")
_USERS = re.compile(r"(root|[a-z_][\w-]*)\s+(?=\S)")
_SETTING = re.compile(r"\s*\w+\s*=")


def recognises(name: str, text: str) -> bool:
    """Whether every line is a job, a setting or a remark, and there is a job."""
    lines = [
        line for line in text.split("\n") if line.strip() and not line.lstrip().startswith("#")
    ]
    jobs = [line for line in lines if _JOB.fullmatch(line)]
    others = [line for line in lines if not _JOB.fullmatch(line) and not _SETTING.match(line)]
    return bool(jobs) and not others


def fragments(text: str) -> list[Fragment]:
    """Each job. What stands behind a `%` goes to its input, and is left out."""
    lines = text.split("\n")
    with_users = _has_users([line for line in lines if _JOB.fullmatch(line)])
    found: list[Fragment] = []
    for n, line in enumerate(lines):
        match = _JOB.fullmatch(line)
        if not match or line.lstrip().startswith("#"):
            continue
        schedule, command = match.groups()
        user = _USERS.match(command) if with_users else None
        command = command[user.end() :] if user else command
        command = re.split(r"(?<!\\)%", command, maxsplit=1)[0].replace("\\%", "%")
        where = told(Where.SCHEDULE, schedule, user[1] if user else "")
        found.append(Fragment(command, n + 1, where))
    return found


def _has_users(lines: list[str]) -> bool:
    """Whether each line names a user before its command, as those of /etc do: `root` in one is
    telling, for no command is called so.
    """
    commands = [match[2] for line in lines if (match := _JOB.fullmatch(line))]
    return any(command.startswith("root ") for command in commands) or bool(
        commands
        and all(re.match(r"(?:www-data|nobody|daemon|backup|postgres)\s", one) for one in commands)
    )
