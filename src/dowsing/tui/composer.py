"""The screen of `compose`: fields by steps, help on the one in focus, the line as it grows."""

from __future__ import annotations

import contextlib

from textual.binding import Binding
from textual.events import Resize
from textual.widgets import Input

from dowsing.composing.completing import completed, completions
from dowsing.composing.faults import FaultCode
from dowsing.composing.field import SWITCH, Field, FieldKind, Step, wrong
from dowsing.composing.history import History
from dowsing.composing.sheet import Sheet
from dowsing.model.document import Document
from dowsing.model.errors import CannotKeep
from dowsing.model.quoting import is_quoted_word, items, quoted
from dowsing.render.page_text import whole_lines
from dowsing.render.phrases import words
from dowsing.session.session import Session
from dowsing.session.sheets import documents_of
from dowsing.tui.above import Above
from dowsing.tui.choice_list import ChoiceList
from dowsing.tui.field_list import FieldList
from dowsing.tui.form_actions import FormActions
from dowsing.tui.lines_view import LinesView
from dowsing.tui.program import run_program

WIDE = 132  # columns from which on the help stands beside the fields


def compose_on_screen(
    session: Session, sheet: Sheet, spelling: str = "", kind: str = ""
) -> str | None:
    """Let the user fill in a sheet; the line, or None if it was left. `kind`: that of a line of a
    file.
    """
    return run_program(Composer(session, sheet, spelling, kind))


