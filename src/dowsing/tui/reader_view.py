"""What the reader is made of on the screen."""

from __future__ import annotations

from textual.app import ComposeResult
from textual.containers import Container, Horizontal, Vertical
from textual.widgets import Static

from dowsing.tui.lines_view import LinesView
from dowsing.tui.rows import Rows
from dowsing.tui.typing_line import TypingLine


class ReaderView(Vertical):
    """The parts of the reader. They are put onto the screen when something is first read."""

    def __init__(self, **named: object) -> None:
        super().__init__(**named)  # type: ignore[arg-type]
        self.page = LinesView(id="page")
        self.beside = LinesView(id="beside")
        self.contents = Rows(lit=False, id="contents")
        self.sought = TypingLine("sought")

    def compose(self) -> ComposeResult:
        """The parts of the reader."""
        yield Static(id="tabs")
        with Horizontal(id="text"):
            yield self.contents
            yield self.page
            yield self.beside
        with Container(id="within"), Horizontal():
            yield Static("search for  ", id="within-label")
            yield self.sought
