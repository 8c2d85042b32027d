"""The kinds of values: how each is recognised by the words of a placeholder, and what cannot be of
it.

A kind is a class here, in the order in which they are tried. What this machine has of a kind is in
machine/known_values.py, the words for a kind and for what is wrong in render/phrases.py.
"""

from __future__ import annotations

import re
from enum import StrEnum
from functools import cache

from dowsing.model.told import Code


class ValueKind(StrEnum):
    """The kinds; the values are those of the JSON contract."""

    FILE = "file"
    FOLDER = "folder"
    PATH = "path"
    NUMBER = "number"
    SIZE = "size"
    DURATION = "duration"
    DATE = "date"
    USER = "user"
    GROUP = "group"
    HOST = "host"
    ADDRESS = "address"
    PORT = "port"
    URL = "url"
    PATTERN = "pattern"
    GLOB = "glob"
    SIGNAL = "signal"
    MODE = "mode"
    COMMAND = "command"
    UNIT = "unit"  # of systemd
    TARGET = "target"  # of a makefile
    SCRIPT = "script"  # of a project, by its name
    CHOICE = "choice"
    TEXT = "text"


#: Kinds whose values name something in the file system.
FILE_KINDS = frozenset((ValueKind.FILE, ValueKind.FOLDER, ValueKind.PATH))

#: Kinds whose values are names that the project in the folder has.
PROJECT_KINDS = frozenset((ValueKind.TARGET, ValueKind.SCRIPT))

HIGHEST_PORT = 65_535
HIGHEST_SIGNAL = 192  # 64 signals, and as many again for statuses of what they ended
SIGNALS = (
    "HUP INT QUIT ILL TRAP ABRT BUS FPE KILL USR1 SEGV USR2 PIPE ALRM TERM STKFLT CHLD CONT STOP "
    "TSTP TTIN TTOU URG "
    "XCPU XFSZ VTALRM PROF WINCH IO PWR SYS POLL IOT CLD UNUSED EXIT ERR DEBUG RETURN"
).split()


class WrongValue(Code):
    """Why a value cannot be of its kind."""

    NO_NUMBER = "no number"
    NO_DURATION = "no duration"
    NO_SIZE = "no size"
    NO_PORT = "no port"
    PORT_TOO_HIGH = "port too high"
    NO_SIGNAL_NAME = "no signal of that name"
    NO_SIGNAL_NUMBER = "no signal of that number"
    NO_MODE = "no mode"
    NO_UNIT = "no unit"


class Kind:
    """How values of one kind are known. `words`: what placeholders of it are made of."""

    kind = ValueKind.TEXT
    words = ""

    def check(self, value: str, says: str) -> WrongValue | None:
        """Why `value` cannot be of the kind, in every reading; `says` is the text of the option
        that takes it.
        """
        return None

    def is_meant(self, placeholder: str, says: str) -> bool:
        """Whether a placeholder with a word of the kind really means it, by the text around it."""
        return True


class PortKind(Kind):
    kind = ValueKind.PORT
    words = "port"

    def check(self, value: str, says: str) -> WrongValue | None:
        if value.isdecimal():
            return WrongValue.PORT_TOO_HIGH if int(value) > HIGHEST_PORT else None
        return WrongValue.NO_PORT if value.isalpha() else None


class UrlKind(Kind):
    kind = ValueKind.URL
    words = "url uri"


class HostKind(Kind):
    kind = ValueKind.HOST
    words = "host hostname server destination remotehost domain"


class AddressKind(Kind):
    kind = ValueKind.ADDRESS
    words = "address addr ip ipaddr prefix cidr"


class SignalKind(Kind):
    kind = ValueKind.SIGNAL
    words = "signal sig"

    def check(self, value: str, says: str) -> WrongValue | None:
        if value.isdecimal():
            return WrongValue.NO_SIGNAL_NUMBER if int(value) > HIGHEST_SIGNAL else None
        name = value.upper().removeprefix("SIG")
        real_time = name.startswith("RT")
        return (
            None
            if name in SIGNALS or real_time or not value.isalnum()
            else WrongValue.NO_SIGNAL_NAME
        )

    def is_meant(self, placeholder: str, says: str) -> bool:
        return "/" not in placeholder


