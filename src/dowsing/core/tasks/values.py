"""The values that a sentence holds: paths, patterns, numbers with units, hosts, addresses, names, quoted text."""

from __future__ import annotations

import re

from dowsing.core.language.stems import EMPTY
from dowsing.core.record import Record

MOST_WORDS = 400  # of a sentence; the rest is not looked at

_QUOTED = re.compile(r"'([^']+)'(?!\w)|\"([^\"]+)\"|“([^”]+)”|‘([^’]+)’|`([^`]+)`")
_INSTEAD = re.compile(
    r"\b(?:replace|substitute|change|swap)\s+('[^']+'|\"[^\"]+\"|\S+)\s+(?:with|by|for)\s+('[^']+'|\"[^\"]+\"|\S+)",
    re.IGNORECASE,
)
_URL = re.compile(r"(?:https?|ftp|sftp|ssh|git|file)://[^\s,;]+[^\s,;.?!]")
_AT = re.compile(r"[\w.-]+@[\w.-]+\w")
_NUMBER = re.compile(
    r"(?<![\w.-])(\d+(?:\.\d+)?)\s*(bytes?|[kKmMgGtT](?:i?[bB])?|kilobytes?|megs?|megabytes?|gigs?|gigabytes?|seconds?|secs?"
    r"|minutes?|mins?|hours?|days?|weeks?|months?|years?|lines?|times|columns?|chars?|characters?|percent|%|pixels?|px)?(?![\w.-]*\w)",
)
_ORDINAL = re.compile(r"(?<![\w-])(\d+)(?:st|nd|rd|th)(?![\w-])")
_EXTENSION = re.compile(
    r"(?<![\w/*])\.([A-Za-z0-9]{1,6})(?=\s+(?:files?|ones?|pictures?|images?)|\s|$)|(?<![\w.])\*\.(\w+)"
)
_PLURAL = re.compile(
    r"(?<![\w.-])(jpe?g|png|gif|mp[34]|pdf|csv|tsv|txt|log|html?|json|xml|py|wav|flac|zip|mkv|avi|svg|md)s(?![\w.-])",
    re.IGNORECASE,
)
_PATH = re.compile(r"(?:~|\.{1,2})?/[\w.@%+=:,/*-]*|[\w@%+=:-]+(?:/[\w.@%+=:*-]*)+|~")
_FILE = re.compile(r"[\w@%+=-][\w.@%+=-]*\.[A-Za-z][A-Za-z0-9]{0,8}(?:\.[A-Za-z0-9]{1,4}){0,2}(?![\w])")
_NAME = re.compile(r"[A-Za-z0-9]\w*(?:[-_.:][\w]+)+|[A-Za-z]+\d\w*")
_POSSESSIVE = re.compile(r"(?<![\w-])([A-Za-z][\w-]*)['’]s(?!\w)")
_NO_OWNER = frozenset("what who it that there here how where let he she today".split())
_BEFORE = (
    "under in inside into within to as named called from of at on onto below for by than over against with like than is until"
).split()
_NOUNS = ("folder", "directory", "file", "user", "branch", "service", "package", "group", "host")
_TARGET = frozenset(("into", "to", "as", "named", "called", "onto"))
_SIZES = {"k": "k", "m": "M", "g": "G", "t": "T"}


class Value(Record):
    """A value: its text, its kind, where it stands (characters), the word before it, and its unit."""

    text: str
    kind: str
    start: int
    end: int
    before: str = ""
    unit: str = ""

    @property
    def is_target(self) -> bool:
        """Whether the word before it says that something goes there."""
        return self.before in _TARGET


def values_in(sentence: str, known: frozenset[str] = frozenset()) -> list[Value]:
    """The values of a sentence in order. `known`: words (in lower case) that are ordinary language here."""
    sentence = " ".join(sentence.split(" ")[:MOST_WORDS])
    taken = [False] * len(sentence)
    found: list[Value] = []

    def take(start: int, end: int, text: str, kind: str, unit: str = "") -> None:
        if not text or any(taken[start:end]):
            return
        taken[start:end] = [True] * (end - start)
        found.append(Value(text, kind, start, end, _word_before(sentence, start), unit))

    for match in _INSTEAD.finditer(sentence):
        take(*match.span(1), match[1].strip("'\""), "text", "old")
        take(*match.span(2), match[2].strip("'\",.?!"), "text", "new")
    for match in _QUOTED.finditer(sentence):
        take(*match.span(), next(group for group in match.groups() if group is not None), "text")
    for match in _URL.finditer(sentence):
        take(*match.span(), match[0], "url")
    for match in _AT.finditer(sentence):
        take(*match.span(), match[0], "host")
    for match in _EXTENSION.finditer(sentence):
        take(*match.span(), match[1] or match[2], "extension")
    for match in _PLURAL.finditer(sentence):
        take(*match.span(), match[1].lower(), "extension")
    for match in _PATH.finditer(sentence):
        text = match[0].rstrip(".,:;?!")
        take(match.start(), match.start() + len(text), text, "glob" if "*" in text else "path")
    for match in _FILE.finditer(sentence):
        if not re.fullmatch(r"e\.g|i\.e|\d+\.\d+", match[0]):
            take(*match.span(), match[0], "file")
    for match in _ORDINAL.finditer(sentence):
        take(*match.span(), match[1], "number", "ordinal")
    for match in _NUMBER.finditer(sentence):
        unit = (match[2] or "").lower()
        kind = "size" if unit[:1] in _SIZES and unit[:2] not in ("mi", "mo", "ti") else "number"
        if unit.startswith("byte"):
            kind, unit = "size", "c"
        text = match[1] + (_SIZES[unit[0]] if kind == "size" and unit[0] in _SIZES else "")
        take(*match.span(), text, kind, unit.rstrip("s"))
    for match in _POSSESSIVE.finditer(sentence):
        if match[1].lower() not in known | _NO_OWNER:
            take(match.start(), match.end(1), match[1], "name", "owner")
    for match in _NAME.finditer(sentence):
        if match[0].lower() not in known:
            take(*match.span(), match[0], "name")
    _bare_names(sentence, known, take)
    return sorted(found, key=lambda value: value.start)


def _bare_names(sentence: str, known: frozenset[str], take) -> None:  # type: ignore[no-untyped-def]
    """Words that are no ordinary language: behind `named` and the like, before `folder`, or unknown altogether."""
    for match in re.finditer(r"[A-Za-z][\w]*", sentence):
        word = match[0]
        before = _word_before(sentence, match.start())
        after = re.match(r"\s+(folder|directory|branch|user|service|group|package)\b", sentence[match.end() :])
        low = word.lower()
        if low in EMPTY or before == "":
            continue
        said = before in ("named", "called")
        if said or (low not in known and (before in _BEFORE or before in _NOUNS or after or before == "the")):
            take(*match.span(), word, "name")


def _word_before(sentence: str, start: int) -> str:
    words = re.findall(r"[\w']+", sentence[max(0, start - 40) : start].lower())
    while words and words[-1] in ("the", "a", "an", "my", "our", "this", "that"):
        words.pop()
    return words[-1] if words else ""
