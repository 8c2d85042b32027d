"""What a sentence and its revisions say: words that tell, values, conditions on files, tools wanted
and not wanted.
"""

from __future__ import annotations

import re

from dowsing.knowledge.recipe_terms import MAKING, TELLING
from dowsing.knowledge.stems import EMPTY, stem
from dowsing.knowledge.task_choice import sentence_marks, sentence_stems, shapes_of
from dowsing.knowledge.units import is_time
from dowsing.model.record import Record
from dowsing.tasks.conditions import Condition, conditions_in
from dowsing.tasks.part_phrases import Token, tokens_of
from dowsing.tasks.patterns import Pattern
from dowsing.tasks.revisions import is_one_of, left_open
from dowsing.tasks.values import MOST_WORDS, Value, values_in

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.tasks.bare_names import Ordinary
    from dowsing.tasks.filling import Insertion

_NOT = re.compile(r"(?<=\w)n['’]t\b", re.IGNORECASE)
#: What is left of such a word that is none by itself.
_WHOLE = {"ca": "can", "wo": "will", "sha": "shall"}
_LEFT = re.compile(r"\b(ca|wo|sha)(?= not\b)", re.IGNORECASE)
_TOOL = Pattern(
    r"\b(?:use|using|with|via|by means of|through)\s+(?:the )?(?:command |tool "
    r"|program )?([a-z][\w.+-]*)",
    "use",
    "using",
    "with",
    "via",
    "through",
)
_ROOT = Pattern(
    r"\b(?:with|using) sudo\b|(?:^|, |\band |\bplease )use sudo\b"
    r"|\bas (?:root|administrator|the superuser)\b",
    "sudo",
    "root",
    "admin",
    "super",
)
_NO_ROOT = Pattern(r"\b(?:without|no|not (?:with|as)) (?:sudo|root)\b", "sudo", "root")
NO_TOOL = Pattern(
    r"\b(?:without|not(?: with| using)?|no|don['’]t use|do not use|other than"
    r"|instead of)\s+([a-z][\w.+-]*)",
    "without",
    "not",
    "no ",
    "other",
    "instead",
)
#: Ways to ask, and the word that says the same.
_QUESTIONS = (
    (Pattern(r"\b(?:how many|how often|number of times)\b", "how ", "number"), "count"),
    (MAKING, "create"),
    (Pattern(r"\b(?:get|bring|pull) (?=.* from )", "get", "bring", "pull"), "fetch"),
    (Pattern(r"\bhow (?:big|large)\b", "how "), "size"),
    (
        Pattern(r"\bwhat(?:['’]s| is| are| do\w* \w+ have)? (?:\w+ )?(?:in|inside)(?= )", "what"),
        "contents",
    ),
)
#: Words that only say that a name follows.
_BEFORE_A_NAME = frozenset("called named call name it".split())
#: What it is about when a value of a kind stands there, though no word says so.
_IMPLIED = {
    "file": "file",
    "path": "folder directory file path",
    "glob": "file",
    "extension": "file",
    "url": "url web page address",
    "host": "machine host server remote user ssh",
    "remote": "machine host server remote ssh file folder",
    "size": "size",
    "time": "time",
}
_BY_ENDING = (
    (r"\.(?:tar(?:\.\w+)?|tgz|tbz2?|txz)$", "archive tarball tar"),
    (r"\.zip$", "zip archive"),
    (r"\.7z$", "7z archive"),
    (r"\.rar$", "rar archive"),
    (r"\.pdf$", "pdf document"),
    (r"\.(?:mp4|mov|mkv|avi|webm)$", "video film movie"),
    (r"\.(?:mp3|flac|wav|ogg|m4a)$", "audio song sound"),
    (r"\.(?:gz|xz|bz2|zst)$", "compressed gzip compress"),
    (r"\.(?:csv|tsv)$", "csv table"),
    (r"\.json$", "json"),
    (r"\.log$", "log"),
    (r"\.(?:iso|img)$", "image iso"),
    (r"\.(?:png|jpe?g|gif|webp)$", "picture image"),
    (r"\.(?:sh|bash)$", "script program command"),
    (r"\.(?:py|pl|rb)$", "script program"),
    (r"\.(?:txt|md)$", "text"),
    (r"\.(?:pem|crt|cer)$", "certificate key"),
    (r"\.pub$", "key public"),
    (r"\.deb$", "package"),
    (r"\.(?:sql|db|sqlite3?)$", "database"),
    (r"^/dev/", "device disk partition drive filesystem"),
)
#: What is as good as said where it is said how often something is to happen.
_SCHEDULED = ("cron", "schedule")
#: What the choice of recipes calls kinds of values.
_SHAPES = {
    "file": "file",
    "path": "file",
    "glob": "glob",
    "extension": "glob",
    "url": "url",
    "host": "host",
    "remote": "host",
    "size": "size",
    "date": "date",
    "time": "time",
}
_SHAPES_BY_UNIT = {"from": "range", "until": "range", "port": "port", "epoch": "epoch"}
_UNITS = {
    "column": "column field",
    "ordinal": "column",
    "line": "line",
    "percent": "percent",
    "char": "character",
}