class ModeKind(Kind):
    kind = ValueKind.MODE
    words = "mode modes umask perms permissions"
    _VALUE = (
        r"[-+=/]?[0-7]{1,5}\Z|[-/]?(?:[ugoa]*[-+=](?:[rwxXst]*"
        r"|[ugo]))+(?:,[ugoa]*(?:[-+=](?:[rwxXst]*|[ugo]))+)*\Z"
    )
    _ABOUT = r"\bpermission bits|\bchmod\b|\boctal\b|\bfile mode\b|\bmode bits|\bumask\b"

    def check(self, value: str, says: str) -> WrongValue | None:
        return None if re.match(self._VALUE, value) else WrongValue.NO_MODE

    def is_meant(self, placeholder: str, says: str) -> bool:
        # else it is a way of working
        return re.search(self._ABOUT, says, re.IGNORECASE) is not None


class UserKind(Kind):
    kind = ValueKind.USER
    words = "user username login uid owner userlist"


class GroupKind(Kind):
    kind = ValueKind.GROUP
    words = "group gid grouplist grplist grp groupname"


class DurationKind(Kind):
    kind = ValueKind.DURATION
    words = (
        "seconds secs sec duration hours minutes days weeks timeout interval delay milliseconds "
        "msec msecs ms time_limit sleep_time"
    )
    _VALUE = (
        r"[-+]?(?:\d+(?:\.\d*)?|\.\d+)(?:[smhdwy]|ms|us|ns|sec|min|hours?|days?)?\Z|inf(?:inity)?\Z"
    )

    def check(self, value: str, says: str) -> WrongValue | None:
        may_be = _has_digit(value) or re.match(self._VALUE, value, re.IGNORECASE)
        return None if may_be else WrongValue.NO_DURATION


class DateKind(Kind):
    kind = ValueKind.DATE
    words = "date timestamp datetime expire_date time_t mtime"


class SizeKind(Kind):
    kind = ValueKind.SIZE
    words = "size bytes blocksize limit buffer_size"
    _VALUE = r"[-+<>/%]?\d+(?:\.\d+)?\s?(?:[kmgtpezyw]i?b?|b|c|s|bytes?|%)?\Z|[kmgtpezy]i?b?\Z"
    _ABOUT = r"\b(?:bytes?|[kKMG]i?B|kilobytes?|megabytes?|SIZE|suffix)\b"
    _LETTERS = r"[-+]?\d+(?:\.\d+)?([A-Za-z]+)\Z"
    _UNITS = r"(?:[kmgtpezyrq](?:i?b|bit)?|[bcws]|bytes?|blocks?|bits?|bps)\Z"

    def check(self, value: str, says: str) -> WrongValue | None:
        letters = re.match(self._LETTERS, value)
        if letters and not re.match(self._UNITS, letters[1], re.IGNORECASE):
            return WrongValue.NO_UNIT
        may_be = _has_digit(value) or re.match(self._VALUE, value, re.IGNORECASE)
        return None if may_be else WrongValue.NO_SIZE

    def is_meant(self, placeholder: str, says: str) -> bool:
        return re.search(self._ABOUT, says) is not None


class NumberKind(Kind):
    kind = ValueKind.NUMBER
    words = (
        "n num number count level width height depth int integer lines cols columns column pixels "
        "percent threads jobs "
        "nn offset length nproc uint index fraction priority adjustment precision repeat nlines "
        "tries max min pid pidlist # float factor maxval dpi megabytes retries hops"
    )
    #: What a text says where names stand for numbers as well.
    _NAMED = r"\b(?:name|names|string|keyword|infinity|unlimited)\b|['\"‘“`](?:all|auto|none|max)"
    _ABOUT = r"\b(?:number of|integer|at most|numeric)\b"
    _VAGUE = ("level", "index", "priority", "max", "min")

    def check(self, value: str, says: str) -> WrongValue | None:
        if _has_digit(value) or not value.strip("-+*?#$%@.,:;/"):
            return None
        if value.lower() in ("inf", "infinity", "nan", "max", "min"):
            return None
        if value.isalpha() and re.search(self._NAMED, says):
            return None
        return WrongValue.NO_NUMBER

    def is_meant(self, placeholder: str, says: str) -> bool:
        if placeholder.strip("[]<>{}=").lower() not in self._VAGUE:
            return True
        return re.search(self._ABOUT, says, re.IGNORECASE) is not None


class FolderKind(Kind):
    kind = ValueKind.FOLDER
    words = "directory dir folder chroot_dir root prefix_dir dirs exdir workdir directories"


class FileKind(Kind):
    kind = ValueKind.FILE
    words = (
        "file filename infile outfile files archive configfile output input image disk device dev "
        "source stylefile logfile save-file lockfile rfile keyfile filenames fd database conffile "
        "patchfile jarfile output_file"
    )


class PathKind(Kind):
    kind = ValueKind.PATH
    words = "path pathname pathspec location paths pathnames target dest"


