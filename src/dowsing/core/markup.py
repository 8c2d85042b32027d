"""Marked text: the inline text of documents as one string with style marks in it.

A paragraph is one `str`. Where its style changes it holds one of the mark characters below (C0 controls,
which no cleaned document text contains), so that joining, splitting and measuring text stay plain string
work. `spans()` gives the styled pieces, `plain()` the bare text.
"""

from __future__ import annotations

import re
from collections import namedtuple
from collections.abc import Iterator
from functools import cache

BOLD = "\x01"
ITALIC = "\x02"
BOLD_ITALIC = "\x03"
CODE = "\x04"
ROMAN = "\x05"

LINK = "\x0e"  # LINK target LINK_TEXT text LINK_END
LINK_TEXT = "\x0f"
LINK_END = "\x11"

STYLES = {BOLD: "bold", ITALIC: "italic", BOLD_ITALIC: "bold italic", CODE: "code", ROMAN: "plain"}

_MARKS = "\x0e[^\x0f]*\x0f|[\x01-\x08\x0e-\x1b]"
_PIECES = "(\x0e[^\x0f]*\x0f|[\x01-\x05\x11])"

#: One run of text in one style. `style` is a value of STYLES; `link` is None, a name such as `tar(1)`,
#: or an address with its scheme.
Span = namedtuple("Span", "text style link")

_WITHOUT_MARKS = dict.fromkeys((*range(1, 9), *range(14, 28)))
_MARK_CHARACTERS = tuple(chr(code) for code in _WITHOUT_MARKS)
_WITHOUT_CONTROLS = dict.fromkeys((*range(9), *range(11, 32), 127))


@cache
def _unsafe() -> re.Pattern[str]:
    """Control characters, the C1 range included, and the directional overrides that can reorder what is shown.

    Compiled when first needed: large character sets take their time.
    """
    return re.compile(
        "[\x00-\x08\x0b-\x1f\x7f-\x9f\u200e\u200f\u2028\u2029\u202a-\u202e\u2066-\u2069\ufeff\ud800-\udfff]"
    )


def plain(text: str) -> str:
    """The bare text, without marks and link targets; non-breaking spaces become spaces."""
    if text.isprintable():  # neither marks nor line breaks nor kept blanks
        return text
    if LINK in text:
        return re.sub(_MARKS, "", text).replace("\xa0", " ")
    if text.isascii():
        return text.translate(_WITHOUT_MARKS)
    for mark in _MARK_CHARACTERS:  # quicker than a regular expression, and these are rarely all there
        if mark in text:
            text = text.replace(mark, "")
    return text.replace("\xa0", " ")


def clean(text: str) -> str:
    """`text` without control characters and directional overrides; tab and newline stay."""
    if text.isascii():
        return text.translate(_WITHOUT_CONTROLS)
    if text.replace("\n", "").replace("\t", "").isprintable():  # much quicker than looking for what is not
        return text
    return _unsafe().sub("", text)


def clean_line(text: str) -> str:
    """`text` as one line that is safe to print: control characters become `?`, whitespace a space."""
    if text.isprintable():
        return text
    return _unsafe().sub("?", text.replace("\n", " ").replace("\t", " "))


def link(target: str, text: str) -> str:
    """Marked text that refers to `target` (a name with section, or an address)."""
    return f"{LINK}{target}{LINK_TEXT}{text}{LINK_END}"


def spans(text: str) -> Iterator[Span]:
    """The runs of `text`, in order, without empty ones; neighbours differ in style or link."""
    held = None
    for span in _pieces(text):
        if held is not None and held[1:] == span[1:]:
            held = Span(held.text + span.text, *span[1:])
            continue
        if held is not None:
            yield held
        held = span
    if held is not None:
        yield held


def _pieces(text: str) -> Iterator[Span]:
    style, target = "plain", None
    for piece in re.split(_PIECES, text):
        if piece in STYLES:
            style = STYLES[piece]
        elif piece == LINK_END:
            target = None
        elif piece.startswith(LINK):
            target = piece[1:-1]
        elif piece:
            yield Span(piece, style, target)
