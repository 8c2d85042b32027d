"""Breaking marked text into lines."""

from __future__ import annotations

import re

from dowsing.model.markup import ROMAN
from dowsing.render.cell_width import display_width

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

_FONT = re.compile("[\x01-\x05]")
_LINKS = "\x0e[^\x0f]*\x0f|\x11"
_GROUP = r"\[(?:[^\[\]\n]|\[[^\[\]\n]*\]){1,48}\]"
FIRST_IDEOGRAPH = "\u2e80"
_IDEOGRAPHS = (
    "[\u2e80-\u9fff\uf900-\ufaff\uff00-\uffef][\u3001\u3002\uff09\uff0c]?"
    "|[^\u2e80-\u9fff\uf900-\ufaff\uff00-\uffef]+"
)
NARROWEST = 12


def without_links(text: str) -> str:
    """Marked text without link targets."""
    return re.sub(_LINKS, "", text) if "\x0e" in text else text


def groups_kept(form: str) -> str:
    """A form in which short bracketed groups are not broken over lines."""
    return re.sub(_GROUP, lambda match: match[0].replace(" ", "\xa0"), form)


def unbroken(parts: list[str]) -> str:
    """Parts in one text, none of which is broken over lines: command lines to be copied."""
    return " · ".join(part.replace(" ", "\xa0") for part in parts)


def wrap(text: str, width: int, indent: int = 0, hang: int = 0) -> list[str]:
    """Lines of at most `width` columns, set in by `indent`; lines after the first by `hang` more.

    Line breaks in the text stay. A word longer than a line stays whole. Every line stands for
    itself: a style that goes on over a break is closed and opened again.
    """
    lines: list[str] = []
    for n, part in enumerate(without_links(text).split("\n")):
        first = " " * (indent + (hang if n and hang else 0))
        rest = " " * (indent + hang)
        if part.isascii() and part.isprintable():
            _wrap_bare(part, width, first, rest, lines)
        else:
            _wrap_marked(part, width, first, rest, lines)
    return close_styles(lines)


def _wrap_bare(part: str, width: int, first: str, rest: str, lines: list[str]) -> None:
    """Break text in which every character is a column: cut at the last blank that fits."""
    lead, room, at = first, max(width - len(first), NARROWEST), 0
    while len(part) - at > room:
        cut = part.rfind(" ", at, at + room + 1)
        if cut <= at:
            cut = part.find(" ", at + room)
            if cut < 0:
                break
        lines.append(lead + part[at:cut])
        lead, room, at = rest, max(width - len(rest), NARROWEST), cut + 1
    lines.append(lead + part[at:])


def _wrap_marked(part: str, width: int, first: str, rest: str, lines: list[str]) -> None:
    """Break text with marks or wide characters word by word; between ideographs a line may end
    anywhere.
    """
    current, used, room = first, 0, max(width - len(first), NARROWEST)
    ascii_text = part.isascii()
    for blank, word in _words(part, ascii_text):
        if word.isprintable() and (ascii_text or word.isascii()):
            size = len(word)
        else:
            size = len(_FONT.sub("", word)) if ascii_text else display_width(word)
        if used and used + len(blank) + size > room:
            lines.append(current)
            current, used = rest + word, size
            room = max(width - len(rest), NARROWEST)
        elif used:
            current += blank + word
            used += len(blank) + size
        else:
            current += word
            used = size
    lines.append(current)


def _words(part: str, ascii_text: bool) -> Iterator[tuple[str, str]]:
    """The words with what stands before each when it does not begin a line: a blank or nothing."""
    for word in part.split(" "):
        if ascii_text or max(word, default="") < FIRST_IDEOGRAPH:
            yield " ", word  # the pattern takes 3 ms to be made, a fifteenth of a look-up
        else:
            for n, piece in enumerate(re.findall(_IDEOGRAPHS, word) or [word]):
                yield "" if n else " ", piece


def close_styles(lines: list[str]) -> list[str]:
    """Lines in which every style begins and ends on its own line; kept blanks become blanks."""
    style = ROMAN
    done = []
    for line in lines:
        if style == ROMAN and line.isprintable():
            done.append(line)
            continue
        marks = _FONT.findall(line)
        if style != ROMAN:
            bare = line.lstrip(" ")
            line = line[: len(line) - len(bare)] + style + bare
        if marks:
            style = marks[-1]
        if style != ROMAN:
            line += ROMAN
        done.append(line.replace("\xa0", " ") if "\xa0" in line else line)
    return done


#: Where a sentence may end; what stands before it must not be an abbreviation.
_STOP = re.compile(r"(?<!e\.g)(?<!i\.e)(?<!etc)[.;:](?=\s+[A-Z(]|$)")
#: Where a list of values begins below what is said.
_LIST_BELOW = re.compile(r"\s+(?=Possible values:\s+- )")
LEAST_SENTENCE = 12  # characters before its end


def first_sentence(text: str) -> str:
    """The first sentence of a text; what stands in brackets is never cut."""
    text = _LIST_BELOW.split(text.split("\n\n")[0], maxsplit=1)[0]
    text = " ".join(text.split())
    for stop in _STOP.finditer(text, LEAST_SENTENCE):
        before = text[: stop.start()]
        if all(before.count(o) <= before.count(c) for o, c in ("()", "[]")):
            return text[: stop.end()].rstrip(":;")
    return text.rstrip(":;")