class GlobKind(Kind):
    kind = ValueKind.GLOB
    words = "glob wildcard shell-pattern glob-pattern"


class PatternKind(Kind):
    kind = ValueKind.PATTERN
    words = "pattern patterns regex regexp re expression regular"


class CommandKind(Kind):
    kind = ValueKind.COMMAND
    words = "command cmd utility commands"


class UnitKind(Kind):
    kind = ValueKind.UNIT
    words = "unit units"


class ChoiceKind(Kind):
    kind = ValueKind.CHOICE
    words = "when"


#: All kinds that have words, those of which a word counts first.
KINDS: dict[ValueKind, Kind] = {
    made.kind: made
    for made in (
        PortKind(),
        UrlKind(),
        HostKind(),
        AddressKind(),
        SignalKind(),
        ModeKind(),
        UserKind(),
        GroupKind(),
        DurationKind(),
        DateKind(),
        SizeKind(),
        NumberKind(),
        FolderKind(),
        FileKind(),
        PathKind(),
        GlobKind(),
        PatternKind(),
        CommandKind(),
        UnitKind(),
        ChoiceKind(),
    )
}
_OF_WORD = {word: kind for kind, rules in KINDS.items() for word in rules.words.split()}
_PARTS = re.compile(r"[^a-z#]+")
_ENDINGS = {
    "file": ValueKind.FILE,
    "dir": ValueKind.FOLDER,
    "path": ValueKind.PATH,
    "name": ValueKind.TEXT,
    "size": ValueKind.SIZE,
}


def _has_digit(value: str) -> bool:
    return any(char.isdigit() for char in value)


@cache
def kind_of_placeholder(placeholder: str) -> ValueKind:
    """The kind that the words of a placeholder tell, text if they tell none."""
    low = placeholder.strip("[]<>{}()= ").lower()
    if "//" in low or low.startswith("url"):
        return ValueKind.URL
    if re.search(r"\bhost\b.*@|@.*\bhost", low):
        return ValueKind.HOST
    low = re.split(r"[\[,:|]", low)[0] or low
    whole = _OF_WORD.get(low)
    if whole:
        return whole
    parts = [part for part in _PARTS.split(low) if part]
    if "or" in parts:  # of several kinds
        return ValueKind.TEXT
    return _of_parts(parts) or next(
        (kind for end, kind in _ENDINGS.items() if low.endswith(end)), ValueKind.TEXT
    )


def _of_parts(parts: list[str]) -> ValueKind | None:
    """The kind that one of the words of a placeholder tells: the last says what it is, as in
    `block_size`.
    """
    while len(parts) > 1 and parts[-1] in ("name", "names", "list", "spec"):
        parts.pop()
    if parts[:1] in (["num"], ["number"]) or (len(parts) == 2 and parts[0] in ("max", "min")):
        return ValueKind.NUMBER
    if not parts:
        return None
    return _OF_WORD.get(parts[-1]) or _OF_WORD.get(parts[-1].removesuffix("s"))


def value_kind(placeholder: str, says: str = "", values: list[str] | None = None) -> ValueKind:
    """The kind of a value by its placeholder, what is said of it and the allowed values."""
    if values:
        return ValueKind.CHOICE
    if "|" in placeholder or re.search(r"\w/@?\w", placeholder):  # of several kinds
        return ValueKind.TEXT
    kind = kind_of_placeholder(placeholder)
    rules = KINDS.get(kind)
    return kind if rules is None or rules.is_meant(placeholder, says) else ValueKind.TEXT


_RANGE = (
    r"(?:between|from|in the range(?: of| from)?|range:?)\s+\[?(-?\d+)\s*(?:and|to|-|through"
    r"|\.\.\.?|,)\s*(-?\d+)"
)


def value_range(says: str) -> list[str]:
    """The least and the greatest value that the text of an option tells, [] if it tells none."""
    limits = re.search(_RANGE, says, re.IGNORECASE)
    return list(limits.groups()) if limits else []


def wrong_kind(kind: str, value: str, says: str = "") -> WrongValue | None:
    """Why a value cannot be of that kind. Only what is wrong in every reading is called so.

    `says` is the text of the option: a word that it mentions is never wrong.
    """
    if not value or not value.isprintable() or "<" in value:  # a place for a value is no value
        return None
    if re.search(r"(?<![\w-])" + re.escape(value) + r"(?![\w-])", says, re.IGNORECASE):
        return None
    rules = KINDS.get(kind)  # type: ignore[call-overload]
    return rules.check(value, says) if rules else None
