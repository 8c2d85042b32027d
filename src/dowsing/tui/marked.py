"""Lines of marked text as strips of the screen."""

from __future__ import annotations

import re

from rich.segment import Segment
from rich.style import Style
from rich.text import Text
from textual.strip import Strip

from dowsing.model.markup import BOLD, BOLD_ITALIC, CODE, ITALIC, ROMAN, clean
from dowsing.render.line_marks import FAINT, FOUND, HEADING
from dowsing.terminal.palette import palette

PLAIN = Style()
COLOURS = palette()
STYLES = {
    BOLD: Style(bold=True),
    ITALIC: Style(italic=True, color=COLOURS.placeholder),
    BOLD_ITALIC: Style(bold=True, italic=True, color=COLOURS.placeholder),
    CODE: Style(color=COLOURS.code),
    ROMAN: PLAIN,
    FAINT: Style(dim=True),
}
HEAD = Style(bold=True, color=COLOURS.heading)
MARKED = Style(reverse=True)
_MARKS = re.compile("([\x01-\x05\x18\x19])")


def segments(line: str) -> list[Segment]:
    """The styled pieces of a line of marked text, without marks."""
    if line.isprintable():
        return [Segment(line, PLAIN)]
    if line.startswith(HEADING):
        return [Segment(clean(_MARKS.sub("", line[1:])).replace("\xa0", " "), HEAD)]
    found: list[Segment] = []
    style, marked = PLAIN, False
    for piece in _MARKS.split(line):
        if piece == FOUND:
            marked = not marked
        elif piece in STYLES:
            style = STYLES[piece]
        elif piece:
            text = "".join(char for char in piece.replace("\xa0", " ") if char.isprintable())
            found.append(Segment(text, style + MARKED if marked else style))
    return found


def strip_of(line: str) -> Strip:
    """A line of marked text as a strip."""
    return Strip(segments(line))


def text_of(marked: str) -> Text:
    """Marked text, perhaps of several lines, as a text of the screen."""
    text = Text()
    for number, line in enumerate(marked.split("\n")):
        if number:
            text.append("\n")
        for segment in segments(line):
            text.append(segment.text, segment.style)
    return text
