"""First pass over a whole page: comments, continued lines and the escapes whose meaning never
changes.

Four escapes in five are a hyphen, a font change, a blank or a fixed character. Replacing those over
the whole page at once is several times quicker than meeting them one by one in the interpreter.
"""

from __future__ import annotations

import re

from dowsing.model.markup import BOLD, BOLD_ITALIC, CODE, ITALIC, ROMAN
from dowsing.readers.roff.characters import glyph
from dowsing.readers.roff.marks import BACKSLASH, PAD, PREVIOUS, ZERO

#: Font names and positions to style marks. Typewriter fonts are `CODE` unless they are bold or
#: italic.
FONTS = {
    "R": ROMAN,
    "1": ROMAN,
    "B": BOLD,
    "3": BOLD,
    "I": ITALIC,
    "2": ITALIC,
    "BI": BOLD_ITALIC,
    "4": BOLD_ITALIC,
    "P": PREVIOUS,
    "": PREVIOUS,
    "CW": CODE,
    "C": CODE,
    "CR": CODE,
    "5": CODE,
    "L": CODE,
    "CB": BOLD,
    "CI": ITALIC,
    "CO": ITALIC,
    "CBI": BOLD_ITALIC,
    "V": CODE,
    "VB": BOLD,
    "VI": ITALIC,
    "CX": CODE,
    "TT": CODE,
    "BC": BOLD,
    "S": ROMAN,
    "H": ROMAN,
    "N": ROMAN,
    "HB": BOLD,
    "TB": BOLD,
    "TR": ROMAN,
    "HR": ROMAN,
    "TI": ITALIC,
    "HI": ITALIC,
    "b": BOLD,
    "r": ROMAN,
    "i": ITALIC,
    "c": CODE,
}

_FIXED = {
    "-": "-",
    "&": ZERO,
    "e": BACKSLASH,
    " ": PAD,
    "~": PAD,
    "0": PAD,
    "|": "",
    "^": "",
    "%": "",
    "/": "",
    ",": "",
    ":": "",
    ")": ZERO,
    ".": ZERO + ".",
    "'": ZERO + "'",
    "`": "`",
    "_": "_",
    '"': "",
    "a": "",
    "!": "",
    "?": "",
    "t": "\t",
    "p": "",
    "r": "",
    "u": "",
    "d": "",
}

# both begin with a plain backslash: the regular expression engine then skips to the next one
# quickly
_COMMENT = re.compile(r'\\(?:(\\)|".*|#.*\n?)')
_CONTINUED = re.compile(r"\\(?:(\\)|\n)")
_FAST = tuple(
    ("\\" + name, text)
    for name, text in (
        *((n, _FIXED[n]) for n in "-& "),
        *(("f" + n, FONTS[n]) for n in "RBIP5"),
    )
)
_ESCAPE = re.compile(
    r"\\(?:(\\)|f(?:\[([^\]\n]*)\]|\((..)|([^\[(\n]))|\((..)|\[([^\]\n]*)\]|([-&e |%/,^~0.:)]))"
)


def _fixed(match: re.Match[str]) -> str:
    double, font_long, font_two, font_one, two, long, single = match.groups()
    if double:
        return "\\\\"
    if single:
        return _FIXED[single]
    name = two or long
    if name is not None:
        text = glyph(name)
        return match[0] if text is None else text
    font = font_long if font_long is not None else font_two or font_one
    return FONTS.get(font.strip(), match[0])


def _kept_double(match: re.Match[str]) -> str:
    return "\\\\" if match[1] else ""


def fixed_escape(name: str) -> str | None:
    """What the one-character escape stands for, or None if it is not one of fixed meaning."""
    return _FIXED.get(name)


def prepare(source: str) -> str:
    """`source` without comments and continued lines and with its fixed escapes replaced by text and
    marks.

    A page that changes its escape character is returned as it is but for comments: the interpreter
    then meets every escape itself.
    """
    if '\\"' in source or "\\#" in source:
        source = _COMMENT.sub(_kept_double, source)
    if "\\\n" in source:
        source = _CONTINUED.sub(_kept_double, source)
    if "\\" not in source or "\n.eo" in source or "\n.ec" in source:
        return source
    if "\\\\" not in source:
        for escape, text in _FAST:
            source = source.replace(escape, text)
        if "\\" not in source:
            return source
    return _ESCAPE.sub(_fixed, source)
