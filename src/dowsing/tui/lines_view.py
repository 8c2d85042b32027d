"""A view on lines of marked text: scrolled, searched, with places in it that can be chosen."""

from __future__ import annotations

import re

from rich.style import Style
from textual.geometry import Size
from textual.message import Message
from textual.scroll_view import ScrollView
from textual.strip import Strip

from dowsing.model.markup import plain
from dowsing.tui.marked import strip_of

CHOSEN = Style(reverse=True)
LINK = Style(underline=True)


class Spot:
    """A place in a line that can be chosen: a link, a line to be run. `what` tells which, `target`
    what it means.
    """

    __slots__ = ("end", "line", "start", "target", "what")

    def __init__(self, line: int, start: int, end: int, what: str, target: str) -> None:
        self.line, self.start, self.end, self.what, self.target = line, start, end, what, target


class LinesView(ScrollView, can_focus=True):
    """Shows lines; Tab and Shift-Tab go from spot to spot, Enter or a click chooses one."""

    DEFAULT_CSS = """
    LinesView { background: ansi_default; scrollbar-size: 1 1; scrollbar-size-horizontal: 0;
        overflow-x: hidden; }
    """

    class Chosen(Message):
        """A spot was chosen."""

        def __init__(self, spot: Spot) -> None:
            super().__init__()
            self.spot = spot

    class Moved(Message):
        """Other lines are seen now."""

        def __init__(self, view: LinesView) -> None:
            super().__init__()
            self.view = view

    def __init__(self, **named: object) -> None:
        super().__init__(**named)  # type: ignore[arg-type]
        self.lines: list[str] = []
        self.spots: list[Spot] = []
        self.at = -1  # the spot that is chosen
        self.sought = ""
        self.hits: list[int] = []
        self._hit = -1

    def show(self, lines: list[str], spots: list[Spot] | None = None, keep: bool = False) -> None:
        """Show these lines from the first; `keep`: stay at the place."""
        place = self.scroll_offset.y if keep else 0
        self.lines = lines
        self.spots = spots or []
        self.at = -1
        self.hits, self._hit, self.sought = [], -1, ""
        self.virtual_size = Size(self.size.width, len(lines))
        self.scroll_to(y=place, animate=False, force=True, immediate=True)
        self.refresh()

    def watch_scroll_y(self, old_value: float, new_value: float) -> None:
        """As the library does; and tell."""
        super().watch_scroll_y(old_value, new_value)
        if round(old_value) != round(new_value):
            self.post_message(self.Moved(self))

    def render_line(self, y: int) -> Strip:
        """A line of the view."""
        number = y + self.scroll_offset.y
        width = self.size.width
        if number >= len(self.lines):
            return Strip.blank(width)
        strip = strip_of(self.lines[number])
        text = strip.text
        if self.sought:
            for match in re.finditer(re.escape(self.sought), text, re.IGNORECASE):
                strip = _styled(strip, match.start(), match.end(), CHOSEN)
        for n, spot in enumerate(self.spots):
            if spot.line == number:
                strip = _styled(strip, spot.start, spot.end, CHOSEN if n == self.at else LINK)
        return strip.adjust_cell_length(width)

    # --- moving
    # --------------------------------------------------------------------------------------

    def go_to_line(self, number: int) -> None:
        """Put a line at the top, as far as there is text below it."""
        self.scroll_to(y=max(0, number), animate=False, force=True, immediate=True)

    def show_line(self, number: int) -> None:
        """Bring a line into view."""
        top, height = self.scroll_offset.y, self.size.height
        if not top <= number < top + height:
            self.go_to_line(number - height // 3)

    def step(self, by: int) -> None:
        """Choose the next spot (1) or the one before (-1), beginning with those in view."""
        if not self.spots:
            return
        if self.at < 0 or not self._in_view(self.spots[self.at].line):
            seen = [n for n, spot in enumerate(self.spots) if self._in_view(spot.line)]
            beyond = [n for n, spot in enumerate(self.spots) if spot.line >= self.scroll_offset.y]
            self.at = (seen[0] if by > 0 else seen[-1]) if seen else (beyond or [0])[0]
        else:
            self.at = (self.at + by) % len(self.spots)
        self.show_line(self.spots[self.at].line)
        self.refresh()

    def _in_view(self, number: int) -> bool:
        return self.scroll_offset.y <= number < self.scroll_offset.y + self.size.height

    @property
    def chosen(self) -> Spot | None:
        """The spot that is chosen."""
        return self.spots[self.at] if 0 <= self.at < len(self.spots) else None

    # --- searching
    # -----------------------------------------------------------------------------------

    def seek(self, text: str) -> int:
        """Look for text and show where it first stands below the top; how many lines have it."""
        self.sought = text
        low = text.casefold()
        self.hits = (
            [n for n, line in enumerate(self.lines) if low in plain(line).casefold()]
            if text
            else []
        )
        self._hit = -1
        if self.hits:
            after = [n for n, line in enumerate(self.hits) if line >= self.scroll_offset.y]
            self._hit = (after or [0])[0]
            self.show_line(self.hits[self._hit])
        self.refresh()
        return len(self.hits)

    def seek_next(self, by: int) -> tuple[int, int]:
        """Go on to the next (1) or the last (-1) place of what was looked for: its number and how
        many there are.
        """
        if not self.hits:
            return 0, 0
        self._hit = (self._hit + by) % len(self.hits)
        self.show_line(self.hits[self._hit])
        return self._hit + 1, len(self.hits)

    # --- what the user does
    # --------------------------------------------------------------------------

    def on_resize(self) -> None:
        """Keep the scroll bar in step."""
        self.virtual_size = Size(self.size.width, len(self.lines))

    def on_click(self, event) -> None:  # type: ignore[no-untyped-def]
        """A click on a spot chooses it."""
        offset = event.get_content_offset(self)
        if offset is None:
            return
        line = offset.y + self.scroll_offset.y
        for n, spot in enumerate(self.spots):
            if spot.line == line and spot.start <= offset.x < spot.end:
                self.at = n
                self.refresh()
                self.post_message(self.Chosen(spot))
                return


def _styled(strip: Strip, start: int, end: int, style: Style) -> Strip:
    """A strip with a style on some of its characters."""
    before, middle, after = strip.crop(0, start), strip.crop(start, end), strip.crop(end)
    return Strip.join([before, middle.apply_style(style), after])
