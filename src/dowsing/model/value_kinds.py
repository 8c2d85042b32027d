"""The kind of a value, told from its placeholder and what is said of it, and whether a value is of that kind."""

from __future__ import annotations

import re
from functools import cache

#: Kind -> words that placeholders of that kind are made of. The first kind that has a word wins.
_WORDS = {
    "port": "port",
    "url": "url uri",
    "host": "host hostname server destination remotehost domain",
    "address": "address addr ip ipaddr prefix cidr",
    "signal": "signal sig",
    "mode": "mode modes umask perms permissions",
    "user": "user username login uid owner userlist",
    "group": "group gid grouplist grplist grp groupname",
    "duration": "seconds secs sec duration hours minutes days weeks timeout interval delay milliseconds msec msecs ms time_limit sleep_time",
    "date": "date timestamp datetime expire_date time_t mtime",
    "size": "size bytes blocksize limit buffer_size",
    "number": (
        "n num number count level width height depth int integer lines cols columns column pixels percent threads jobs "
        "nn offset length nproc uint index fraction priority adjustment precision repeat nlines tries max min pid pidlist # "
        "float factor maxval dpi megabytes retries hops "
    ),
    "folder": "directory dir folder chroot_dir root prefix_dir dirs exdir workdir directories",
    "file": (
        "file filename infile outfile files archive configfile output input image disk device dev source "
        "stylefile logfile save-file lockfile rfile keyfile filenames fd database conffile patchfile jarfile output_file "
    ),
    "path": "path pathname pathspec location paths pathnames target dest",
    "glob": "glob wildcard shell-pattern glob-pattern",
    "pattern": "pattern patterns regex regexp re expression regular",
    "command": "command cmd utility commands",
    "choice": "when",
}
_OF_WORD = {word: kind for kind, words in _WORDS.items() for word in words.split()}
_PARTS = re.compile(r"[^a-z#]+")
_MODE_TEXT = re.compile(r"\bpermission bits|\bchmod\b|\boctal\b|\bfile mode\b|\bmode bits|\bumask\b", re.IGNORECASE)
_NAMED_NUMBERS = re.compile(r"\b(?:name|names|string|keyword|infinity|unlimited)\b|['\"‘“`](?:all|auto|none|max)")
_NUMBER_TEXT = re.compile(r"\b(?:number of|integer|at most|numeric)\b", re.IGNORECASE)

SIGNALS = (
    "HUP INT QUIT ILL TRAP ABRT BUS FPE KILL USR1 SEGV USR2 PIPE ALRM TERM STKFLT CHLD CONT STOP TSTP TTIN TTOU URG "
    "XCPU XFSZ VTALRM PROF WINCH IO PWR SYS POLL IOT CLD UNUSED EXIT ERR DEBUG RETURN"
).split()
#: Patterns of values, compiled when one is checked.
_SIZE = r"[-+<>/%]?\d+(?:\.\d+)?\s?(?:[kmgtpezyw]i?b?|b|c|s|bytes?|%)?\Z|[kmgtpezy]i?b?\Z"
_DURATION = r"[-+]?(?:\d+(?:\.\d*)?|\.\d+)(?:[smhdwy]|ms|us|ns|sec|min|hours?|days?)?\Z|inf(?:inity)?\Z"
_MODE = r"[-+=/]?[0-7]{1,5}\Z|(?:[ugoa]*[-+=](?:[rwxXst]*|[ugo]))+(?:,[ugoa]*(?:[-+=](?:[rwxXst]*|[ugo]))+)*\Z"


@cache
def kind_of_placeholder(placeholder: str) -> str:
    """The kind that the words of a placeholder tell, `text` if they tell none."""
    low = placeholder.strip("[]<>{}()= ").lower()
    if "//" in low or low.startswith("url"):
        return "url"
    if re.search(r"\bhost\b.*@|@.*\bhost", low):
        return "host"
    low = re.split(r"[\[,:|]", low)[0] or low
    whole = _OF_WORD.get(low)
    if whole:
        return whole
    parts = [part for part in _PARTS.split(low) if part]
    if "or" in parts:  # of several kinds
        return "text"
    while len(parts) > 1 and parts[-1] in ("name", "names", "list", "spec"):
        parts.pop()
    if parts[:1] in (["num"], ["number"]) or (len(parts) == 2 and parts[0] in ("max", "min")):
        return "number"
    for part in parts[-1:]:  # the last word says what it is: `block_size`
        kind = _OF_WORD.get(part) or _OF_WORD.get(part.removesuffix("s"))
        if kind:
            return kind
    for ending, kind in (("file", "file"), ("dir", "folder"), ("path", "path"), ("name", "text"), ("size", "size")):
        if low.endswith(ending):
            return kind
    return "text"


