"""Lines above a screen: a whole page, a line taken apart."""

from __future__ import annotations

from collections.abc import Callable

from textual.app import ComposeResult
from textual.screen import ModalScreen
from textual.widgets import Static

from dowsing.tui.lines_view import LinesView


class Above(ModalScreen[None]):
    """Shows lines until it is left. `lines` lays them out for a width; `foot` says how to leave."""

    BINDINGS = [("escape,q,enter", "dismiss", "back")]  # noqa: RUF012
    CSS = (
        "Above { background: ansi_default; padding: 0 1; } #foot { dock: bottom; height: 1; "
        "text-style: dim; }"
    )

    def __init__(self, lines: Callable[[int], list[str]], foot: str) -> None:
        super().__init__()
        self.lines = lines
        self.foot = foot

    def compose(self) -> ComposeResult:
        """The lines and the foot."""
        yield LinesView(id="above")
        yield Static(self.foot, id="foot")

    def on_mount(self) -> None:
        """Lay out once the size is known."""
        self.call_after_refresh(self.fill)

    def on_resize(self) -> None:
        """Lay out anew."""
        self.fill()

    def fill(self) -> None:
        """Put the lines onto the screen."""
        view = self.query_one(LinesView)
        view.show(self.lines(max(20, self.app.size.width - 6)))
        view.focus()
