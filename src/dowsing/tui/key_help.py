"""The keys of a screen, all of them, laid over it."""

from __future__ import annotations

from dowsing.model.markup import BOLD, ROMAN
from dowsing.render.cell_width import display_width
from dowsing.render.line_marks import HEADING
from dowsing.render.wrap import wrap
from dowsing.tui.above import Above

#: A title, and keys with what they do.
Group = tuple[str, list[tuple[str, str]]]


def key_help(groups: list[Group]) -> Above:
    """The overlay."""
    column = max(display_width(name) for _, keys in groups for name, _ in keys)

    def lines(width: int) -> list[str]:
        found: list[str] = []
        for title, keys in groups:
            found += ["", f"{HEADING}{title}"]
            for name, says in keys:
                pad = "\xa0" * (column - display_width(name) + 2)
                found += wrap(f"{BOLD}{name}{ROMAN}{pad}{says}", width, 3, column + 2)
        return found[1:]

    return Above(lines, "Esc back · arrows and page keys scroll")