def value_kind(placeholder: str, says: str = "", values: list[str] | None = None) -> str:
    """The kind of a value by its placeholder, what is said of it and the allowed values."""
    if values:
        return "choice"
    if "|" in placeholder or re.search(r"\w/@?\w", placeholder):  # of several kinds
        return "text"
    kind = kind_of_placeholder(placeholder)
    if kind == "mode" and not _MODE_TEXT.search(says):
        return "text"  # a way of working, not permissions
    if kind == "size" and not re.search(r"\b(?:bytes?|[kKMG]i?B|kilobytes?|megabytes?|SIZE|suffix)\b", says):
        return "text"
    if kind == "number" and placeholder.strip("[]<>{}=").lower() in ("level", "index", "priority", "max", "min"):
        return "number" if _NUMBER_TEXT.search(says) else "text"
    if kind == "signal" and "/" in placeholder:
        return "text"
    return kind


_RANGE = (
    r"(?:between|from|in the range(?: of| from)?|range:?)\s+\[?(-?\d+)\s*(?:and|to|-|through|\.\.\.?|,)\s*(-?\d+)"
)


def value_range(says: str) -> list[str]:
    """The least and the greatest value that the text of an option tells, [] if it tells none."""
    limits = re.search(_RANGE, says, re.IGNORECASE)
    return list(limits.groups()) if limits else []


def wrong_kind(kind: str, value: str, says: str = "") -> str:
    """Why a value cannot be of that kind, "" if it can. Only what is wrong in every reading is called so.

    `says` is the text of the option: a word that it mentions is never wrong.
    """
    if not value or not value.isprintable() or "<" in value:  # a place for a value is no value
        return ""
    if re.search(r"(?<![\w-])" + re.escape(value) + r"(?![\w-])", says, re.IGNORECASE):
        return ""
    test = _TESTS.get(kind)
    return test(value, says) if test else ""


def _number(value: str, says: str) -> str:
    if any(char.isdigit() for char in value) or not value.strip("-+*?#$%@.,:;/"):
        return ""
    if value.lower() in ("inf", "infinity", "nan", "max", "min"):
        return ""
    if value.isalpha() and _NAMED_NUMBERS.search(says):
        return ""
    return "a number is wanted here"


def _duration(value: str, says: str) -> str:
    return (
        ""
        if any(char.isdigit() for char in value) or re.match(_DURATION, value, re.IGNORECASE)
        else "a time is wanted here, such as 10"
    )


def _size(value: str, says: str) -> str:
    return (
        ""
        if any(char.isdigit() for char in value) or re.match(_SIZE, value, re.IGNORECASE)
        else "a size is wanted here, such as 10M"
    )


def _port(value: str, says: str) -> str:
    if value.isdecimal():
        return "" if int(value) <= 65535 else "a port is a number up to 65535"
    return "a port is wanted here, a number up to 65535" if value.isalpha() and value not in _services() else ""


@cache
def _services() -> frozenset[str]:
    """The names that stand for ports on this machine."""
    try:
        with open("/etc/services", encoding="utf-8", errors="replace") as file:
            return frozenset(word for line in file for word in line.partition("#")[0].split() if word.isalpha())
    except OSError:
        return frozenset(("ssh", "http", "https", "smtp", "domain"))


def _signal(value: str, says: str) -> str:
    if value.isdecimal():
        return "" if int(value) <= 192 else "there is no signal of that number"
    name = value.upper().removeprefix("SIG")
    return (
        "" if name in SIGNALS or name.startswith("RT") or not value.isalnum() else "there is no signal of that name"
    )


def _mode(value: str, says: str) -> str:
    return "" if re.match(_MODE, value) else "a mode is wanted here, such as 750 or u+rw"


_TESTS = {
    "number": _number,
    "duration": _duration,
    "size": _size,
    "port": _port,
    "signal": _signal,
    "mode": _mode,
}
