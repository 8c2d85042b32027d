"""Two commands beside each other, as lines."""

from __future__ import annotations

from dowsing.model.markup import clean_line
from dowsing.render.cards import brief_lines, option_lines
from dowsing.render.line_marks import FAINT, HEADING
from dowsing.render.typed import typed
from dowsing.render.wrap import unbroken, wrap

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.search.side import Side

INDENT = 3


def contrast_lines(sides: list[Side], width: int, program: str) -> list[str]:
    """What each does, how each is written, and the options that only one of them has."""
    lines = brief_lines([one.entry.changed(summary=one.summary) for one in sides], width)
    forms = [line for one in sides if one.form for line in wrap(one.form, width, INDENT)]
    lines += ["", *forms] if forms else []
    for one in sides:
        if one.own:
            lines += ["", f"{HEADING}ONLY {clean_line(one.entry.name)}"]
            lines += option_lines(one.own, width)
    if not any(one.own for one in sides):
        lines += ["", "   No option that is used often tells them apart."]
    steps = unbroken([f"{program} {typed(one.entry.name)}" for one in sides])
    return [*lines, "", *(f"{FAINT}{line}" for line in wrap(f"next: {steps}", width))]
