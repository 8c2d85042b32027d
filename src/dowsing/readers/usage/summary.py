"""What a usage text says of its program in a sentence: not a form, a log line, a title, or what the
text itself is.
"""

from __future__ import annotations

import re

from dowsing.model.document import Paragraph, Section

MOST_LOOKED_AT = 3  # paragraphs before there is none
LONGEST = 300  # characters
#: What a program says that does not know the option it was asked with.
_COMPLAINT = re.compile(
    r"\b(?:unknown|invalid|unrecogni[sz]ed|illegal|bad|unexpected) "
    r"(?:option|flag|argument|switch|parameter)s?\b",
    re.IGNORECASE,
)
#: `WARNING: …`, `ROOT: …`, `2026-01-02 …`, `tool: …`: lines of a log.
_LOGGED = re.compile(r"\[?(?:[A-Z]{3,}\]?:?\s|\d{4}-\d\d|[\w.-]+: (?:warning|error|note)\b)")
#: What says what the text is, not what the program does.
_OF_THE_TEXT = re.compile(
    r"(?:display|show|print|list|get)s? (?:this |the )?(?:help|usage|commands?|version)\b"
    r"|by default, output\b|options?\b|usage\b|copyright\b|\(c\)|for more information\b"
    r"|(?:run|use|try|see|type) [\"'`‘“]",
    re.IGNORECASE,
)
#: `tool 1.2.3`, `tool version 1.2 (abc)`, `BusyBox v1.35 … binary`: who it is.
_VERSION = re.compile(r"(?:[\w.-]+,? ){1,3}\(?v?\d+\.\d[\w.+~-]*(?:\W|\Z)")
_AUTHOR = re.compile(r"(?:by )?[A-Z][\w.]+(?: [A-Z][\w.]+)* <[^<>@\s]+@[^<>\s]+>")
_FORM = re.compile(r"[<\[{]|--?\w|\.\.\.")
_WORD = re.compile(r"[^\W\d_]{2,}")
LEAST_WORDS = 2


def summary_of(sections: list[Section], name: str, forms: list[str]) -> str:
    """The sentence, "" if there is none. `forms`: where none is of the program, the text is of
    something else.
    """
    if forms and not any(_is_of(form, name) for form in forms):
        return ""
    looked_at = 0
    for part in sections:
        title = part.title.upper()
        for block in part.blocks if title in ("NAME", "DESCRIPTION") else []:
            if not isinstance(block, Paragraph) or looked_at == MOST_LOOKED_AT:
                break
            looked_at += 1
            text = block.text
            if title == "NAME":
                own, dash, text = text.partition(" - ")
                if not dash or own.strip() != name:
                    break
            text = _without_name(text, name)
            if is_telling(text, name):
                return first_sentence(text)
    return ""


def _is_of(form: str, name: str) -> bool:
    """Whether a form is the program's: it has its name, or a word for it, among the first."""
    last = name.split(" ")[-1]
    begins = [word.rpartition("/")[2].partition(".")[0] for word in form.split()[:6]]
    names = {name.split(" ")[0].partition(".")[0], last.partition(".")[0]}
    return any(word in names for word in begins) or not form[:1].islower()


def _without_name(text: str, name: str) -> str:
    """A sentence without the name of the program before it: `tool - does this`."""
    for joint in (" - ", " -- ", " — ", " – ", ": "):
        before, found, rest = text.partition(joint)
        if found and before.strip().casefold() == name.casefold() and len(rest.split()) > 1:
            return rest.strip()
    return text


def is_telling(text: str, name: str) -> bool:
    """Whether a paragraph says what the program does."""
    beginning = text[:80]
    if any(one.match(text) for one in (_LOGGED, _OF_THE_TEXT, _VERSION, _AUTHOR)):
        return False
    if _COMPLAINT.search(beginning):
        return False
    if text.startswith(f"{name} ") and _FORM.search(beginning):
        return False
    words = [word for word in _WORD.findall(text) if word.casefold() != name.casefold()]
    return len(words) >= LEAST_WORDS


def first_sentence(text: str) -> str:
    """The first sentence, without its stop; "" of what is none."""
    sentence = re.split(r"(?<=[a-z)\]”’'\"0-9])\.(?:\s|\Z)", text, maxsplit=1)[0]
    return "" if len(sentence) > LONGEST or sentence.endswith(":") else sentence.rstrip(".").strip()