class ParsedSentence(Record):
    """What a sentence with its revisions says. `text` is all of it, `tokens` are its words, `words`
    those that tell, `stems` all that the choice of a recipe goes by, `marks` what tells
    whether anything is to be changed; the values of later revisions
    come first.

    `hints` are the stems that nobody said, by the endings of files, `inside` those that stand in
    conditions on files alone; `implied` are stems of what it
    must be about, by its values; `with_tools` and `without_tools`
    are the words that stand where a tool is asked for or refused (not all of them are one).
    `ordinary` are the words of the language, which are seldom names.
    """

    text: str
    tokens: list[Token]
    words: list[Token]
    stems: list[str]
    hints: frozenset[str]
    inside: frozenset[str]
    marks: list[str]
    values: list[Value]
    conditions: list[Condition]
    implied: frozenset[str]
    with_tools: list[str]
    without_tools: list[str]
    as_root: bool
    ordinary: Ordinary


def understand(sentence: str, again: list[str], ordinary: Ordinary) -> ParsedSentence:
    """What is said; a long sentence is cut."""
    parts = [" ".join(_spelled_out(one).split()[:MOST_WORDS]) for one in [sentence, *again]]
    text = ", ".join(parts)
    starts = [sum(len(one) + 2 for one in parts[:n]) for n in range(len(parts))]

    root = _is_as_root(text)
    for said in [
        *_ROOT.finditer(text),
        *_NO_ROOT.finditer(text),
    ]:  # said once, it is no part of the task
        text = text[: said.start()] + " " * (said.end() - said.start()) + text[said.end() :]

    def which(place: int) -> int:
        return sum(start <= place for start in starts)

    values = sorted(values_in(text, ordinary), key=lambda value: (-which(value.start), value.start))
    values = [one.changed(turn=which(one.start) - 1) for one in values]
    for n, part in enumerate(parts[1:], 1):
        for noun in left_open(part):
            gone = [one for one in values if one.turn < n and is_one_of(one, noun)]
            values = [one for one in values if one not in gone]
            text = _blanked(text, gone)
    conditions = _latest(conditions_in(text, values))
    taken = [
        (value.start, value.end) for value in values if value.sure and value.kind != "extension"
    ]
    words = [
        Token(word, stem(word), *match.span())
        for pattern, word in _QUESTIONS
        if (match := pattern.search(text))
    ]
    taken += [(word.start, word.end) for word in words]
    tokens = tokens_of(text)
    for token in tokens:
        if token.text in EMPTY and token.text not in TELLING:
            continue
        if any(start < token.end and token.start < end for start, end in taken):
            continue
        if token.text in _BEFORE_A_NAME and any(0 < start - token.end <= 2 for start, _ in taken):
            continue
        words.append(token)
    stems = sentence_stems(_without(text, values))
    hints = _implied(values, endings_only=True) - frozenset(stems)
    shapes = shapes_of(_shape(value) for value in values if value.sure)
    others = [one for one in values if not any(_overlap(one, other) for other in conditions)]
    beside = sentence_stems(_blanked(_without(text, values), conditions))
    beside += shapes_of(_shape(value) for value in others if value.sure)
    return ParsedSentence(
        text,
        tokens,
        words,
        list(
            dict.fromkeys(
                [
                    *stems,
                    *sorted(hints),
                    *shapes,
                ]
            )
        ),
        hints,
        frozenset([*stems, *shapes]) - frozenset(beside),
        sentence_marks(_without(text, values)),
        values,
        conditions,
        _implied(values),
        [m[1].lower() for m in _TOOL.finditer(text)],
        [m[1].lower() for m in NO_TOOL.finditer(text)],
        root,
        ordinary,
    )


