"""A list to choose from that drops down over a screen: type to narrow it, Enter takes."""

from __future__ import annotations

from collections.abc import Callable

from rich.style import Style
from textual.app import ComposeResult
from textual.binding import Binding
from textual.containers import Vertical
from textual.screen import ModalScreen
from textual.widgets import Input, Static

from dowsing.model.markup import clean_line
from dowsing.render.cell_width import display_width, fit, fit_words
from dowsing.tui.program import Program
from dowsing.tui.rows import ListRow, Rows
from dowsing.tui.typing_line import TypingLine

NAME, FAINT = Style(bold=True), Style(dim=True)
WIDEST_NAME = 36
MOST_ROWS = 500
LEAST_ROWS = 3
Choice = tuple[str, str]  # what is taken, and what is said of it


class ChoiceList(ModalScreen[str | None]):
    """Choices with what each means. `choices` gives those for what is typed; `deeper` says that
    taking one goes on into it, as into a folder.
    """

    CSS = """
    ChoiceList { background: transparent; align: center middle; }
    #frame { width: 80%; min-width: 38; max-width: 100; height: auto; max-height: 80%;
        border: solid ansi_bright_black; background: ansi_default; padding: 0 1; }
    #frame Static { height: 1; }
    #frame Rows { height: 8; }
    #frame Input, #frame Input:focus { border: none; height: 1; padding: 0;
        background: ansi_default; }
    """
    BINDINGS = [  # noqa: RUF012
        Binding("escape", "leave", priority=True),
        Binding("enter", "take", priority=True),
        Binding("tab", "deepen", priority=True),
        Binding("up", "move(-1)", priority=True),
        Binding("down", "move(1)", priority=True),
        Binding("pageup", "move(-10)", priority=True),
        Binding("pagedown", "move(10)", priority=True),
    ]

    def __init__(self, title: str, choices, typed: str = "", deeper=None) -> None:  # type: ignore[no-untyped-def]
        super().__init__()
        self.head = title
        self.choices = choices
        self.deeper = deeper or (lambda value: False)
        self.typed = typed
        self.tallest = 0
        self.filled = ""  # what was typed when the rows were laid out

    def compose(self) -> ComposeResult:
        """The title, what is typed, the choices, the keys."""
        with Vertical(id="frame"):
            yield Static(clean_line(self.head), id="choice-title")
            line = TypingLine("narrowing", self.typed)
            line.placeholder = "type to narrow"
            yield line
            yield Rows(id="choices")
            yield Static("Enter takes · ↑↓ choose · Esc back", id="choice-foot")

    def on_mount(self) -> None:
        """The choices for what is typed already."""
        self.rows = self.query_one("#choices", Rows)
        self.call_after_refresh(self.fill)

    def on_resize(self) -> None:
        """Lay the rows out anew."""
        self.fill()

    def fill(self) -> None:
        """The choices for what is typed."""
        self.filled = self.query_one("#narrowing", Input).value
        found: list[Choice] = self.choices(self.filled)[:MOST_ROWS]
        width = max(self.rows.size.width, 24)
        names = max((display_width(clean_line(name)) for name, _ in found), default=8)
        column = min(names, WIDEST_NAME if any(says for _, says in found) else width)
        rows = [
            ListRow(
                [
                    (fit(clean_line(name), column) + "  ", NAME),
                    (fit_words(clean_line(says), max(width - column - 2, 0)), FAINT),
                ],
                name,
            )
            for name, says in found
        ]
        most = max(self.app.size.height * 7 // 10 - 5, LEAST_ROWS)
        self.rows.styles.height = min(max(len(rows), self.tallest, LEAST_ROWS), most)
        self.tallest = max(self.tallest, len(rows))  # it does not shrink while one types
        self.rows.show(rows or [ListRow([("nothing here begins so", FAINT)])])
        self.query_one("#choice-title", Static).update(
            clean_line(f"{self.head}  {len(found)}" if found else self.head)
        )

    def on_input_changed(self, event: Input.Changed) -> None:
        """Narrow the list."""
        event.stop()
        self.fill()

    def in_turn(self, call: Callable[..., object], *values: object) -> None:
        """Do this after what was typed before, with the choices for that."""

        def act() -> None:
            if self.query_one("#narrowing", Input).value != self.filled:
                self.fill()  # the key was quicker than the list
            call(*values)

        assert isinstance(self.app, Program)
        self.app.in_turn(act)

    def action_move(self, by: int) -> None:
        """Another row."""
        self.in_turn(self.rows.move, by)

    def action_take(self) -> None:
        """Take the chosen row; where there is none, what is typed."""
        self.in_turn(self.take)

    def take(self) -> None:
        value = self.rows.value
        if isinstance(value, str) and self.deeper(value):
            self.put(value)
        elif isinstance(value, str):
            self.dismiss(value)
        else:
            self.dismiss(self.query_one("#narrowing", Input).value or None)

    def action_deepen(self) -> None:
        """Put the chosen row into what is typed."""
        self.in_turn(self.deepen)

    def deepen(self) -> None:
        if isinstance(self.rows.value, str):
            self.put(self.rows.value)

    def put(self, value: str) -> None:
        """Go on from this value."""
        line = self.query_one("#narrowing", Input)
        line.value = value
        line.cursor_position = len(value)

    def action_leave(self) -> None:
        """Back without a choice."""
        self.dismiss(None)

    def on_rows_picked(self, event: Rows.Picked) -> None:
        """A click takes a row."""
        event.stop()
        event.rows.at = event.at
        self.take()
