"""Marked text: the inline text of documents as one string with style marks in it.

A paragraph is one `str`. Where its style changes it holds one of the mark characters below (C0
controls, which no cleaned document text contains), so that joining, splitting and measuring text
stay plain string work. `spans()` gives the styled pieces, `plain()` the bare text.
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

#: One run of text in one style. `style` is a value of STYLES; `link` is None, a name such as
#: `tar(1)`, or an address with its scheme.
Span = namedtuple("Span", "text style link")

_WITHOUT_MARKS = dict.fromkeys((*range(1, 9), *range(14, 28)))
_MARK_CHARACTERS = tuple(chr(code) for code in _WITHOUT_MARKS)
_WITHOUT_CONTROLS = dict.fromkeys((*range(9), *range(11, 32), 127))


#: What reorders, hides or breaks what is shown though it is no control character: directional
#: marks, embeddings, overrides and isolates (Unicode 9), line and paragraph separators, the byte
#: order mark, annotations, tags, and surrogates (which stand for bytes of a path that are no
#: UTF-8).
_INVISIBLE = (
    "\u061c\u200e\u200f\u2028\u2029\u202a-\u202e\u2066-\u206f\ufeff\ufff9-\ufffb"
    "\U000e0000-\U000e007f\ud800-\udfff"
)


@cache
def _unsafe() -> re.Pattern[str]:
    """Control characters, the C1 range included, and what is invisible; tab and newline are none.

    Compiled when first needed: large character sets take their time.
    """
    return re.compile(f"[\x00-\x08\x0b-\x1f\x7f-\x9f{_INVISIBLE}]")


@cache
def _unsafe_beside_marks() -> re.Pattern[str]:
    """The same without the marks of this module and those of whole lines (render/line_marks.py)."""
    return re.compile(f"[\x00\x06-\x08\x0b-\x0d\x10\x12-\x16\x1a-\x1f\x7f-\x9f{_INVISIBLE}]")


def plain(text: str) -> str:
    """The bare text, without marks and link targets; non-breaking spaces become spaces."""
    if text.isprintable():  # neither marks nor line breaks nor kept blanks
        return text
    if LINK in text:
        return re.sub(_MARKS, "", text).replace("\xa0", " ")
    if text.isascii():
        return text.translate(_WITHOUT_MARKS)
    for (
        mark
    ) in _MARK_CHARACTERS:  # quicker than a regular expression, and these are rarely all there
        if mark in text:
            text = text.replace(mark, "")
    return text.replace("\xa0", " ")


def clean(text: str) -> str:
    """`text` without control characters and directional overrides; tab and newline stay."""
    if text.isascii():
        return text.translate(_WITHOUT_CONTROLS)
    if (
        text.replace("\n", "").replace("\t", "").isprintable()
    ):  # much quicker than looking for what is not
        return text
    return _unsafe().sub("", text)


def clean_line(text: str) -> str:
    """`text` as one line that is safe to print: control characters become `?`, whitespace a
    space.
    """
    if text.isprintable():
        return text
    return _unsafe().sub("?", text.replace("\n", " ").replace("\t", " "))


def printable_marked(text: str) -> str:
    """Marked text as it may leave the program: only marks, tab and newline stay of control
    characters.
    """
    return _unsafe_beside_marks().sub("", text)


def escaped(text: str) -> str:
    """A text that must be seen as it is, such as a kept line: unsafe characters as `\\x1b`,
    `\\u202e`, a tab as `\\t`.
    """
    if text.isprintable():
        return text
    return _unsafe().sub(_escape, text).replace("\t", "\\t").replace("\n", "\\n")


def has_unsafe(text: str) -> bool:
    """Whether something in the text would not be seen, or would act on a terminal."""
    return not text.isprintable() and _unsafe().search(text) is not None


def _escape(match: re.Match[str]) -> str:
    code = ord(match[0])
    if code < 0x80:
        return f"\\x{code:02x}"
    return f"\\u{code:04x}" if code < 0x10000 else f"\\U{code:08x}"


def json_escaped(text: str) -> str:
    """JSON text in which nothing unsafe stands as itself: each such character as its `\\u` escape,
    so nothing is lost.
    """
    if text.isascii() or text.replace("\n", "").isprintable():
        return text.replace("\x7f", "\\u007f")
    return _unsafe().sub(_json_escape, text)


def _json_escape(match: re.Match[str]) -> str:
    code = ord(match[0])
    if code < 0x10000:
        return f"\\u{code:04x}"
    code -= 0x10000  # JSON writes it as two surrogates
    return f"\\u{0xD800 + (code >> 10):04x}\\u{0xDC00 + (code & 0x3FF):04x}"


def link(target: str, text: str) -> str:
    """Marked text that refers to `target` (a name with section, or an address)."""
    return f"{LINK}{target}{LINK_TEXT}{text}{LINK_END}"


def leads_outside(target: str) -> bool:
    """Whether a link's target is an address that an export may carry: of the web, of mail, of a
    file. No scripts.
    """
    return (
        target.partition(":")[0].lower() in ("http", "https", "mailto", "ftp", "file")
        and ":" in target
    )


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
