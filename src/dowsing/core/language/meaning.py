"""What an entry does, and to what: verbs and nouns worked out from its summary, its name and its kind.

A summary is read as English imperatives and noun phrases are: `remove files or directories`, `Removes files`,
`tool to remove files`, `file removal tool`. The words come from the lexicon; the last word of what is acted on
counts even if the lexicon does not know it.
"""

from __future__ import annotations

import re

from dowsing.core.language.lexicon import Lexicon, lexicon
from dowsing.core.record import Record

_BEFORE_VERB = frozenset(
    "to which that for and or can will may then also automatically interactively recursively".split()
)
_DETERMINERS = frozenset("a an the all one any some its their your this these each every".split())
_ENDS_OBJECT = frozenset(
    """
    using with by via from to into on onto in for that which as when if between according over under through at
    without within against upon before after about whose where during based while used is are can be not per than
    inside across until unless like such
    """.split()
)
_NO_NOUN = frozenset(
    """
    a an the of and or all any some one two its their your this these each every other another new more most same
    various several specified given following e g i etc set list number sets lists amount part parts content contents
    kind type way ways use it them they you we only also both no out up down off who what how whether which
    """.split()
)
_TOOLS = frozenset(
    "tool tools utility utilities program programs command commands script interface function functions".split()
)
_PARENTHESES = re.compile(r"\([^()]*\)|\[[^\[\]]*\]")
_TOKEN = re.compile(r"[A-Za-z0-9][A-Za-z0-9+.#'-]*[A-Za-z0-9+#]|[A-Za-z0-9]|[,;:./]")
_NAMED_NOUNS = ("4", "5", "7")
MOST = 4


class Meaning(Record):
    """Verbs (what it does) and nouns (to what), each the word that stands for its group, likeliest first."""

    verbs: list[str]
    nouns: list[str]


def meaning(summary: str, name: str = "", section: str = "") -> Meaning:
    """The verbs and nouns of an entry. Sections 4, 5 and 7 name things: an ambiguous first word is a noun there."""
    known = lexicon()
    text = _PARENTHESES.sub(" ", summary.replace("/", " / "))
    tokens = _TOKEN.findall(text)
    lower = [token.casefold().removesuffix("'s") for token in tokens]
    verbs, start = _leading_verbs(lower, known, section)
    if not verbs:
        verbs, start = _later_verbs(lower, known)
    nouns = _object(lower, start, known) if verbs else []
    if not verbs and section[:1] not in _NAMED_NOUNS:
        verbs, nouns = _done_by_a_noun(lower, known)
    if not verbs and section[:1] in ("1", "8", "6", "2"):
        verbs = _of_name(name, known)
    if not nouns:
        nouns = _object(lower, start, known) or _all_nouns(lower, known)
    return Meaning(list(dict.fromkeys(verbs))[:MOST], list(dict.fromkeys(nouns))[:MOST])


def _leading_verbs(tokens: list[str], known: Lexicon, section: str) -> tuple[list[str], int]:
    """The verbs that the text begins with (`convert and copy …`), and where what they act on begins."""
    at = 0
    while at < len(tokens) and tokens[at] in _BEFORE_VERB | _DETERMINERS | {"simple", "simply"} and at < 2:
        at += 1
    if at and tokens[at - 1] in _DETERMINERS:
        return [], 0
    return _verbs_at(tokens, at, known, section)


def _verbs_at(tokens: list[str], at: int, known: Lexicon, section: str = "") -> tuple[list[str], int]:
    verbs: list[str] = []
    while at < len(tokens):
        verb = known.verb(tokens[at])
        following = tokens[at + 1] if at + 1 < len(tokens) else ""
        if verb is None or known.verb_of_doing.get(tokens[at]):
            break
        if not verbs and known.noun(tokens[at]) and _is_noun_here(tokens[at], following, section):
            break
        if verbs and at and tokens[at - 1] not in ("and", "or", ",", "/"):
            break
        verbs.append(verb)
        at += 1
        before = at
        while at < len(tokens) and tokens[at] in (",", "and", "or", "/", "then", "optionally"):
            at += 1
        if at == before:
            break
        if at < len(tokens) and (known.verb(tokens[at]) is None or _ends_phrase(tokens, at)):
            break
    return verbs, at