def _spelled_out(text: str) -> str:
    """The text with `can't` as `can not`."""
    return _LEFT.sub(lambda match: _WHOLE[match[1].lower()], _NOT.sub(" not", text))


def _shape(value: Value) -> str:
    """What the kind of a value is called in the choice of recipes; "" if its form does not tell."""
    if value.kind == "number":
        return _SHAPES_BY_UNIT.get(value.unit, "duration" if is_time(value.unit) else "number")
    return _SHAPES.get(value.kind, "")


def _overlap(one: Value | Condition, other: Value | Condition) -> bool:
    return one.start < other.end and other.start < one.end


def _blanked(text: str, places: list[Condition] | list[Value]) -> str:
    """The text with blanks in these places."""
    for one in places:
        text = text[: one.start] + " " * (one.end - one.start) + text[one.end :]
    return text


def _without(text: str, values: list[Value]) -> str:
    """The text with blanks in the place of the values that are sure."""
    for value in values:
        if value.sure and value.kind != "extension":
            text = text[: value.start] + " " * (value.end - value.start) + text[value.end :]
    return text


def understood(
    said: ParsedSentence, line: str, placed: list[Value], added: list[Insertion]
) -> list[str]:
    """What of a sentence was taken for a condition that the line has, a value that stands in it, or
    something to leave out, in words. `placed`: the values that it was made with, `added`: what was
    put in beside the recipe.
    """
    conditions = [one for one in said.conditions if one.end and one.test in line]
    found = [
        (one.start, f"{said.text[one.start : one.end].strip(' ,')} ({one.test})")
        for one in conditions
    ]
    for one in added:
        found.append((one.start, f"{said.text[one.start : one.end]} ({one.text})"))
    told = [(one.start, one.end) for one in conditions] + [(one.start, one.end) for one in added]
    for value in said.values:
        is_told = any(start < value.end and value.start < end for start, end in told)
        if not value.sure or is_told:
            continue
        if value in placed or value.stands_in(line):
            kind = "" if value.kind in ("name", "text") else f"{value.kind} "
            found.append(
                (value.start, f"{'without ' if value.unit == 'excluded' else ''}{kind}{value.text}")
            )
    return [text for _, text in sorted(found)]


def _is_as_root(text: str) -> bool:
    """Whether it was said last that root is to do it."""
    asked = max((match.start() for match in _ROOT.finditer(text)), default=-1)
    refused = max((match.start() for match in _NO_ROOT.finditer(text)), default=-1)
    return asked > refused


def _latest(conditions: list[Condition]) -> list[Condition]:
    """Of conditions of the same kind, such as two ages, the one said last."""
    last: dict[str, Condition] = {}
    for one in conditions:
        test = one.test.split()
        key = one.test if test[0] == "-not" else test[0].replace("mmin", "mtime")
        if key not in last or last[key].start <= one.start:
            last[key] = one
    return [one for one in conditions if one in last.values()]


def _implied(values: list[Value], endings_only: bool = False) -> frozenset[str]:
    """The stems of what it must be about, by its values, or by the endings of files alone."""
    found: list[str] = []
    for value in values:
        if value.kind == "schedule":
            found += _SCHEDULED
        if value.sure:
            if not endings_only:
                found += _IMPLIED.get(value.kind, "").split() + _UNITS.get(value.unit, "").split()
            for pattern, words in _BY_ENDING:
                if value.kind in ("file", "path", "host") and re.search(pattern, value.text):
                    found += words.split()
    return frozenset(stem(word) for word in found)
