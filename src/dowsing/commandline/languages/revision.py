"""Revisions and ranges of git: `HEAD~3`, `v1.0^{}`, `main@{1}`, `a..b`, `a...b`, `HEAD:path`
(gitrevisions).
"""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading, counted, ordinal

_SUFFIX = re.compile(r"\^\{([^}]*)\}|@\{([^}]*)\}|~(\d*)|\^(\d*)")
_SPECIAL = {
    "HEAD": "the commit that is checked out",
    "@": "the commit that is checked out",
    "ORIG_HEAD": "where HEAD was before the last big move",
    "FETCH_HEAD": "what was fetched last",
    "MERGE_HEAD": "the commit that is being merged",
}
_TYPES = {
    "": "what the tag points at",
    "commit": "the commit that it points at",
    "tree": "its files",
    "tag": "the tag itself",
}


def read(value: str, dialect: str = "") -> Reading:
    """The commit or the range in words."""
    if value.startswith(":/") and len(value) > 2:
        return _whole(value, f"the last commit whose message has {value[2:]}")
    if re.search(r"\s", value) or value[:1] in "-/." or not value.strip("~^@"):
        return _one(value) if value == "@" else NOTHING
    ranged = re.fullmatch(r"([^:]*?)(\.{2,3})([^:]*)", value)
    if ranged:
        return _range(value, ranged)
    named, colon, path = value.partition(":")
    if colon:
        return _path(value, named, path)
    if value.startswith("^"):
        says = f"without what {commit_words(value[1:]) or value[1:]} has"
        return _whole(value, says)
    return _one(value)


def _whole(value: str, says: str) -> Reading:
    cutter = Cutter(value)
    cutter.cut(len(value), says)
    return cutter.finish(says)


def _one(value: str) -> Reading:
    says = commit_words(value)
    return _whole(value, says) if says else NOTHING


def _range(value: str, match: re.Match[str]) -> Reading:
    """What is between two commits."""
    first, dots, last = match.groups()
    begin = _named(first)
    end = _named(last)
    cutter = Cutter(value)
    if dots == "..":
        cutter.cut(len(first), f"not what {begin} has" if first else "")
        cutter.cut(match.end(2))
        cutter.cut(len(value), f"what {end} has" if last else "")
        return cutter.finish(f"from {begin} (left out) to {end}")
    cutter.cut(
        len(value),
        f"what only one of {begin} and {end} has; for a comparison: "
        f"{end} with the last commit that both have",
    )
    return cutter.finish(f"{begin} and {end} since they parted")


def _named(name: str) -> str:
    """A commit by a short name: `HEAD`, `3 commits before HEAD`."""
    if not name or name == "@":
        return "HEAD"
    return commit_words(name, short=True) or name


def _path(value: str, named: str, path: str) -> Reading:
    cutter = Cutter(value)
    stage = re.fullmatch(r":?([0-3]?)", named) and re.match(r":([0-3]):", value)
    if not named or stage:
        rest = value[3:] if stage else path
        return _whole(value, f"{rest} as it is staged") if rest else NOTHING
    cutter.cut(len(named), f"as of {commit_words(named) or named}")
    cutter.cut(len(named) + 1)
    cutter.cut(len(value), "the file or folder")
    return cutter.finish(f"{path} as of {_named(named)}")


def commit_words(name: str, short: bool = False) -> str:
    """A commit with signs behind its name in words; "" for a plain name."""
    suffix = _SUFFIX.search(name)
    base = name[: suffix.start()] if suffix else name
    special = "HEAD" if base == "@" else base
    if suffix is None:
        return "" if short else _SPECIAL.get(base, "")
    said = special or "HEAD"
    at = suffix.start()
    while at < len(name):
        match = _SUFFIX.match(name, at)
        if not match:
            return ""
        said = _with_suffix(said, match, bool(special))
        at = match.end()
    return said


def _with_suffix(said: str, match: re.Match[str], named: bool) -> str:
    kind, place, back, parent = match.groups()
    if kind is not None:
        if kind.startswith("/"):
            return f"the last commit before {said} whose message has {kind[1:]}"
        return f"{_TYPES.get(kind, kind)} ({said})"
    if place is not None:
        return _logged(said, place, named)
    if back is not None:
        return f"{counted(back or '1', 'commit')} before {said}"
    number = parent or "1"
    return (
        f"the commit before {said}" if number == "1" else f"the {ordinal(number)} parent of {said}"
    )


def _logged(said: str, place: str, named: bool) -> str:
    """`@{1}`, `@{yesterday}`, `@{u}`."""
    if place in ("u", "upstream"):
        return f"the branch that {said} follows"
    if place == "push":
        return f"where {said} is pushed to"
    if place.isdecimal():
        return f"where {said} was {counted(place, 'move')} ago"
    if place == "-1":
        return "the branch checked out before"
    if place.startswith("-"):
        return f"the branch checked out {counted(place[1:], 'switch')} ago".replace(
            "switchs", "switches"
        )
    return f"where {said} was at {place}"
