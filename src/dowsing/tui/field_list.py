"""The list of fields: each with its spelling, what it holds, and what it is; the wrong ones
marked.
"""

from __future__ import annotations

from rich.segment import Segment
from rich.style import Style
from textual.geometry import Size
from textual.message import Message
from textual.scroll_view import ScrollView
from textual.strip import Strip

from dowsing.composing.field import Field, FieldKind
from dowsing.composing.sheet import Sheet
from dowsing.model.markup import clean_line
from dowsing.render.cell_width import display_width, fit, fit_words
from dowsing.render.expectations import brief
from dowsing.render.fields import field_says, shown_value
from dowsing.render.phrases import words
from dowsing.tui.marked import COLOURS

NAME = Style(bold=True)
VALUE = Style(color=COLOURS.code)
FAINT = Style(dim=True)
WRONG = Style(color=COLOURS.wrong, bold=True)
GROUP = Style(dim=True, italic=True)
WIDEST_NAME, WIDEST_VALUE, LEAST_VALUE = 34, 30, 12
LEAST_SAID = 48  # columns of what a field is, before its value gets more than the least


class FieldList(ScrollView, can_focus=False):
    """The fields, one a row. The row in focus is where the input stands."""

    DEFAULT_CSS = (
        "FieldList { background: ansi_default; scrollbar-size: 1 1; "
        "scrollbar-size-horizontal: 0; overflow-x: hidden; }"
    )

    class Picked(Message):
        """A row was clicked."""

        def __init__(self, row: int) -> None:
            super().__init__()
            self.row = row

    def __init__(self, sheet: Sheet, **named: object) -> None:
        super().__init__(**named)  # type: ignore[arg-type]
        self.sheet = sheet
        self.fields: list[Field] = []
        self.row = 0
        self.ruled_out: dict[str, str] = {}
        self._name_width = WIDEST_NAME
        self.in_words = False  # what a field means stands first, its spelling last

    def show(self, fields: list[Field], row: int = 0) -> None:
        """Show these fields, with that row in focus."""
        self.fields = fields
        self.row = max(0, min(row, len(fields) - 1))
        self.ruled_out = self.sheet.ruled_out()
        names = [display_width(self._first(field)) for field in fields]
        share = self.size.width * (11 if self.in_words else 8) // 20
        widest = max(share, 12) if self.in_words else min(WIDEST_NAME, max(share, 12))
        self._name_width = min(max(names, default=8), widest)
        self.virtual_size = Size(self.size.width, len(fields))
        self.bring_into_view()
        self.refresh()

    @property
    def field(self) -> Field | None:
        """The field in focus."""
        return self.fields[self.row] if self.fields else None

    @property
    def value_column(self) -> int:
        """Where values begin."""
        return 2 + self._name_width + 2

    @property
    def value_width(self) -> int:
        """How wide values may be."""
        room = self.size.width - self.value_column - 2
        if room <= 2 * LEAST_VALUE:
            return max(10, room)
        return max(LEAST_VALUE, min(WIDEST_VALUE, room - LEAST_SAID))

    def bring_into_view(self) -> None:
        """Scroll so that the row in focus is seen."""
        top, height = self.scroll_offset.y, max(self.size.height, 1)
        if self.row < top:
            self.scroll_to(y=self.row, animate=False, force=True, immediate=True)
        elif self.row >= top + height:
            self.scroll_to(y=self.row - height + 1, animate=False, force=True, immediate=True)

    def on_resize(self) -> None:
        """Keep the scroll bar and the focus in step."""
        self.virtual_size = Size(self.size.width, len(self.fields))
        self.bring_into_view()

    def on_click(self, event) -> None:  # type: ignore[no-untyped-def]
        """A click takes the focus to a row."""
        offset = event.get_content_offset(self)
        if offset is not None and offset.y + self.scroll_offset.y < len(self.fields):
            self.post_message(self.Picked(offset.y + self.scroll_offset.y))

    def render_line(self, y: int) -> Strip:
        """A row."""
        number = y + self.scroll_offset.y
        width = self.size.width
        if number >= len(self.fields):
            return Strip.blank(width)
        field = self.fields[number]
        here = number == self.row
        out = field.key in self.ruled_out
        wrong = words(self.sheet.wrong(field))
        on = self.sheet.is_on(field)
        mark = "!" if wrong else "•" if on else "*" if field.required else " "
        name = fit(self._first(field), self._name_width)
        value = fit(clean_line(self._value(field)), self.value_width)
        base = FAINT if out else Style()
        pieces = [
            Segment(
                ("▸" if here else " ") + mark, WRONG if wrong else NAME if here or on else base
            ),
            Segment(
                name + "  ",
                base + (WRONG if wrong else NAME if (here or on) and not out else Style()),
            ),
            Segment(value, FAINT if out else WRONG if wrong else VALUE if on else FAINT),
        ]
        room = width - self.value_column - self.value_width - 2
        if room > 12:
            says = (
                f"not with {self.ruled_out[field.key]}"
                if out
                else wrong or (_name(field) if self.in_words else brief(field_says(field)))
            )
            told = fit_words(clean_line(says), room)
            pieces.append(Segment("  " + told, WRONG if wrong else FAINT))
        return Strip(pieces).adjust_cell_length(width)

    def _first(self, field: Field) -> str:
        """What stands in the first column: the spelling, or the words for it."""
        words = clean_line(brief(field_says(field))) if self.in_words else ""
        return words or _name(field)

    def _value(self, field: Field) -> str:
        held = shown_value(self.sheet, field)
        if held:
            return held
        if not field.takes:
            return "·"
        if field.default is not None:
            return f"({clean_line(field.default)})"
        return "·" * 3


def _name(field: Field) -> str:
    holder = f" {field.placeholder}" if field.what == FieldKind.OPTION and field.placeholder else ""
    return clean_line(field.label + holder)