class Composer(FormActions):
    """The form of a sheet."""

    BINDINGS = [  # noqa: RUF012
        Binding("enter", "hand_out", "hand out", priority=True),
        Binding("escape", "escape", "leave", priority=True),
        Binding("up", "move(-1)", priority=True, show=False),
        Binding("down", "move(1)", priority=True, show=False),
        Binding("pageup", "move(-10)", priority=True, show=False),
        Binding("pagedown", "move(10)", priority=True, show=False),
        Binding("ctrl+t", "step", "step", priority=True),
        Binding("ctrl+f", "seek", "find", priority=True),
        Binding("ctrl+l", "spelling", "long or short", priority=True),
        Binding("f4,ctrl+g", "page", "page", priority=True),
        Binding("f2,ctrl+o", "choices", priority=True, show=False),
        Binding("f3", "words", priority=True, show=False),
        Binding("f7", "undo", priority=True, show=False),
        Binding("f8", "redo", priority=True, show=False),
        Binding("f9", "reset", priority=True, show=False),
        Binding("ctrl+s", "keep", priority=True, show=False),
        Binding("tab", "complete", priority=True, show=False),
        Binding("shift+up", "help(-3)", priority=True, show=False),
        Binding("shift+down", "help(3)", priority=True, show=False),
    ]

    def __init__(self, session: Session, sheet: Sheet, spelling: str, kind: str = "") -> None:
        super().__init__()
        self.session = session
        self.sheet = sheet
        self.spelling = spelling
        self.step = sheet.first_step()
        self.document: Document | None = None
        self.loaded = False
        self.warned = ""  # the line that was already said to lack something
        self.shown = ""  # what the input held when it was last looked at
        self.offered: list[str] = []
        self.history = History(sheet)
        self.kind = kind

    def check_action(self, action: str, parameters: tuple[object, ...]) -> bool:
        """While a list is open, the keys are its own and not the form's."""
        return not (isinstance(self.screen, ChoiceList) and action in _OF_FORM)

    def on_mount(self) -> None:
        """Draw the first step; the page is read once that is on the screen."""
        self.list = self.query_one(FieldList)
        self.value = self.query_one("#value", Input)
        self.side = self.query_one("#side", LinesView)
        self.side.can_focus = False
        self.call_after_refresh(self.begin)

    def begin(self) -> None:
        self.show_step(self.step)
        self.set_timer(0.02, self.load)

    def load(self) -> None:
        """Read the page, whose text on a field is its help."""
        self.document = documents_of(self.session, self.sheet)
        self.loaded = True
        self.show_help()
        self.show_line()

    # --- drawing
    # -------------------------------------------------------------------------------------

    def on_resize(self, event: Resize) -> None:
        super().on_resize(event)
        self.screen_stack[0].set_class(event.size.width >= WIDE, "wide")
        self.call_after_refresh(self.place)

    def place(self) -> None:
        """Put everything where it belongs after a change of size."""
        if self.list.fields:
            self.list.show(self.list.fields, self.list.row)
            self.place_input()
            self.show_heads()
            self.show_help()

    def show_step(self, step: Step, key: str = "") -> None:
        """Show the fields of a step, with the field of that key in focus."""
        self.step = step
        fields = self.sheet.of_step(step)
        row = next((n for n, field in enumerate(fields) if field.key == key), 0)
        if not key:
            row = next(
                (n for n, f in enumerate(fields) if f.required and not self.sheet.is_on(f)), 0
            )
        self.list.show(fields, row)
        self.enter_field()

    # --- the field in focus
    # --------------------------------------------------------------------------

    def enter_field(self) -> None:
        """Make ready for the field in focus."""
        field = self.list.field
        self.offered = []
        if self.types(field):
            assert field is not None
            self.shown = self.written(field)
            self.value.value = self.shown
            self.value.placeholder = "space: without a value" if field.bare else ""
            self.value.cursor_position = len(self.value.value)
            self.value.display = True
        else:
            self.value.display = False
        if not self.seeking:
            self.set_focus(self.value if self.types(field) else None)
        self.place_input()
        self.show_heads()
        self.show_help()

    def place_input(self) -> None:
        """Put the input where the value of the row in focus stands."""
        if self.value.display:
            y = self.list.row - self.list.scroll_offset.y
            self.value.styles.offset = (self.list.value_column, y)
            self.value.styles.width = self.list.value_width

    def written(self, field: Field) -> str:
        """What a field holds, as it is typed: items of a list with blanks between them."""
        values = [value for value in self.sheet.values(field) if value != SWITCH]
        if not field.repeats:
            return values[0] if values else ""
        return " ".join(
            quoted(value)
            if any(c in value for c in " '\"\\") and not is_quoted_word(value)
            else value
            for value in values
        )

    def read(self, field: Field, text: str) -> list[str]:
        """The values of what was typed."""
        text = "".join(char for char in text if char.isprintable())
        if not text.strip():
            return []
        if not field.repeats:
            return [text.strip()]
        # the quotes stay: without them a name such as '*' would be a pattern
        return [word for _, word in items(text)]

    def on_input_changed(self, event: Input.Changed) -> None:
        """The line follows what is typed; what may stand there is offered."""
        if event.value != event.input.value or len(self.screen_stack) > 1:
            return  # there is more to come, or it is the line of a list
        if event.input.id == "seeking":
            if self.seeking:
                self.list.show(self.sheet.search(event.value))
                self.enter_field()
            return
        field = self.list.field
        if not self.types(field) or not self.take_input():
            return
        assert field is not None
        self.offered = completions(field, event.value) if event.value else []
        self.list.refresh()
        self.show_line()
        self.show_help()

    def take_input(self) -> bool:
        """Put what is typed into the field in focus; whether that changed it."""
        field = self.list.field
        if field is None or not self.types(field) or self.value.value == self.shown:
            return False
        self.shown = self.value.value
        values = self.read(field, self.shown)
        if values or SWITCH not in self.sheet.values(field):
            self.sheet.put(field, values)
            self.history.note(field.key, typed=True)
        return True

    def leave_field(self) -> None:
        """Check the value of the field that is left."""
        field = self.list.field
        if field is None:
            return
        self.take_input()
        self.history.rest()
        reason = self.sheet.wrong(field)
        self.say(f"{field.label}: {words(reason)}" if reason else "")
        if field.what == FieldKind.SUBCOMMAND and not reason and self.sheet.settle():
            self.renew()

    def renew(self) -> None:
        """The fields have become others."""
        self.history = History(self.sheet)
        self.step = self.sheet.first_step()
        self.list.show(self.sheet.of_step(self.step))
        self.loaded = False
        self.set_timer(0.02, self.load)

    def change(self, field: Field, values: list[str]) -> None:
        """Let a field hold these values, and draw what comes of it."""
        out = self.list.ruled_out.get(field.key)
        if out and values:
            self.say(f"{field.label} does not go together with {out}")
            return
        self.sheet.put(field, values)
        self.history.note(field.key)
        reasons = (wrong(field, value, self.sheet.folder) for value in values if value)
        self.say(words(next((reason for reason in reasons if reason), None)))
        if field.what == FieldKind.FORM:
            key = field.key
            self.list.show(self.sheet.of_step(self.step))
            row = next((n for n, one in enumerate(self.list.fields) if one.key == key), 0)
            self.list.show(self.list.fields, row)
        else:
            self.list.show(self.list.fields, self.list.row)
        self.show_heads()
        self.show_help()

    def on_key(self, event) -> None:  # type: ignore[no-untyped-def]
        """Keys of fields that are not typed: on or off, the next value, a letter that a value
        begins with.
        """
        field = self.list.field
        if self.seeking or field is None or len(self.screen_stack) > 1:
            return
        if event.key == "space" and field.takes and field.bare and not self.value.value:
            event.prevent_default()
            self.change(field, [] if self.sheet.is_on(field) else [SWITCH])
            return
        if self.types(field):
            return
        if not field.takes and event.key in ("space", "x"):
            values = self.sheet.values(field)
            self.change(
                field,
                [*values, SWITCH]
                if field.repeats and len(values) < 3
                else []
                if values
                else [SWITCH],
            )
        elif not field.takes and event.key in ("delete", "backspace"):
            self.change(field, [])
        elif self.chooses(field):
            self.choose(field, event.key, event.character or "")

    def choose(self, field: Field, key: str, character: str) -> None:
        """The next value, the one before, none, or one that begins with a letter."""
        values = field.values or []
        held = (self.sheet.values(field) or [""])[0]
        at = values.index(held) if held in values else -1
        if key in ("right", "space"):
            self.change(field, [values[(at + 1) % len(values)]])
        elif key == "left":
            self.change(field, [values[(at - 1) % len(values)] if at >= 0 else values[-1]])
        elif key in ("delete", "backspace") and field.what != FieldKind.FORM:
            self.change(field, [])
        elif character.isprintable() and character:
            after = [*values[at + 1 :], *values[: at + 1]]
            found = next((one for one in after if one.lower().startswith(character.lower())), None)
            if found:
                self.change(field, [found])

    # --- actions
    # -------------------------------------------------------------------------------------

    @property
    def seeking(self) -> bool:
        """Whether fields are looked for by words."""
        return self.screen_stack[0].has_class("seeking")

    def action_move(self, by: int) -> None:
        """To another field; the one that is left is checked."""
        if not self.on_page(by):
            self.in_turn(self.move_by, by)

    def move_by(self, by: int) -> None:
        before = self.list.fields
        self.leave_field()
        if self.list.fields is before:
            self.list.show(
                self.list.fields, min(max(self.list.row + by, 0), len(self.list.fields) - 1)
            )
        self.enter_field()

    def on_page(self, by: int) -> bool:
        """Whether the whole page is shown, which scrolls then."""
        if len(self.screen_stack) < 2:
            return False
        self.screen.query_one(LinesView).scroll_relative(
            y=by if abs(by) < 10 else by * 2, animate=False
        )
        return True

    def action_help(self, by: int) -> None:
        """Scroll what is told of the field."""
        self.side.scroll_relative(y=by, animate=False)

    def action_step(self) -> None:
        """To the next step that has fields."""
        self.in_turn(self.next_step)

    def next_step(self) -> None:
        self.leave_field()
        if self.seeking:
            self.stop_seeking()
        counts = self.sheet.counts()
        steps = list(Step)
        at = steps.index(self.step)
        order = [*steps[at + 1 :], *steps[: at + 1]]
        self.show_step(next(step for step in order if counts[step] or step == Step.ALL))

    def action_seek(self) -> None:
        """Look for fields by words."""
        self.in_turn(self.begin_seeking)

    def begin_seeking(self) -> None:
        self.leave_field()
        self.screen.add_class("seeking")
        seeking = self.query_one("#seeking", Input)
        seeking.value = ""
        self.set_focus(seeking)
        self.list.show(self.sheet.of_step(Step.ALL))
        self.enter_field()

    def stop_seeking(self) -> None:
        self.screen.remove_class("seeking")

    def show_field(self, key: str) -> None:
        """Go to a field, in the step that is shown if it is there."""
        here = next((n for n, one in enumerate(self.list.fields) if one.key == key), -1)
        if here >= 0 and not self.seeking:
            self.list.show(self.sheet.of_step(self.step), here)
            self.enter_field()
        else:
            self.show_step(Step.ALL, key)

    def take_text(self, text: str) -> None:
        """Put this in the place of what is typed."""
        self.value.value = text
        self.value.cursor_position = len(text)

    def action_page(self) -> None:
        """The whole text of the command."""
        if len(self.screen_stack) > 1:
            self.pop_screen()
            return
        if not self.loaded:
            self.load()
        document = self.document

        def lines(width: int) -> list[str]:
            return whole_lines(document, width) if document else ["nothing here tells of it"]

        self.push_screen(Above(lines, "Esc back to the form · arrows and page keys scroll"))

    def action_complete(self) -> None:
        """Complete what is typed, as far as it is certain; then go through what is offered."""
        if len(self.screen_stack) < 2:
            self.in_turn(self.complete)

    def complete(self) -> None:
        field = self.list.field
        if self.seeking:
            self.end_or_hand_out()
        elif field is not None and self.types(field):
            text = completed(field, self.value.value)
            self.take_text(text)

    def action_escape(self) -> None:
        """Out of the search, else leave without a line."""
        self.in_turn(self.escape)

    def escape(self) -> None:
        if len(self.screen_stack) > 1:
            self.pop_screen()
        elif self.seeking:
            field = self.list.field
            self.stop_seeking()
            self.show_step(
                Step.ALL if field is not None else self.step, field.key if field is not None else ""
            )
        else:
            self.exit(None)

    def action_hand_out(self) -> None:
        """Hand the line out; what it lacks or what is wrong in it is said once before."""
        self.in_turn(self.end_or_hand_out)

    def end_or_hand_out(self) -> None:
        if self.seeking or len(self.screen_stack) > 1:
            self.escape()
            return
        self.leave_field()
        line = self.sheet.line(self.spelling)
        faults = [*self.sheet.missing(), *self.sheet.faults()]
        if faults and self.warned != line:
            self.warned = line
            fault = faults[0]
            self.show_step(fault.field.step, fault.field.key)
            says = words(fault.reason)
            if fault.reason.code is not FaultCode.NEEDED:
                says = f"{fault.field.label}: {says}"
            self.say(f"{says} · Enter again takes the line as it is")
            return
        with contextlib.suppress(CannotKeep):
            self.keep_now()
        self.hand_out(line)

    def on_field_list_picked(self, event: FieldList.Picked) -> None:
        """A click on a field; on the one in focus it turns a switch or goes to the next value."""
        again = event.row == self.list.row
        field = self.list.field
        if again and field is not None and not field.takes:
            self.change(field, [] if self.sheet.is_on(field) else [SWITCH])
        elif again and field is not None and self.chooses(field):
            self.choose(field, "right", "")
        else:
            self.action_move(event.row - self.list.row)

    def on_click(self, event) -> None:  # type: ignore[no-untyped-def]
        """A click on a step."""
        widget = getattr(event, "widget", None)
        if widget is None or widget.id != "steps":
            return
        counts, at = self.sheet.counts(), 0
        for n, step in enumerate(Step, 1):
            width = len(f" {n} {step} {counts[step]} ")
            if at <= event.x < at + width:
                self.leave_field()
                self.stop_seeking()
                self.show_step(step)
                return
            at += width + 1


#: What the form's own keys do.
_BOUND = (binding for binding in Composer.BINDINGS if isinstance(binding, Binding))
_OF_FORM = frozenset(binding.action.partition("(")[0] for binding in _BOUND)
