"""A list of rows one of which is chosen: search results, filters, the parts of a document."""

from __future__ import annotations

from rich.segment import Segment
from rich.style import Style
from textual.geometry import Size
from textual.message import Message
from textual.scroll_view import ScrollView
from textual.strip import Strip

from dowsing.model.markup import clean_line

HERE = Style(reverse=True)


class ListRow:
    """A row: styled pieces, and what it stands for (None for one that cannot be chosen)."""

    __slots__ = ("pieces", "value")

    def __init__(self, pieces: list[tuple[str, Style]], value: object = None) -> None:
        self.pieces, self.value = pieces, value


class Rows(ScrollView, can_focus=False):
    """Shows rows. `at` is the chosen one; it stands out while `lit`."""

    DEFAULT_CSS = (
        "Rows { background: ansi_default; scrollbar-size: 1 1; "
        "scrollbar-size-horizontal: 0; overflow-x: hidden; }"
    )

    class Picked(Message):
        """A row was clicked."""

        def __init__(self, rows: Rows, at: int) -> None:
            super().__init__()
            self.rows, self.at = rows, at

    def __init__(self, lit: bool = True, **named: object) -> None:
        super().__init__(**named)  # type: ignore[arg-type]
        self.rows: list[ListRow] = []
        self.at = 0
        self.lit = lit

    def show(self, rows: list[ListRow], at: int = 0) -> None:
        """Show these rows with that one chosen."""
        self.rows = rows
        self.virtual_size = Size(self.size.width, len(rows))
        self.at = at
        if not self._can(at):
            self.at = next((n for n, row in enumerate(rows) if row.value is not None), 0)
        self.bring_into_view()
        self.refresh()

    def _can(self, at: int) -> bool:
        return 0 <= at < len(self.rows) and self.rows[at].value is not None

    @property
    def value(self):  # type: ignore[no-untyped-def]
        """What the chosen row stands for."""
        return self.rows[self.at].value if self._can(self.at) else None

    def move(self, by: int) -> None:
        """Choose another row, passing over those that cannot be chosen."""
        at = max(0, min(self.at + by, len(self.rows) - 1))
        step = 1 if by > 0 else -1
        while 0 <= at < len(self.rows) and not self._can(at):
            at += step
        if self._can(at):
            self.at = at
            self.bring_into_view()
            self.refresh()

    def bring_into_view(self) -> None:
        """Scroll so that the chosen row is seen."""
        top, height = self.scroll_offset.y, max(self.size.height, 1)
        target = None
        if self.at < top:
            target = self.at if self.at > 1 else 0
        elif self.at >= top + height:
            target = self.at - height + 1
        if target is not None:
            self.scroll_to(y=target, animate=False, force=True, immediate=True)

    def on_resize(self) -> None:
        """Keep the scroll bar in step."""
        self.virtual_size = Size(self.size.width, len(self.rows))

    def on_click(self, event) -> None:  # type: ignore[no-untyped-def]
        """A click chooses a row."""
        offset = event.get_content_offset(self)
        at = -1 if offset is None else offset.y + self.scroll_offset.y
        if self._can(at):
            self.post_message(self.Picked(self, at))

    def render_line(self, y: int) -> Strip:
        """A row."""
        number = y + self.scroll_offset.y
        width = self.size.width
        if number >= len(self.rows):
            return Strip.blank(width)
        pieces = [Segment(clean_line(text), style) for text, style in self.rows[number].pieces]
        strip = Strip(pieces).adjust_cell_length(width)
        return (
            strip.apply_style(HERE)
            if self.lit and number == self.at and self._can(number)
            else strip
        )