def _ends_phrase(tokens: list[str], at: int) -> bool:
    """Whether a word that could be a verb stands where only a noun can: at the end, or before `of`."""
    following = tokens[at + 1] if at + 1 < len(tokens) else ""
    return following in ("", "of", ".", ";")


def _is_noun_here(word: str, following: str, section: str) -> bool:
    if section[:1] in _NAMED_NOUNS:
        return following not in _DETERMINERS
    if following in (
        "",
        "of",
        "for",
        "file",
        "files",
        "format",
        "manager",
        "in",
        "on",
        ".",
        ",",
        "and",
        "tool",
        "utility",
        "to",
    ):
        return following not in ("and", ",") or word in ("file", "user", "group", "time", "date")
    return word.endswith("ing") and following in ("", "of")


def _later_verbs(tokens: list[str], known: Lexicon) -> tuple[list[str], int]:
    """`tool to remove …`, `program that displays …`, `utility for listing …`, `used to create …`."""
    for at, token in enumerate(tokens[:-1]):
        if token in ("to", "that", "which", "for") and at:
            begin = at + 1
            while begin < len(tokens) - 1 and tokens[begin].endswith("ly"):
                begin += 1
            doing = token in ("to", "that", "which") or tokens[begin].endswith("ing")
            verbs, start = _verbs_at(tokens, begin, known) if doing else ([], 0)
            if verbs and (tokens[at - 1] in _TOOLS or tokens[at - 1].endswith("ed") or token == "to"):
                return verbs, start
        if token in (",", ":", ";") and at < 8:
            verbs, start = _verbs_at(tokens, at + 1, known)
            if verbs and (start < len(tokens) and tokens[start] in _DETERMINERS):
                return verbs, start
    return [], 0


def _done_by_a_noun(tokens: list[str], known: Lexicon) -> tuple[list[str], list[str]]:
    """`file removal tool`, `stream editor`, `conversion of …`: the noun of a doing, and what stands before it."""
    for at, token in enumerate(tokens):
        head = known.verb_of_doing.get(token) or known.verb_of_doing.get(singular(token))
        if head is None or token in _ENDS_OBJECT:
            continue
        before = [one for one in tokens[max(at - 3, 0) : at] if one not in _NO_NOUN]
        nouns = [noun for one in before if (noun := known.noun(one))]
        if before and not nouns and before[-1].isalpha() and not before[-1].endswith(("ed", "al", "ic", "ive", "ly")):
            nouns = [singular(before[-1])]
        if at + 1 < len(tokens) and tokens[at + 1] in ("of", "for"):
            nouns += _object(tokens, at + 2, known)
        return [head], nouns
    return [], []


def _of_name(name: str, known: Lexicon) -> list[str]:
    parts = [part for part in re.split(r"[-_.]", name.casefold()) if part]
    found = known.verb_of.get(parts[-1]) if len(parts) > 1 else None
    return [found] if found else []


def _object(tokens: list[str], start: int, known: Lexicon) -> list[str]:
    """The nouns of what is acted on: as far as a preposition other than `of` or the end of the clause."""
    nouns: list[str] = []
    last: str | None = None

    def close() -> None:
        nonlocal last
        if last is not None and not known.noun(last) and last.isalpha() and len(last) > 2:
            nouns.append(singular(last))
        last = None

    for at in range(start, min(len(tokens), start + 16)):
        token = tokens[at]
        if token in _ENDS_OBJECT or token in (".", ";", ":"):
            if at == start:
                continue
            break
        if token in ("of", "and", "or", ",", "/"):
            close()
            continue
        if token in _NO_NOUN or token.isdigit() or token.endswith("ly"):
            continue
        noun = known.noun(token)
        if noun:
            nouns.append(noun)
        last = token
    close()
    return nouns


def _all_nouns(tokens: list[str], known: Lexicon) -> list[str]:
    found = [noun for token in tokens if token not in _NO_NOUN and (noun := known.noun(token))]
    return found or _object(tokens, 0, known)


def singular(word: str) -> str:
    """The singular of a regular plural."""
    if word.endswith("ies") and len(word) > 4:
        return word[:-3] + "y"
    if word.endswith(("sses", "xes", "ches", "shes", "zes")):
        return word[:-2]
    if word.endswith("s") and not word.endswith(("ss", "us", "is", "as", "os")):
        return word[:-1]
    return word
